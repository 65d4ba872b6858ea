import { In, type EntityManager, type FindOptionsSelect } from 'typeorm';
import { AnswerRow, NoteRow, SubmittedReview, type Review } from '../model/review.js';
import { groupedBy } from '../platform/grouping/grouped-by.js';
import type { ReviewAccess } from '../permissions/review-access.js';
import { isChanging } from '../permissions/review-state.js';

/** What stands in a review, in no order. */
export interface WrittenRows {
  readonly answers: AnswerRow[];
  readonly notes: NoteRow[];
}

/**
 * What counts of a review for everybody but its reviewer: of one that is being changed, what was submitted.
 *
 * @param select columns of the notes, where not all are wanted
 */
export async function countingRows(
  manager: EntityManager,
  reviews: readonly Review[],
  select?: FindOptionsSelect<NoteRow> & { readonly reviewId: true },
): Promise<(review: Pick<Review, 'id'>) => WrittenRows> {
  const changing = reviews.filter(isChanging).map(({ id }) => id);
  const kept = changing.length === 0 ? [] : await manager.findBy(SubmittedReview, { reviewId: In(changing) });
  const submitted = new Map<string, WrittenRows>(kept.map((one) => [one.reviewId, one]));
  const where = { reviewId: In(reviews.map(({ id }) => id).filter((id) => !submitted.has(id))) };
  const byReview = ({ reviewId }: { readonly reviewId: string }) => reviewId;
  const answers = groupedBy(await manager.findBy(AnswerRow, where), byReview);
  const notes = groupedBy(await manager.find(NoteRow, { where, ...(select !== undefined && { select }) }), byReview);
  return ({ id }) => submitted.get(id) ?? { answers: answers.get(id) ?? [], notes: notes.get(id) ?? [] };
}

/** What its reviewer goes on with. */
export async function currentRows(manager: EntityManager, { id: reviewId }: Pick<Review, 'id'>): Promise<WrittenRows> {
  return {
    answers: await manager.findBy(AnswerRow, { reviewId }),
    notes: await manager.findBy(NoteRow, { reviewId }),
  };
}

/**
 * What the one who asks can speak of: its reviewer and staff of everything; its author of what is submitted and not withheld, also while
 * it is being changed.
 */
export async function readableRows(
  manager: EntityManager,
  { context, review, byViewer }: Pick<ReviewAccess, 'context' | 'review' | 'byViewer'>,
): Promise<WrittenRows> {
  if (byViewer) return currentRows(manager, review);
  const rows = (await countingRows(manager, [review]))(review);
  if (context.viewer.role !== 'student') return rows;
  const open = ({ withheldAt }: { readonly withheldAt: number | null }) => withheldAt === null;
  return { answers: rows.answers.filter(open), notes: rows.notes.filter(open) };
}
