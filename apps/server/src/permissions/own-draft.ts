import { IsNull, type EntityManager } from 'typeorm';
import { Enrolment } from '../model/course.js';
import { Draft } from '../model/draft.js';
import type { Exchange, Participant } from '../model/exchange.js';
import { GroupMemberRow } from '../model/group.js';

export type HandInGroups = Pick<Exchange, 'id' | 'courseId' | 'handInAs' | 'groupSetId'>;

/** The group with which somebody hands in; null where everybody hands in alone, or for somebody in no group. */
export async function groupIdOf(
  manager: EntityManager,
  exchange: HandInGroups,
  personId: string,
): Promise<string | null> {
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
