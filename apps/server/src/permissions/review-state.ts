import type { ReviewState } from '@salt-circle/contracts';
import { IsNull } from 'typeorm';
import type { Review } from '../model/review.js';

/** Reviews that were allocated to somebody, apart from those that staff write under their own names. */
export const ALLOCATED = { voice: IsNull() };

/** Whether what was submitted is being changed; until it is submitted again it counts as it was. */
export function isChanging({ submittedAt, reopenedAt }: Pick<Review, 'submittedAt' | 'reopenedAt'>): boolean {
  return submittedAt !== null && reopenedAt !== null;
}

/** How far a review is, by what is on record of it. */
export function reviewState({ submittedAt, begunAt }: Pick<Review, 'submittedAt' | 'begunAt'>): ReviewState {
  if (submittedAt !== null) return 'submitted';
  return begunAt === null ? 'not-begun' : 'in-progress';
}
