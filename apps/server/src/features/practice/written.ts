import type { PracticeContent } from '@salt-circle/contracts';
import { IsNull, Not, type EntityManager } from 'typeorm';
import { reviewedVersion } from '../../queries/versions.js';
import { countingRows } from '../../queries/written-rows.js';
import { Participant } from '../../model/exchange.js';
import { Review } from '../../model/review.js';
import { answerView, noteView, saysSomething } from '../reviews/contents.service.js';

/** The review of a practice draft that is its key. */
export async function keyOf(manager: EntityManager, practiceId: string): Promise<Review> {
  const author = await manager.findOneByOrFail(Participant, { exchangeId: practiceId, extraReviews: Not(IsNull()) });
  return manager.findOneByOrFail(Review, { exchangeId: practiceId, reviewerId: author.id });
}

/** What is written in a review of a practice draft; of one that is being changed, what was submitted. */
export async function writtenIn(manager: EntityManager, review: Review): Promise<PracticeContent> {
  const { answers, notes } = (await countingRows(manager, [review]))(review);
  const version = await reviewedVersion(manager, review);
  return {
    answers: Object.fromEntries(answers.map((row) => [row.itemId, answerView(row)])),
    notes: notes
      .filter(saysSomething)
      .sort((a, b) => (a.id < b.id ? -1 : 1))
      .map((row) => noteView(row, version?.number ?? 0)),
  };
}
