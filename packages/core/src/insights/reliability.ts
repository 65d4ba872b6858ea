import { ratingsNeeded, spearmanBrown } from '../agreement/intraclassCorrelation.js';
import type { Adjusted } from '../scoring/adjustScores.js';

/** Common practice, with no source that everybody follows: from here on, scores are used to tell one draft from another. */
export const RELIABLE = 0.7;

/** How far scores tell drafts apart. */
export interface ScoreReliability {
  /** Of one review: the share of what scores differ by that is the drafts' (an intraclass correlation, one rater at random). 0 to 1. */
  readonly single: number;
  /** Reviews of a draft, on average. */
  readonly reviews: number;
  /** Of so many together, by Spearman and Brown. */
  readonly together: number;
  /** Reviews of a draft after which it would be {@link RELIABLE}; null where no number of them would do. */
  readonly needed: number | null;
}

/** @returns null where nothing can be told apart: too few scores, or all alike */
export function reliabilityOf({ variances, drafts, problem }: Adjusted): ScoreReliability | null {
  const { draft, reviewer, review, residual } = variances;
  const all = draft + reviewer + review + residual;
  if (problem?.code === 'too-few' || problem?.code === 'no-spread' || !(all > 0) || drafts.length === 0) return null;
  const single = draft / all;
  const reviews = drafts.reduce((sum, { ratings }) => sum + ratings, 0) / drafts.length;
  return { single, reviews, together: spearmanBrown(single, reviews), needed: ratingsNeeded(single, RELIABLE) };
}
