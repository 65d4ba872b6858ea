import type { PersonLabel } from '@salt-circle/contracts';
import { nameShown, type Part } from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import type { Draft } from '../model/draft.js';
import { StudentGroup } from '../model/group.js';
import { Participant } from '../model/exchange.js';
import { Review } from '../model/review.js';
import type { ExchangeContext } from '../permissions/access.js';
import { courseNames } from './course-identities.js';

const PARTS: readonly Part[] = ['author', 'reviewer'];

/**
 * The one place that turns participants into what the one who asks may call them. A hidden name is not even
 * loaded: it cannot leave by mistake.
 */
export class PersonLabels {
  private constructor(
    private readonly context: ExchangeContext,
    private readonly labels: Readonly<Record<Part, ReadonlyMap<string, PersonLabel>>>,
    private readonly groupTitles: ReadonlyMap<string, string>,
    /** Names of staff who review under them, by participant. */
    private readonly voices: ReadonlyMap<string, string>,
  ) {}

  static async load(
    manager: EntityManager,
    context: ExchangeContext,
    participants: readonly Participant[],
  ): Promise<PersonLabels> {
    const shown = (one: Participant, part: Part) =>
      nameShown(context.viewer, context.facts, part, one.personId === context.person.id);
    const named = participants.filter((one) =>
      PARTS.some((part) => shown(one, part) === 'name' || shown(one, part) === 'both'),
    );
    const names = await courseNames(
      manager,
      context.course.id,
      named.map(({ personId }) => personId),
    );
    const label = (one: Participant, part: Part): PersonLabel => {
      const name = names.get(one.personId) ?? '';
      switch (shown(one, part)) {
        case 'self':
          return { you: true, alias: one.alias };
        case 'name':
          return { name };
        case 'both':
          return { name, alias: one.alias };
        case 'alias':
          return { alias: one.alias };
      }
    };
    const labels = (part: Part) => new Map(participants.map((one) => [one.id, label(one, part)] as const));
    return new PersonLabels(
      context,
      { author: labels('author'), reviewer: labels('reviewer') },
      await groupTitles(manager, context),
      await namesOfVoices(manager, context),
    );
  }

  /** All participants of the exchange. */
  static async ofExchange(manager: EntityManager, context: ExchangeContext): Promise<PersonLabels> {
    return PersonLabels.load(manager, context, await manager.findBy(Participant, { exchangeId: context.exchange.id }));
  }

  author(participantId: string): PersonLabel {
    return this.#of(participantId, 'author');
  }

  /** Whose draft it is: a student, or a group, which has a title for a name. */
  authorOf({ participantId, groupId, alias }: Pick<Draft, 'participantId' | 'groupId' | 'alias'>): PersonLabel {
    if (groupId === null) return this.author(participantId);
    const { context } = this;
    const name = this.groupTitles.get(groupId) ?? '';
    const aliased = { alias: alias ?? '' };
    switch (nameShown(context.viewer, context.facts, 'author', groupId === context.groupId)) {
      case 'self':
        return { you: true, ...aliased };
      case 'name':
        return { name };
      case 'both':
        return { name, ...aliased };
      case 'alias':
        return aliased;
    }
  }

  reviewer(participantId: string): PersonLabel {
    return this.#of(participantId, 'reviewer');
  }

  /** Whose review it is; staff who review under their own names are named to everybody who reads it, with their role. */
  reviewerOf({ reviewerId, voice }: Pick<Review, 'reviewerId' | 'voice'>): PersonLabel {
    if (voice === null) return this.reviewer(reviewerId);
    if (reviewerId === this.context.participant?.id) return { you: true, role: voice };
    return { name: this.voices.get(reviewerId) ?? '', role: voice };
  }

  #of(participantId: string, part: Part): PersonLabel {
    const label = this.labels[part].get(participantId);
    if (label === undefined) throw new Error('a participant outside of the loaded ones was asked for');
    return label;
  }
}

async function namesOfVoices(
  manager: EntityManager,
  { exchange, course }: ExchangeContext,
): Promise<Map<string, string>> {
  const people = await manager
    .createQueryBuilder(Participant, 'participant')
    .innerJoin(Review, 'review', 'review.reviewerId = participant.id AND review.voice IS NOT NULL')
    .where('participant.exchangeId = :id', { id: exchange.id })
    .getMany();
  if (people.length === 0) return new Map();
  const names = await courseNames(
    manager,
    course.id,
    people.map(({ personId }) => personId),
  );
  return new Map(people.map(({ id, personId }) => [id, names.get(personId) ?? '']));
}

/** Titles of groups that hand in; a hidden one is not loaded. */
async function groupTitles(manager: EntityManager, context: ExchangeContext): Promise<Map<string, string>> {
  const { exchange, viewer, facts } = context;
  const hidden = nameShown(viewer, facts, 'author', false) === 'alias';
  if (exchange.handInAs !== 'group' || exchange.groupSetId === null || hidden) return new Map();
  const groups = await manager.findBy(StudentGroup, { setId: exchange.groupSetId });
  return new Map(groups.map(({ id, title }) => [id, title]));
}
