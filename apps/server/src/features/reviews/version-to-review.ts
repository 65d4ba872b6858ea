import type { EntityManager } from 'typeorm';
import { reviewedVersion } from '../../queries/versions.js';
import { DraftVersion } from '../../model/draft.js';
import type { Review } from '../../model/review.js';
import { ProblemError } from '../../platform/problems/problem-error.js';
import { refusal } from '../../platform/problems/sentences.js';
import { say } from '../../words/reviews.js';

/**
 * The version that what is written now is about. Before anything was written, it is the one that the reviewer has in view, even
 * if the author has handed in another one meanwhile.
 */
export async function versionToReview(
  manager: EntityManager,
  review: Review,
  read: number | undefined,
): Promise<DraftVersion> {
  const version = await reviewedVersion(manager, review);
  if (version === null) throw refusal('unknown');
  if (read === undefined || version.number === read) return version;
  const inView =
    review.versionId === null
      ? await manager.findOneBy(DraftVersion, { draftId: review.draftId, number: read, purpose: 'draft' })
      : null;
  if (inView === null || inView.withdrawnAt !== null) {
    throw new ProblemError({
      code: 'draft-changed',
      sentence: say('thisReviewIsOfVersion', { number: version.number, read }),
      whatToDo: say('loadPageAgainWhatYou'),
    });
  }
  return inView;
}
