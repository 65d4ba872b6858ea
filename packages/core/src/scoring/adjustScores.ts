import { MisuseError } from '../problem.js';
import { estimateVariances } from './estimateVariances.js';
import { MixedModel, type Effects, type Solution, type Variances } from './mixedModel.js';
import { normalQuantile } from './normalQuantile.js';
import { partsOf, ratingDesign, type Rating, type RatingDesign } from './ratingDesign.js';

/** What kept scores from being adjusted as they should be, and what was done instead. */
export type AdjustProblem =
  /** Nothing can be told from so little: the plain means, and nobody is called severe. */
  | { readonly code: 'too-few'; readonly drafts: number; readonly reviewers: number; readonly ratings: number }
  /** All scores of an item are the same: nobody differs, and nothing was adjusted. */
  | { readonly code: 'no-spread' }
  /** Every reviewer reads one draft: severe reviewers and weak drafts look the same. Severity is left out of the model. */
  | { readonly code: 'one-draft-each'; readonly reviewers: number }
  /** Every draft is read once: what is the draft and what is chance looks the same. The plain means. */
  | { readonly code: 'one-review-each'; readonly drafts: number }
  /** Parts of the class share no reviewers: scores of different parts can be compared only as far as the parts are alike. */
  | { readonly code: 'not-connected'; readonly drafts: readonly number[] };

export interface AdjustedDraft {
  readonly id: string;
  /** The plain mean of its scores. */
  readonly mean: number;
  /** The mean of all with the effect of the draft, severity taken out. */
  readonly adjusted: number;
  /** Standard error of the adjusted score, the uncertainty of the mean in it. */
  readonly se: number;
  readonly low: number;
  readonly high: number;
  /** Scores that it got; one an item, where there are items. */
  readonly ratings: number;
}

export interface ReviewerSeverity {
  readonly id: string;
  /** How much less this reviewer gives than others do for the same draft, on the scale of the scores; below 0 for more. */
  readonly severity: number;
  readonly se: number;
  readonly low: number;
  readonly high: number;
  /** Scores that this one gave. */
  readonly ratings: number;
}

export interface Adjusted {
  /** Mean of the fixed effects, each item once; 0 without ratings. */
  readonly mean: number;
  /** Empty where ratings name no items. */
  readonly items: ReadonlyArray<{ readonly id: string; readonly effect: number; readonly se: number }>;
  /** `review` is 0 without items. */
  readonly variances: Variances;
  /** In the order in which they come first among the ratings, as are items and reviewers. */
  readonly drafts: readonly AdjustedDraft[];
  readonly reviewers: readonly ReviewerSeverity[];
  readonly problem: AdjustProblem | null;
}

/** Below this share of the squares of the scores, what is left beside the items is rounding. */
const ROUNDING = 1e-20;

/**
 * Scores with the severity of reviewers taken out: score = item (fixed; the mean without items) + draft + reviewer + review (where there
 * are items) + rest, random effects independent and normal. Variances by restricted maximum likelihood; drafts and reviewers as best
 * linear unbiased predictions; standard errors from the inverse of the mixed model equations (Henderson 1975). A variance can be 0:
 * then everything shrinks to the mean. In time nearly in proportion to the ratings as long as the class is small or its parts are;
 * see `docs/figures.md`.
 *
 * @param options.confidence of the intervals, 0 to 1; 0.95 unless given
 * @throws MisuseError `rating-not-finite`, `rating-twice`, `rating-items-mixed`, `share-out-of-range`
 */
export function adjustScores(ratings: readonly Rating[], options: { readonly confidence?: number } = {}): Adjusted {
  const { confidence = 0.95 } = options;
  if (!(confidence > 0 && confidence < 1)) {
    throw new MisuseError('share-out-of-range', 'a confidence lies between 0 and 1', { confidence });
  }
  const reach = normalQuantile((1 + confidence) / 2);
  const design = ratingDesign(ratings);
  const spread = spreadOf(design);
  const plain = plainly(design, reach, spread);
  const { drafts, reviewers, draftOf, reviewerOf, score, items } = design;
  const counts = { drafts: drafts.length, reviewers: reviewers.length, ratings: score.length };
  const free = score.length - items.length;
  if (drafts.length < 2 || reviewers.length < 2 || free < 2)
    return { ...plain, problem: { code: 'too-few', ...counts } };
  if (spread === 0) return { ...plain, problem: { code: 'no-spread' } };
  // One review each: with items, what the review adds is told apart from the rest, but not from the draft.
  if (draftOf.length === drafts.length) {
    return { ...plain, problem: { code: 'one-review-each', drafts: drafts.length } };
  }
  const oneDraftEach = reviewerOf.length === reviewers.length;
  const effects: Effects = {
    draft: true,
    reviewer: !oneDraftEach,
    // With a single score in every review, what it adds is the rest.
    review: design.hasItems && score.length > draftOf.length,
  };
  const solution = estimateVariances(new MixedModel(design), effects, spread);
  const parts = partsOf(design);
  return {
    ...outcome(design, solution, reach),
    problem: oneDraftEach
      ? { code: 'one-draft-each', reviewers: reviewers.length }
      : parts.length > 1
        ? { code: 'not-connected', drafts: parts }
        : null,
  };
}

