import { Injectable } from '@nestjs/common';
import type { AnswerView, NoteView, ReviewContent } from '@salt-circle/contracts';
import { comparePlaces, completeness, countWords, type Reviewing, type ReviewForm } from '@salt-circle/core';
import { In, type EntityManager } from 'typeorm';
import { canSee, type ExchangeContext } from '../../permissions/access.js';
import { fileCards, filesOf } from '../../queries/review-files.js';
import { partsOf, reviewedVersion } from '../../queries/versions.js';
import { countingRows, currentRows } from '../../queries/written-rows.js';
import { AnswerRow, NoteRow, Review, SubmittedReview } from '../../model/review.js';
import { ReviewFile } from '../../model/review-file.js';

/** How the reader of a review stands to it. */
export interface Reading extends Reviewing {
  readonly byViewer: boolean;
}

/** What is written in reviews: answers and notes, as far as the one who asks may see them. */
@Injectable()
export class ReviewContents {
  /** Every note and every answer is asked for by itself: staff may keep a single one from the author. */
  async load(
    manager: EntityManager,
    context: ExchangeContext,
    review: Review,
    reading: Reading,
  ): Promise<ReviewContent> {
    const { byViewer, viewerHandedIn, ofOwnDraft, selfReviewed, othersReviewed } = reading;
    const standing = { byViewer, viewerHandedIn, ofOwnDraft, selfReviewed, othersReviewed };
    const written = { ...standing, submitted: review.submittedAt !== null };
    const shown = (kind: 'answer' | 'note', { withheldAt }: { readonly withheldAt: number | null }) =>
      canSee(context, { kind, ...written, withheld: withheldAt !== null });
    // Its reviewer goes on with it; everybody else gets what was submitted.
    const { answers, notes, version } = await rowsOf(manager, context, review, byViewer);
    const full = byViewer || context.viewer.role !== 'student';
    return {
      ...(review.ownForm === null ? {} : { form: review.ownForm }),
      files: await fileCards(manager, await filesOf(manager, context, review, reading), full),
      answers: Object.fromEntries(
        answers.filter((row) => shown('answer', row)).map((row): [string, AnswerView] => [row.itemId, answerView(row)]),
      ),
      // One that says nothing is its reviewer's business alone.
      notes: notes
        .filter((row) => shown('note', row) && (byViewer || saysSomething(row)))
        .map((row) => noteView(row, version)),
    };
  }

  /** Keeps what was submitted, while its reviewer changes it. */
  async keep(manager: EntityManager, { id: reviewId }: Pick<Review, 'id'>): Promise<void> {
    await manager.save(SubmittedReview, { reviewId, ...(await currentRows(manager, { id: reviewId })) });
  }

  /** Once it is submitted again, what was taken away is gone, and so is what belonged to a note that is. */
  async settleFiles(manager: EntityManager, reviewId: string): Promise<void> {
    const notes = new Set((await manager.findBy(NoteRow, { reviewId })).map(({ id }) => id));
    const rows = await manager.findBy(ReviewFile, { reviewId });
    const over = rows.filter(({ removedAt, noteId }) => removedAt !== null || (noteId !== null && !notes.has(noteId)));
    if (over.length > 0) await manager.delete(ReviewFile, { id: In(over.map(({ id }) => id)) });
  }

  /** Brings the counts of a review in step with what is written in it. */
  async recount(manager: EntityManager, { now }: ExchangeContext, review: Review, form: ReviewForm): Promise<void> {
    const answers = await manager.findBy(AnswerRow, { reviewId: review.id });
    // Not where they stand, which is the larger part of a note.
    const notes = await manager.find(NoteRow, {
      select: { id: true, body: true, edit: true },
      where: { reviewId: review.id },
    });
    const given = Object.fromEntries(answers.map((row) => [row.itemId, answerView(row)]));
    const said = notes.filter(saysSomething);
    const { answered, required } = completeness(form, given, said.length);
    const texts = [...answers.flatMap(({ text, next }) => [text, next]), ...notes.map(({ body }) => body)];
    await manager.update(
      Review,
      { id: review.id },
      {
        answered,
        required,
        words: texts.reduce((sum, text) => sum + countWords(text), 0),
        noteCount: said.length,
        begunAt: review.begunAt ?? now,
        workedAt: now,
      },
    );
  }
}

/** Notes by their places and then by id: the order in which they were made would tell how the reviewer worked. */
async function rowsOf(
  manager: EntityManager,
  { exchange }: Pick<ExchangeContext, 'exchange'>,
  review: Review,
  byViewer: boolean,
) {
  const { answers, notes } = byViewer
    ? await currentRows(manager, review)
    : (await countingRows(manager, [review]))(review);
  const version = await reviewedVersion(manager, review);
  const parts = version === null ? [] : await partsOf(manager, review.draftId, version.id, exchange.deliverables);
  const byPlace = comparePlaces(parts.map(({ id }) => id));
  return {
    answers,
    notes: notes.sort((a, b) => byPlace(a, b) || (a.id < b.id ? -1 : 1)),
    version: version?.number ?? 0,
  };
}

/** A note without a word and without a proposal is not counted, and nobody else reads it. */
export function saysSomething({ body, edit = null }: Pick<NoteRow, 'body'> & Partial<Pick<NoteRow, 'edit'>>): boolean {
  return body.trim() !== '' || edit !== null;
}

/** An answer for the wire, without when it was saved. */
export function answerView({ levelId, text, next, value, checks, choices, revision }: AnswerRow): AnswerView {
  return { levelId, text, next, value, checks, choices, revision };
}

/** @param version number of the version that the note is on */
export function noteView(
  { id, kind, body, partId, selector, edit = null, itemId = null, revision }: NoteRow,
  version: number,
): NoteView {
  // What was submitted before there were edits is kept as it was then.
  return { id, kind, body, place: { version, partId, selector }, edit, itemId, revision };
}
