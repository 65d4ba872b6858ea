import type { Adjusted, AdjustedDraft } from './adjustScores.js';
import type { Rating } from './ratingDesign.js';

/** Less than this apart from others, on a scale of 0 to 1, a reviewer is called neither severe nor mild. Ours. */
export const NOTICED = 0.01;

/** How an adjusted score came about. */
export interface Explanation {
  readonly reviewers: number;
  /** Of them, those who give less than others on average, and those who give more. */
  readonly less: number;
  readonly more: number;
  /** Reviews of the draft after which its interval would be half as wide, whole; null where no number of them would say. */
  readonly forHalf: number | null;
}

/**
 * In what company a draft was read, and how many reviews would tell more.
 *
 * @param ratings those that were adjusted
 * @returns by draft
 */
export function explainAdjusted(adjusted: Adjusted, ratings: readonly Rating[]): ReadonlyMap<string, Explanation> {
  const severity = new Map(adjusted.reviewers.map((one) => [one.id, one.severity]));
  const readers = new Map<string, Set<string>>();
  for (const { draftId, reviewerId } of ratings) {
    readers.set(draftId, (readers.get(draftId) ?? new Set()).add(reviewerId));
  }
  return new Map(
    adjusted.drafts.map((draft) => {
      const severities = [...(readers.get(draft.id) ?? [])].map((id) => severity.get(id) ?? 0);
      const forHalf = reviewsForHalf(draft, severities.length, adjusted.variances.draft);
      const less = severities.filter((one) => one > NOTICED).length;
      const more = severities.filter((one) => one < -NOTICED).length;
      return [draft.id, { reviewers: severities.length, less, more, forHalf }];
    }),
  );
}

/**
 * What is known of a draft is what drafts differ by and what each review adds: 1/se² = 1/variance + reviews × what one adds. Half the
 * interval takes four times as much.
 */
function reviewsForHalf({ se }: Pick<AdjustedDraft, 'se'>, reviews: number, variance: number): number | null {
  if (!(variance > 0) || !(se > 0) || reviews === 0) return null;
  const known = 1 / se ** 2;
  const each = (known - 1 / variance) / reviews;
  // Rounding must not ask for one more.
  return each <= 0 ? null : Math.ceil((4 * known - 1 / variance) / each - 1e-9);
}
