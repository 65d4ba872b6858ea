import { readyReviewingForm, type GradePart } from '@salt-circle/core';
import { OwnReviews } from '../features/moderation/own-reviews.service.js';
import { GradesRelease } from '../features/grades/grades-release.service.js';
import { Grades } from '../features/grades/grades.service.js';
import { ReviewsService } from '../features/reviews/reviews.service.js';
import type { Person } from '../model/person.js';
import type { Seeder } from './seeder.js';
import { at } from './steps.js';

/** What a description is graded by. */
export const GRADE_PARTS: readonly GradePart[] = [
  { part: 'handing-in', weight: 10 },
  { part: 'reviews-done', weight: 20 },
  { part: 'notes-made', weight: 10 },
  { part: 'peer-score', weight: 30 },
  { part: 'review-quality', weight: 20 },
  { part: 'instructor-mark', weight: 10 },
];

interface Graded {
  /** Days from the start. */
  readonly day: number;
  /** Whose reviewing has been marked. */
  readonly marked: number;
  readonly released: boolean;
}

/** Grades as a teacher has got to by now: some reviewing and some drafts marked, one part given with a reason. */
export async function grade(
  seeder: Seeder,
  teacher: Person,
  exchangeId: string,
  { day, marked, released }: Graded,
): Promise<void> {
  const { app } = seeder;
  at(seeder, day);
  const grades = app.get(Grades);
  const { rows } = await grades.view(teacher, exchangeId);
  for (const [index, { id, reviewIds }] of rows.slice(0, marked).entries()) {
    if (reviewIds.length === 0) continue;
    for (const [place, item] of readyReviewingForm().entries()) {
      if (item.kind !== 'criterion') continue;
      const level = item.levels[1 + ((index + place) % 3)];
      await grades.mark(teacher, exchangeId, id, item.id, { revision: 0, levelId: level?.id ?? null });
    }
  }
  const [, second] = rows;
  for (const [index, { draftId, grounds }] of rows.slice(0, MARKED_DRAFTS).entries()) {
    if (draftId === null) continue;
    // Near what the peers gave, and now and then a step below.
    const peers = grounds.scores.reduce((sum, score) => sum + score, 0) / Math.max(1, grounds.scores.length);
    await ownReview(seeder, teacher, exchangeId, draftId, (levels) =>
      Math.max(0, Math.round(peers * (levels - 1)) - (index % 4 === 1 ? 1 : 0)),
    );
  }
  if (second !== undefined) {
    const reason = 'One review was of a draft that was handed in twice; the notes on the first one count as well.';
    await grades.override(teacher, exchangeId, second.id, { part: 'notes-made', value: 1, reason });
  }
  if (released) await app.get(GradesRelease).release(teacher, exchangeId, { how: 'all', at: null, participantIds: [] });
}

/** So many drafts that it can be seen how peers and staff agree. */
const MARKED_DRAFTS = 7;

/** Each says something else: the same sentence counts once. */
const WORDS: readonly string[] = [
  'You look closely, and you say where you stood when you did: I could walk to the spot with your text in my hand.',
  'What is still missing is how the older figures were got: name who measured them, in which year, and with what, before you compare.',
];

async function ownReview(
  { app }: Seeder,
  teacher: Person,
  exchangeId: string,
  draftId: string,
  levelOf: (levels: number) => number,
): Promise<void> {
  const reviews = app.get(ReviewsService);
  const { id } = await app.get(OwnReviews).begin(teacher, exchangeId, draftId);
  const { form } = await reviews.desk(teacher, id);
  for (const [index, item] of form.items.entries()) {
    const text = WORDS[index % WORDS.length] as string;
    const level = item.kind === 'criterion' ? item.levels[levelOf(item.levels.length)] : undefined;
    await reviews.saveAnswer(teacher, id, item.id, {
      revision: 0,
      ...(item.kind === 'criterion' ? { levelId: level?.id ?? null, text: '' } : { text, next: text }),
    });
  }
  await reviews.submit(teacher, id);
}
