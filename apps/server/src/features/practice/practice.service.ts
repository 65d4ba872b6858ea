import { Injectable } from '@nestjs/common';
import type { PracticeOwn, PracticeResultView, PracticeView } from '@salt-circle/contracts';
import { closeness, mayTryAgain, practiceState, resolveDates, withPersonalDates } from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import { Access, assertCan, can, assertCanSee, canSee, type ExchangeContext } from '../../permissions/access.js';
import { formOf } from '../../queries/review-form.js';
import {
  ownTries,
  practiceDrafts,
  triesByPerson,
  type OwnTries,
  type PracticeDraft,
} from '../../permissions/practice.js';
import type { CurrentUser } from '../../auth/view-as.js';
import { countingVersion } from '../../queries/versions.js';
import { Draft, DraftVersion } from '../../model/draft.js';
import { Exchange, Participant } from '../../model/exchange.js';
import { AnswerRow, NoteRow, Review } from '../../model/review.js';
import { Database } from '../../platform/database/database.js';
import { Ids } from '../../platform/ids/ids.js';
import { refusal } from '../../platform/problems/sentences.js';
import { isoOrNull } from '../../platform/wire/instants.js';
import { Readings } from '../reading/readings.service.js';
import { keyOf, writtenIn } from './written.js';

/** Practice drafts: what there is, trying one, and looking at its key. */
@Injectable()
export class PracticeService {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly ids: Ids,
    private readonly readings: Readings,
  ) {}

  async list(person: CurrentUser, exchangeId: string): Promise<PracticeView> {
    const manager = this.database.read;
    const context = await this.access.exchange(person, exchangeId);
    assertCanSee(context, { kind: 'exchange' });
    const staff = context.viewer.role !== 'student';
    const { practice: rule } = context.exchange;
    const all = await practiceDrafts(manager, exchangeId);
    // Without its key a practice draft is the instructor’s own business, and so is one while practice is off.
    const shown = staff ? all : all.filter(({ ready }) => ready && rule.when !== 'off');
    const cards: PracticeView['drafts'][number][] = [];
    let open = false;
    for (const draft of shown) {
      const there = await this.access.exchange(person, draft.exchange.id);
      open ||= can(there, { kind: 'practise' });
      cards.push({
        id: draft.exchange.id,
        title: await titleOf(manager, draft.exchange.id),
        own: staff ? null : ownView(there, await ownTries(manager, draft, person.id)),
        staff: staff ? await staffView(manager, draft) : null,
      });
    }
    const dates = resolveDates(context.timeline.dates);
    const until = dates === null ? null : withPersonalDates(dates, context.own).reviewsDue;
    return { rule, open, until: isoOrNull(until), drafts: cards };
  }

  /** With all that was tried on it. */
  async remove(person: CurrentUser, practiceId: string): Promise<void> {
    await this.database.write(async (manager, emit) => {
      const context = await this.#practice(person, practiceId, manager);
      const forId = context.exchange.practiceOf as string;
      assertCan(await this.access.exchange(person, forId, manager), { kind: 'plan' });
      await manager.delete(Exchange, { id: practiceId });
      emit({ action: 'practice-removed', actorId: person.id, courseId: context.course.id, exchangeId: forId });
    });
  }

  /** The review in which a student tries a practice draft. @param again throws away what was submitted, and begins anew */
  begin(person: CurrentUser, practiceId: string, again: boolean): Promise<{ reviewId: string }> {
    return this.database.write(async (manager) => {
      const context = await this.#practice(person, practiceId, manager);
      assertCan(context, { kind: 'practise' });
      const draft = await this.#ready(manager, context);
      const tries = await ownTries(manager, draft, person.id);
      if (tries.review === null) return { reviewId: await this.#begun(manager, context, person) };
      const { id: reviewId, submittedAt } = tries.review;
      if (submittedAt === null || !again) return { reviewId };
      if (!mayTryAgain(context.exchange.practice, tries)) throw refusal('already-submitted');
      // Emptied, not deleted: a page that is still open knows their revisions, which only ever go up.
      const empty = { levelId: null, text: '', next: '', value: null, checks: {}, choices: [] };
      await manager.update(AnswerRow, { reviewId }, { ...empty, revision: () => 'revision + 1' });
      await manager.delete(NoteRow, { reviewId });
      const counts = { answered: 0, required: 0, words: 0, noteCount: 0 };
      await manager.update(Review, { id: reviewId }, { submittedAt: null, begunAt: null, ...counts });
      return { reviewId };
    });
  }

  async #begun(manager: EntityManager, { exchange }: ExchangeContext, person: CurrentUser): Promise<string> {
    const participantId = this.ids.uuid();
    // Nobody ever reads it: in practice nobody meets anybody.
    const alias = participantId;
    await manager.insert(Participant, { id: participantId, exchangeId: exchange.id, personId: person.id, alias });
    const draft = await manager.findOneByOrFail(Draft, { exchangeId: exchange.id });
    const reviewId = this.ids.uuid();
    await manager.insert(Review, {
      ...{ id: reviewId, exchangeId: exchange.id, reviewerId: participantId, draftId: draft.id, position: 1 },
    });
    return reviewId;
  }

  /** The own submitted try beside the key. */
  async result(person: CurrentUser, practiceId: string): Promise<PracticeResultView> {
    const manager = this.database.read;
    const context = await this.#practice(person, practiceId, manager);
    const practice = await this.#ready(manager, context);
    const tries = await ownTries(manager, practice, person.id);
    const tried = tries.review !== null && tries.review.submittedAt !== null;
    assertCanSee(context, { kind: 'practice-key', tried });
    if (tries.review === null) throw refusal('unknown');
    const draft = await manager.findOneByOrFail(Draft, { exchangeId: practiceId });
    const version = (await countingVersion(manager, draft.id)) as DraftVersion;
    const form = await formOf(manager, context);
    const yours = await writtenIn(manager, tries.review);
    const key = await writtenIn(manager, await keyOf(manager, practiceId));
    const { exchange, course } = context;
    return {
      id: practiceId,
      title: version.title,
      exchange: {
        id: exchange.practiceOf as string,
        title: exchange.title,
        courseId: course.id,
        courseTitle: course.title,
        timeZone: course.timeZone,
      },
      rule: exchange.practice,
      own: ownView(context, tries),
      draft: await this.readings.of(manager, context, draft, version, 'reviewer'),
      form,
      closeness: closeness(form, yours.answers, key.answers),
      yours,
      key,
    };
  }

  async #practice(person: CurrentUser, practiceId: string, manager: EntityManager): Promise<ExchangeContext> {
    const context = await this.access.exchange(person, practiceId, manager);
    if (!context.facts.practice) throw refusal('unknown');
    return context;
  }

  /** @throws ProblemError `unknown` for one whose key is not there yet, and while practice is off */
  async #ready(manager: EntityManager, { exchange }: ExchangeContext): Promise<PracticeDraft> {
    const all = await practiceDrafts(manager, exchange.practiceOf as string);
    const one = all.find((draft) => draft.exchange.id === exchange.id && draft.ready);
    if (one === undefined || exchange.practice.when === 'off') throw refusal('unknown');
    return one;
  }
}

