import type { Effects, Variances } from './mixedModel.js';
import type { RatingDesign } from './ratingDesign.js';

/** No variance begins below this share of the spread: from too near to 0 the first step says little. */
const LEAST = 0.005;

/**
 * Variances from products of pairs: two reviews of one draft have the draft in common, two by one reviewer the reviewer, and so on. Near
 * enough to begin from; not estimates to be shown.
 *
 * @param spread the variance of all scores about their items
 */
export function firstGuess(design: RatingDesign, effects: Effects, spread: number): Variances {
  const { items, start, draftOf, reviewerOf, drafts, reviewers, item, score } = design;
  const sums = new Float64Array(items.length);
  const counts = new Float64Array(items.length);
  score.forEach((value, rating) => {
    const one = item[rating] as number;
    sums[one] = (sums[one] as number) + value;
    counts[one] = (counts[one] as number) + 1;
  });
  const left = score.map((value, rating) => {
    const one = item[rating] as number;
    return value - (sums[one] as number) / (counts[one] as number);
  });
  const means = new Float64Array(draftOf.length);
  let within = 0;
  let share = 0;
  let squares = 0;
  for (let review = 0; review < draftOf.length; review += 1) {
    const own = left.subarray(start[review], start[review + 1]);
    const mean = own.reduce((sum, value) => sum + value, 0) / own.length;
    means[review] = mean;
    squares += mean * mean;
    share += 1 / own.length;
    within += own.reduce((sum, value) => sum + (value - mean) ** 2, 0);
  }
  const reviews = draftOf.length;
  const least = LEAST * spread;
  const draft = Math.max(least, sharedBy(draftOf, drafts.length, means));
  const reviewer = effects.reviewer ? Math.max(least, sharedBy(reviewerOf, reviewers.length, means)) : 0;
  const rest = squares / reviews - draft - reviewer;
  if (!effects.review) return { draft, reviewer, review: 0, residual: Math.max(least, rest) };
  const residual = Math.max(least, within / Math.max(1, score.length - reviews - items.length + 1));
  return { draft, reviewer, review: Math.max(least, rest - (residual * share) / reviews), residual };
}

/** The mean product of two reviews of one level; 0 where no level has two. */
function sharedBy(level: Int32Array, levels: number, means: Float64Array): number {
  const sums = new Float64Array(levels);
  const squares = new Float64Array(levels);
  const counts = new Float64Array(levels);
  level.forEach((one, review) => {
    const mean = means[review] as number;
    sums[one] = (sums[one] as number) + mean;
    squares[one] = (squares[one] as number) + mean * mean;
    counts[one] = (counts[one] as number) + 1;
  });
  let products = 0;
  let pairs = 0;
  for (let one = 0; one < levels; one += 1) {
    products += (sums[one] as number) ** 2 - (squares[one] as number);
    pairs += (counts[one] as number) * ((counts[one] as number) - 1);
  }
  return pairs === 0 ? 0 : products / pairs;
}
