import type { ReviewState } from '@salt-circle/contracts';
import type { Review } from '../model/review.js';

/** How far a review is, by what is on record of it. */
export function reviewState({ submittedAt, begunAt }: Pick<Review, 'submittedAt' | 'begunAt'>): ReviewState {
  if (submittedAt !== null) return 'submitted';
  return begunAt === null ? 'not-begun' : 'in-progress';
}
