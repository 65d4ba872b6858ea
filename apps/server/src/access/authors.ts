import type { Identity } from '@salt-circle/core';
import { In, IsNull, type EntityManager } from 'typeorm';
import { Enrolment } from '../model/course.js';
import { Participant, type Exchange } from '../model/exchange.js';
import { GroupMemberRow, StudentGroup } from '../model/group.js';
import { Draft } from '../model/draft.js';
import { listedOf } from './listed.js';

type Grouping = Pick<Exchange, 'id' | 'courseId' | 'handInAs' | 'groupSetId'>;

/** The group with which somebody hands in; null where everybody hands in alone, or for somebody in no group. */
export async function groupIdOf(manager: EntityManager, exchange: Grouping, personId: string): Promise<string | null> {
  if (exchange.handInAs !== 'group' || exchange.groupSetId === null) return null;
  const enrolment = await manager.findOneBy(Enrolment, { courseId: exchange.courseId, personId });
  if (enrolment === null) return null;
  const member = await manager.findOneBy(GroupMemberRow, { setId: exchange.groupSetId, enrolmentId: enrolment.id });
  return member?.groupId ?? null;
}

/** The draft of a student: of the group, where groups hand in, or else the student's own. */
export function draftOf(
  manager: EntityManager,
  participant: Pick<Participant, 'id' | 'exchangeId'>,
  groupId: string | null,
): Promise<Draft | null> {
  return groupId === null
    ? manager.findOneBy(Draft, { participantId: participant.id, groupId: IsNull() })
    : manager.findOneBy(Draft, { exchangeId: participant.exchangeId, groupId });
}

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

  static async load(manager: EntityManager, exchange: Grouping): Promise<Authors> {
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
  exchange: Grouping,
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
  exchange: Grouping,
  draft: Pick<Draft, 'participantId' | 'groupId'>,
): Promise<Identity[]> {
  const personIds = await authorPersons(manager, exchange, draft);
  return [...(await listedOf(manager, exchange.courseId, personIds)).values()];
}
