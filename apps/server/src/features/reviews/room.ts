import { LIMITS } from '@salt-circle/contracts';
import type { EntityManager } from 'typeorm';
import { NoteRow } from '../../model/review.js';
import { ProblemError } from '../../platform/problems/problem-error.js';

/**
 * All notes of a review are read together, so there is an end to their number and size. Counted by the database.
 *
 * @param size of the note that is to be kept, in UTF-16 code units
 * @throws ProblemError `review-full`
 */
export async function assertRoom(
  manager: EntityManager,
  reviewId: string,
  noteId: string,
  size: number,
): Promise<void> {
  const { count, total } = (await manager
    .createQueryBuilder(NoteRow, 'note')
    .select('COUNT(*)', 'count')
    .addSelect(`COALESCE(SUM(LENGTH(note.body) + LENGTH(note.selector) + LENGTH(COALESCE(note.edit, ''))), 0)`, 'total')
    .where('note.reviewId = :reviewId AND note.id <> :noteId', { reviewId, noteId })
    .getRawOne<{ count: number; total: number }>()) ?? { count: 0, total: 0 };
  if (count < LIMITS.notes && total + size <= LIMITS.notesText) return;
  throw new ProblemError({
    code: 'review-full',
    sentence:
      count < LIMITS.notes
        ? 'The notes of this review have more text than can be kept.'
        : `This review has ${LIMITS.notes} notes, as many as it can have.`,
    whatToDo: 'Put several notes into one, or remove one. What you typed stays in this browser.',
  });
}
