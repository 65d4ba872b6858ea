import { LIMITS } from '@salt-circle/contracts';
import type { EntityManager } from 'typeorm';
import { NoteRow } from '../../model/review.js';
import { ProblemError } from '../../platform/problems/problem-error.js';

/**
 * All notes of a review are read together, so there is an end to their number and size. Counted by the database.
 *
 * @param size of what is to be kept, in UTF-16 code units
 * @param more how many notes that is
 * @throws ProblemError `review-full`
 */
export async function assertRoom(
  manager: EntityManager,
  reviewId: string,
  noteId: string,
  size: number,
  more = 1,
): Promise<void> {
  const { count, total } = (await manager
    .createQueryBuilder(NoteRow, 'note')
    .select('COUNT(*)', 'count')
    .addSelect(`COALESCE(SUM(LENGTH(note.body) + LENGTH(note.selector) + LENGTH(COALESCE(note.edit, ''))), 0)`, 'total')
    .where('note.reviewId = :reviewId AND note.id <> :noteId', { reviewId, noteId })
    .getRawOne<{ count: number; total: number }>()) ?? { count: 0, total: 0 };
  if (count + more <= LIMITS.notes && total + size <= LIMITS.notesText) return;
  throw new ProblemError({
    code: 'review-full',
    sentence:
      count + more <= LIMITS.notes
        ? 'The notes of this review have more text than can be kept.'
        : more === 1
          ? `This review has ${LIMITS.notes} notes, as many as it can have.`
          : `A review can have ${LIMITS.notes} notes. This one has ${count}, and ${more} more would come.`,
    whatToDo: 'Put several notes into one, or remove one. What you typed stays in this browser.',
  });
}
