import type { WithheldView } from '@salt-circle/contracts';
import type { EntityManager } from 'typeorm';
import { courseNames } from '../../queries/course-identities.js';
import type { ReviewAccess } from '../../permissions/review-access.js';
import { Withheld } from '../../model/moderation.js';
import { iso } from '../../platform/wire/instants.js';
import { say } from '../../words/reviews.js';

/** What of a review is kept from its author: all of it to staff, what they were told of to its reviewer, nothing to anybody else. */
export async function withheldViews(
  manager: EntityManager,
  { context, review, byViewer }: ReviewAccess,
): Promise<WithheldView[]> {
  const staff = context.viewer.role !== 'student';
  if (!staff && !byViewer) return [];
  const rows = await manager.find(Withheld, {
    where: { reviewId: review.id },
    order: { kind: 'ASC', targetId: 'ASC' },
  });
  if (!staff) {
    return rows
      .filter(({ told }) => told)
      .map(({ kind, targetId, reason }) => ({ kind, targetId, reason, staff: null }));
  }
  const ids = rows.flatMap(({ byId }) => byId ?? []);
  const names = await courseNames(manager, context.course.id, [...new Set(ids)]);
  return rows.map(({ kind, targetId, reason, byId, at, told, counts }) => ({
    kind,
    targetId,
    reason,
    staff: { by: names.get(byId ?? '') ?? say('someoneWhoHasLeft'), at: iso(at), told, counts },
  }));
}
