import type { DraftFeedbackView, Withholdable } from '@salt-circle/contracts';

/** Why this, by itself, is kept from the author; undefined where it is not. A review that is kept is so with all that is in it. */
export function keptOf(
  { withheld }: Pick<DraftFeedbackView, 'withheld'>,
  reviewId: string,
  kind: Withholdable,
  targetId = '',
): string | undefined {
  return withheld.find((one) => one.reviewId === reviewId && one.kind === kind && one.targetId === targetId)?.reason;
}
