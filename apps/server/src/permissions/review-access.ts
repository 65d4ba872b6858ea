import { endOf } from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import { Draft } from '../model/draft.js';
import { Review } from '../model/review.js';
import { refusal } from '../platform/problems/sentences.js';
import type { Access } from './access.js';
import { isChanging } from './review-state.js';
import type { CurrentUser } from '../auth/view-as.js';
import { draftRelation, draftAccess, type DraftAccess } from './draft-access.js';

/** A review with where the one who asks stands to it. */
export interface ReviewAccess extends DraftAccess {
  readonly review: Review;
  readonly byViewer: boolean;
}

/** @throws ProblemError `unknown` for a review that is not there, or in a course of others */
export async function reviewAccess(
  access: Access,
  manager: EntityManager,
  person: CurrentUser,
  reviewId: string,
): Promise<ReviewAccess> {
  const review = await manager.findOneBy(Review, { id: reviewId });
  if (review === null) throw refusal('unknown');
  const context = await access.exchange(person, review.exchangeId, manager);
  const draft = await manager.findOneByOrFail(Draft, { id: review.draftId });
  const toDraft = await draftAccess(manager, context, draft);
  return { ...toDraft, review, byViewer: toDraft.review?.id === review.id };
}

/** What the core asks for about writing: what is submitted cannot be written in, unless it is being changed. */
export function writingState({ byViewer, review, ...standing }: ReviewAccess) {
  const { reopenUntil } = review;
  const inTime = reopenUntil === null || standing.context.now < endOf(reopenUntil);
  const changing = isChanging(review);
  const submitted = review.submittedAt !== null && !changing;
  return {
    byViewer,
    voice: review.voice !== null,
    ...draftRelation(standing),
    submitted,
    reopenedByStaff: changing && inTime && review.reopenReason !== null,
  };
}

/** Who did it, and where: what all events of a review have. */
export function eventOrigin({ context }: ReviewAccess) {
  return { actorId: context.person.id, courseId: context.course.id, exchangeId: context.exchange.id };
}
