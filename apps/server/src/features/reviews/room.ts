import { LIMITS } from '@salt-circle/contracts';
import type { EntityManager } from 'typeorm';
import { NoteRow } from '../../model/review.js';
import { ProblemError } from '../../platform/problems/problem-error.js';
import { say } from '../../words/reviews.js';

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
        ? say('notesOfThisReviewHave')
        : more === 1
          ? say('thisReviewHasNotesAs', { notes: LIMITS.notes })
          : say('reviewCanHaveNotesThis', { notes: LIMITS.notes, count, more }),
    whatToDo: say('putSeveralNotesIntoOne'),
  });
}
