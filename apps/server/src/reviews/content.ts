import type { AnswerView, NoteView, ReviewContent } from '@salt-circle/contracts';
import { countWords, completeness, type ReviewForm } from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import { AnswerRow, NoteRow, Review } from './entities.js';

export async function loadContent(manager: EntityManager, reviewId: string): Promise<ReviewContent> {
  const answers = await manager.findBy(AnswerRow, { reviewId });
  // By place in the text, then by id: the order in which notes were made would tell how the reviewer worked.
  const notes = (await manager.findBy(NoteRow, { reviewId })).sort(
    (a, b) => a.anchor.position.start - b.anchor.position.start || (a.id < b.id ? -1 : 1),
  );
  return {
    answers: Object.fromEntries(answers.map((row): [string, AnswerView] => [row.itemId, answerView(row)])),
    notes: notes.map(noteView),
  };
}

export function answerView({ levelId, text, next, value, checks, choices, revision }: AnswerRow): AnswerView {
  return { levelId, text, next, value, checks, choices, revision };
}

export function noteView({ id, kind, body, anchor, revision }: NoteRow): NoteView {
  return { id, kind, body, anchor, revision };
}

/** Brings the counts of a review in step with what is written in it. */
export async function recount(manager: EntityManager, review: Review, form: ReviewForm, now: number): Promise<void> {
  const content = await loadContent(manager, review.id);
  const { answered, required } = completeness(form, content.answers, content.notes.length);
  const texts = [
    ...Object.values(content.answers).flatMap(({ text, next }) => [text, next]),
    ...content.notes.map(({ body }) => body),
  ];
  await manager.update(
    Review,
    { id: review.id },
    {
      answered,
      required,
      words: texts.reduce((sum, text) => sum + countWords(text), 0),
      noteCount: content.notes.length,
      begunAt: review.begunAt ?? now,
    },
  );
}