/** @param place of the practice draft */
function ownView(context: ExchangeContext, tries: OwnTries): PracticeOwn {
  const { exchange } = context;
  const { review, shares } = tries;
  const tried = review !== null && review.submittedAt !== null;
  return {
    state: practiceState(exchange.practice, tries),
    reviewId: review?.id ?? null,
    shares,
    again: tried && mayTryAgain(exchange.practice, tries) && can(context, { kind: 'practise' }),
    result: canSee(context, { kind: 'practice-key', tried }),
  };
}

async function staffView(manager: EntityManager, draft: PracticeDraft) {
  const { key, exchange } = draft;
  const tries = [...(await triesByPerson(manager, draft)).values()].filter(({ shares }) => shares.length > 0);
  const last = tries.map(({ shares }) => shares.at(-1) ?? null).filter((share) => share !== null);
  return {
    key:
      key.submittedAt !== null
        ? ('submitted' as const)
        : key.begunAt === null
          ? ('not-begun' as const)
          : ('in-progress' as const),
    keyReviewId: key.id,
    consent: exchange.practiceConsent,
    tried: tries.length,
    meanShare: last.length === 0 ? null : last.reduce((sum, share) => sum + share, 0) / last.length,
  };
}

async function titleOf(manager: EntityManager, practiceId: string): Promise<string> {
  return (await manager.findOneByOrFail(Draft, { exchangeId: practiceId })).title;
}
