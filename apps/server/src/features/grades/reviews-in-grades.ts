import {
  closenessToOthers,
  countWords,
  formScore,
  HELPED,
  saysWhatToDo,
  substanceOf,
  type Answers,
  type Helped,
  type QualityEvidence,
  type Rating,
  type ReviewForm,
} from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import type { ExchangeContext } from '../../permissions/access.js';
import { Authors } from '../../queries/authors.js';
import { formOf } from '../../queries/review-form.js';
import { rowsOfReviews } from '../../queries/rows-of-reviews.js';
import { countingRows } from '../../queries/written-rows.js';
import { Withheld } from '../../model/moderation.js';
import { Draft } from '../../model/draft.js';
import { RatingRow } from '../../model/reply.js';
import { Review, type NoteRow } from '../../model/review.js';
import { portions } from '../../platform/database/portions.js';
import { groupedBy } from '../../platform/grouping/grouped-by.js';
import { answerView, saysSomething } from '../reviews/contents.service.js';

/** What a review is in a grade: of whoever wrote it, and of whoever got it. */
export interface ReviewInGrade {
  readonly review: Review;
  /** Of the author's own draft. */
  readonly self: boolean;
  /** Share of the maximum that it gives; null where the form has no points, or it is not submitted. */
  readonly score: number | null;
  /** As they count for everybody but the reviewer; none before it is submitted. */
  readonly answers: Answers;
  readonly words: number;
  /** Notes that say something, less those withheld that do not count. */
  readonly notes: number;
  /** Where they stand. */
  readonly places: ReadonlyArray<Pick<NoteRow, 'id' | 'kind' | 'partId' | 'selector'>>;
  readonly directed: number;
  readonly helped: number | null;
  /** Withheld as a whole, and not counted for its reviewer. */
  readonly discounted: boolean;
}

/** 0 to 1, of what authors said: the steps evenly apart. */
const HELPED_SHARE: Readonly<Record<Helped, number>> = Object.fromEntries(
  HELPED.map((step, index) => [step, 1 - index / (HELPED.length - 1)]),
) as Record<Helped, number>;

export interface GradedReviews {
  readonly form: ReviewForm;
  /** Staff's own among them. */
  readonly reviews: readonly ReviewInGrade[];
  /** Of everybody, handed in or not. */
  readonly drafts: readonly Draft[];
  readonly authors: Authors;
}

/** All reviews of an exchange as they count in grades. */
export async function reviewsInGrades(
  manager: EntityManager,
  around: Pick<ExchangeContext, 'exchange'>,
): Promise<GradedReviews> {
  const exchangeId = around.exchange.id;
  const form = await formOf(manager, around);
  const authors = await Authors.load(manager, around.exchange);
  const drafts = await manager.findBy(Draft, { exchangeId });
  const authorsOf = new Map(drafts.map((draft) => [draft.id, authors.of(draft)]));
  const all = await manager.find(Review, { where: { exchangeId }, order: { id: 'ASC' } });
  const withheld = groupedBy(await rowsOfReviews(manager, Withheld, exchangeId).getMany(), ({ reviewId }) => reviewId);
  const rated = new Map(
    (await rowsOfReviews(manager, RatingRow, exchangeId).getMany()).map((one) => [one.reviewId, one.helped]),
  );
  const submitted = all.filter(({ submittedAt }) => submittedAt !== null);
  const contents = new Map<
    string,
    Pick<ReviewInGrade, 'score' | 'answers' | 'words' | 'notes' | 'directed' | 'places'>
  >();
  for (const some of portions(submitted)) {
    const rowsOf = await countingRows(manager, some);
    for (const review of some) {
      const { answers, notes } = rowsOf(review);
      const kept = withheld.get(review.id) ?? [];
      const gone = new Set(
        kept.filter(({ kind, counts }) => kind === 'note' && !counts).map(({ targetId }) => targetId),
      );
      const said = notes.filter((note) => saysSomething(note) && !gone.has(note.id));
      const given = Object.fromEntries(answers.map((row) => [row.itemId, answerView(row)]));
      // What is kept from the author gives no score, and takes nothing from it either.
      const unread = new Set(kept.filter(({ kind }) => kind === 'answer').map(({ targetId }) => targetId));
      const { items, weighting } = review.ownForm ?? form;
      const score = formScore({ weighting, items: items.filter(({ id }) => !unread.has(id)) }, given);
      const texts = [...answers.flatMap(({ text, next }) => [text, next]), ...said.map(({ body }) => body)];
      contents.set(review.id, {
        answers: given,
        score: score === null ? null : score.percent / 100,
        words: texts.reduce((sum, text) => sum + countWords(text), 0),
        notes: said.length,
        places: said.map(({ id, kind, partId, selector }) => ({ id, kind, partId, selector })),
        directed: said.filter(saysWhatToDo).length,
      });
    }
  }
  const none = { score: null, answers: {}, words: 0, notes: 0, directed: 0, places: [] };
  return {
    ...{ form, drafts, authors },
    reviews: all.map((review) => {
      const helped = rated.get(review.id);
      return {
        review,
        self: authorsOf.get(review.draftId)?.includes(review.reviewerId) === true,
        ...(contents.get(review.id) ?? none),
        helped: helped === undefined ? null : HELPED_SHARE[helped],
        discounted: (withheld.get(review.id) ?? []).some(({ kind, counts }) => kind === 'review' && !counts),
      };
    }),
  };
}

/** Submitted reviews of drafts of others, by those who were given them, as their authors read them. */
export function peersOf(reviews: readonly ReviewInGrade[]): ReviewInGrade[] {
  return reviews.filter(
    ({ review, self }) => review.voice === null && !self && review.submittedAt !== null && review.withheldAt === null,
  );
}

/** What severity is told from: one score a review. */
export function ratingsOf(reviews: readonly ReviewInGrade[]): Rating[] {
  return peersOf(reviews).flatMap(({ review, score }) =>
    score === null ? [] : [{ reviewerId: review.reviewerId, draftId: review.draftId, score }],
  );
}

/** How well somebody reviews, as far as reviews say: those of others' drafts, submitted, and not discounted. */
export function qualityFrom(
  given: readonly ReviewInGrade[],
  scoresOfDraft: (draftId: string, without: string) => readonly number[],
  scoresOfStaff: (draftId: string) => readonly number[],
): Omit<QualityEvidence, 'mark'> {
  const counted = given.filter(({ review, self, discounted }) => review.submittedAt !== null && !self && !discounted);
  const helped = counted.flatMap((one) => one.helped ?? []);
  const heldAgainst = (others: (review: Review) => readonly number[]) =>
    closenessToOthers(
      counted.flatMap(({ score, review }) => (score === null ? [] : [{ own: score, others: others(review) }])),
    );
  return {
    closeness: heldAgainst(({ draftId, id }) => scoresOfDraft(draftId, id)),
    staff: heldAgainst(({ draftId }) => scoresOfStaff(draftId)),
    substance: substanceOf(counted),
    helpfulness: helped.length === 0 ? null : helped.reduce((sum, one) => sum + one, 0) / helped.length,
  };
}
