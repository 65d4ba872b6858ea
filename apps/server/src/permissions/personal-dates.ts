import { mergePersonalDates, type PersonalDates } from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import { Enrolment } from '../model/course.js';
import { GroupMemberRow } from '../model/group.js';
import { PersonalDatesRow, type Exchange, type Participant } from '../model/exchange.js';

function asOwn({ draftsDue, reviewsDue, repliesDue, revisionDue, excused }: PersonalDatesRow): PersonalDates {
  return { draftsDue, reviewsDue, repliesDue, revisionDue, excused };
}

/** The due times of one participant's own: what is set for the person goes before what is set for a group. */
export async function personalDatesOf(
  manager: EntityManager,
  exchange: Pick<Exchange, 'id' | 'courseId'>,
  participant: Pick<Participant, 'personId'>,
): Promise<PersonalDates | null> {
  const rows = await manager.findBy(PersonalDatesRow, { exchangeId: exchange.id });
  if (rows.length === 0) return null;
  const where = { courseId: exchange.courseId, personId: participant.personId };
  const enrolment = await manager.findOneBy(Enrolment, where);
  if (enrolment === null) return null;
  const memberships = await manager.findBy(GroupMemberRow, { enrolmentId: enrolment.id });
  const groups = new Set(memberships.map(({ groupId }) => groupId));
  return combined(rows, enrolment.id, groups);
}

function combined(
  rows: readonly PersonalDatesRow[],
  enrolmentId: string,
  groups: ReadonlySet<string>,
): PersonalDates | null {
  const person = rows.find((row) => row.enrolmentId === enrolmentId);
  const ofGroups = rows.filter(({ groupId }) => groupId !== null && groups.has(groupId));
  const group = ofGroups.reduce<PersonalDates | null>((all, row) => mergePersonalDates(all, asOwn(row)), null);
  return mergePersonalDates(person === undefined ? null : asOwn(person), group);
}

/** The own times of all participants that have some, by person id. A fixed number of queries. */
export async function allPersonalDates(
  manager: EntityManager,
  exchange: Pick<Exchange, 'id' | 'courseId'>,
): Promise<Map<string, PersonalDates>> {
  const rows = await manager.findBy(PersonalDatesRow, { exchangeId: exchange.id });
  const found = new Map<string, PersonalDates>();
  if (rows.length === 0) return found;
  const members = await manager
    .createQueryBuilder(GroupMemberRow, 'member')
    .innerJoin(PersonalDatesRow, 'own', 'own.groupId = member.groupId AND own.exchangeId = :id', { id: exchange.id })
    .select(['member.enrolmentId AS enrolmentId', 'member.groupId AS groupId'])
    .getRawMany<{ enrolmentId: string; groupId: string }>();
  const groupsOf = new Map<string, Set<string>>();
  for (const { enrolmentId, groupId } of members) {
    groupsOf.set(enrolmentId, (groupsOf.get(enrolmentId) ?? new Set()).add(groupId));
  }
  for (const { id, personId } of await manager.findBy(Enrolment, { courseId: exchange.courseId })) {
    const own = combined(rows, id, groupsOf.get(id) ?? new Set());
    if (own !== null) found.set(personId, own);
  }
  return found;
}
