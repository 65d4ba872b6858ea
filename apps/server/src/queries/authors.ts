import type { Identity } from '@salt-circle/core';
import { In, type EntityManager } from 'typeorm';
import { Enrolment } from '../model/course.js';
import { Participant, type Exchange } from '../model/exchange.js';
import { GroupMemberRow, StudentGroup } from '../model/group.js';
import { Draft } from '../model/draft.js';
import { courseIdentities } from './course-identities.js';
import type { HandInGroups } from '../permissions/own-draft.js';

interface MemberRow {
  readonly groupId: string;
  readonly participantId: string;
}

/** Who the authors of each draft of an exchange are. A fixed number of queries. */
export class Authors {
  private constructor(
    private readonly members: ReadonlyMap<string, readonly string[]>,
    private readonly titles: ReadonlyMap<string, string>,
  ) {}

  static async load(manager: EntityManager, exchange: HandInGroups): Promise<Authors> {
    if (exchange.handInAs !== 'group' || exchange.groupSetId === null) return new Authors(new Map(), new Map());
    const rows = await manager
      .createQueryBuilder(GroupMemberRow, 'member')
      .innerJoin(Enrolment, 'enrolment', 'enrolment.id = member.enrolmentId')
      .innerJoin(
        Participant,
        'participant',
        'participant.personId = enrolment.personId AND participant.exchangeId = :exchangeId',
        { exchangeId: exchange.id },
      )
      .where('member.setId = :setId', { setId: exchange.groupSetId })
      .select(['member.groupId AS groupId', 'participant.id AS participantId'])
      .orderBy('participant.id', 'ASC')
      .getRawMany<MemberRow>();
    const members = new Map<string, string[]>();
    for (const { groupId, participantId } of rows) {
      members.set(groupId, [...(members.get(groupId) ?? []), participantId]);
    }
    const groups = await manager.findBy(StudentGroup, { setId: exchange.groupSetId });
    return new Authors(members, new Map(groups.map(({ id, title }) => [id, title])));
  }

  /** Ids of the participants who are the authors; nobody when a group has lost all its members. */
  of({ participantId, groupId }: Pick<Draft, 'participantId' | 'groupId'>): readonly string[] {
    return groupId === null ? [participantId] : (this.members.get(groupId) ?? []);
  }

  titleOf(groupId: string | null): string | null {
    return groupId === null ? null : (this.titles.get(groupId) ?? null);
  }
}

/** Ids of the persons who are the authors of a draft. */
export async function authorPersons(
  manager: EntityManager,
  exchange: HandInGroups,
  draft: Pick<Draft, 'participantId' | 'groupId'>,
): Promise<string[]> {
  const ids = (await Authors.load(manager, exchange)).of(draft);
  const participants = ids.length === 0 ? [] : await manager.findBy(Participant, { id: In([...ids]) });
  return participants.map(({ personId }) => personId);
}

/** Whether reviewers are not to know whose drafts they read. */
export function hidesAuthors({ names }: Pick<Exchange, 'names'>): boolean {
  return names === 'both-ways' || names === 'authors-only';
}

/** The authors of a draft, with all by which the course knows them. */
export async function identitiesOf(
  manager: EntityManager,
  exchange: HandInGroups,
  draft: Pick<Draft, 'participantId' | 'groupId'>,
): Promise<Identity[]> {
  const personIds = await authorPersons(manager, exchange, draft);
  return [...(await courseIdentities(manager, exchange.courseId, personIds)).values()];
}
