import { listed, endOf } from '@salt-circle/core';
import { IsNull, Not, type EntityManager } from 'typeorm';
import { courseExchanges } from '../../queries/course-exchanges.js';
import { Enrolment } from '../../model/course.js';
import { GroupMemberRow } from '../../model/group.js';
import { groupedBy } from '../../platform/grouping/grouped-by.js';
import { say } from '../../words/people.js';

/**
 * Who would be left without somebody to review with: by enrolment, a sentence for each running exchange of standing partners.
 * `now` in milliseconds.
 */
export async function partnersOf(
  manager: EntityManager,
  courseId: string,
  now: number,
): Promise<Map<string, string[]>> {
  const found = new Map<string, string[]>();
  const exchanges = await courseExchanges(manager, courseId, { whom: 'partners', publishedAt: Not(IsNull()) });
  if (exchanges.length === 0) return found;
  const enrolled = new Map((await manager.findBy(Enrolment, { courseId, active: true })).map((one) => [one.id, one]));
  for (const { title, groupSetId, reviewsDue } of exchanges) {
    if (groupSetId === null || now >= endOf(reviewsDue ?? Infinity)) continue;
    const members = await manager.findBy(GroupMemberRow, { setId: groupSetId });
    const here = members.filter(({ enrolmentId }) => enrolled.has(enrolmentId));
    const groups = groupedBy(here, ({ groupId }) => groupId);
    for (const { enrolmentId, groupId } of here) {
      const partners = (groups.get(groupId) ?? []).filter((one) => one.enrolmentId !== enrolmentId);
      if (partners.length === 0) continue;
      const names = partners.map((one) => enrolled.get(one.enrolmentId)?.name ?? '').sort();
      const sentence = say('partnerOfIn', { names: listed(names), title });
      found.set(enrolmentId, [...(found.get(enrolmentId) ?? []), sentence]);
    }
  }
  return found;
}