/** Variance of the scores about the means of their items; 0 where what differs is rounding. */
function spreadOf({ item, score, items }: RatingDesign): number {
  const means = meansOf(item, score, items.length);
  const squares = score.reduce((sum, value, index) => sum + (value - (means[item[index] as number] as number)) ** 2, 0);
  const all = score.reduce((sum, value) => sum + value * value, 0);
  return squares <= ROUNDING * all ? 0 : squares / Math.max(1, score.length - items.length);
}

function meansOf(level: ArrayLike<number>, score: Float64Array, levels: number): Float64Array {
  const sums = new Float64Array(levels);
  const counts = countsOf(level, levels);
  score.forEach((value, index) => (sums[level[index] as number] = (sums[level[index] as number] as number) + value));
  return sums.map((sum, index) => sum / (counts[index] as number));
}

function countsOf(level: ArrayLike<number>, levels: number): Int32Array {
  const counts = new Int32Array(levels);
  for (let index = 0; index < level.length; index += 1)
    counts[level[index] as number] = (counts[level[index] as number] as number) + 1;
  return counts;
}

/** Draft and reviewer of each rating. */
function levelsOf({ draftOf, reviewerOf, start, score }: RatingDesign) {
  const draft = new Int32Array(score.length);
  const reviewer = new Int32Array(score.length);
  draftOf.forEach((one, review) => {
    draft.fill(one, start[review], start[review + 1]);
    reviewer.fill(reviewerOf[review] as number, start[review], start[review + 1]);
  });
  return { draft, reviewer };
}

function outcome(design: RatingDesign, solution: Solution, reach: number): Omit<Adjusted, 'problem'> {
  const { drafts, reviewers, items, hasItems, score } = design;
  const level = levelsOf(design);
  const means = meansOf(level.draft, score, drafts.length);
  const given = countsOf(level.reviewer, reviewers.length);
  const got = countsOf(level.draft, drafts.length);
  const mean = solution.fixed.reduce((sum, value) => sum + value, 0) / items.length;
  const errors = solution.errorsOfItems();
  const around = (value: number, se: number) => ({ se, low: value - reach * se, high: value + reach * se });
  return {
    mean,
    items: hasItems
      ? items.map((id, one) => ({ id, effect: solution.fixed[one] as number, se: errors[one] as number }))
      : [],
    variances: solution.variances,
    drafts: drafts.map((id, draft) => {
      const adjusted = mean + (solution.effects[draft] as number);
      const interval = around(adjusted, solution.errorOfMeanAnd(draft));
      return { id, mean: means[draft] as number, adjusted, ...interval, ratings: got[draft] as number };
    }),
    reviewers: reviewers.map((id, reviewer) => {
      const node = drafts.length + reviewer;
      // Not −0, which reads as if it were something.
      const severity = 0 - (solution.effects[node] as number);
      return { id, severity, ...around(severity, solution.errorOf(node)), ratings: given[reviewer] as number };
    }),
  };
}

/** Plain means, each as uncertain as scores differ; nobody is called severe. */
function plainly(design: RatingDesign, reach: number, spread: number): Omit<Adjusted, 'problem'> {
  const { drafts, reviewers, items, hasItems, item, score } = design;
  const level = levelsOf(design);
  const effects = meansOf(item, score, items.length);
  const perItem = countsOf(item, items.length);
  const means = meansOf(level.draft, score, drafts.length);
  const got = countsOf(level.draft, drafts.length);
  const given = countsOf(level.reviewer, reviewers.length);
  return {
    mean: items.length === 0 ? 0 : effects.reduce((sum, value) => sum + value, 0) / items.length,
    items: hasItems
      ? items.map((id, one) => ({
          id,
          effect: effects[one] as number,
          se: Math.sqrt(spread / (perItem[one] as number)),
        }))
      : [],
    variances: { draft: 0, reviewer: 0, review: 0, residual: spread },
    drafts: drafts.map((id, draft) => {
      const mean = means[draft] as number;
      const se = Math.sqrt(spread / (got[draft] as number));
      return {
        id,
        mean,
        adjusted: mean,
        se,
        low: mean - reach * se,
        high: mean + reach * se,
        ratings: got[draft] as number,
      };
    }),
    reviewers: reviewers.map((id, reviewer) => ({
      id,
      severity: 0,
      se: 0,
      low: 0,
      high: 0,
      ratings: given[reviewer] as number,
    })),
  };
}
