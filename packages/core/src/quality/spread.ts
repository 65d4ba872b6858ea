import type { Answers, ReviewForm } from '../form/form.js';
import { levelShares } from './flags.js';

/** How far apart the reviews of one draft are on an item. */
export interface ItemSpread {
  readonly itemId: string;
  /** Between the highest and the lowest answer, share of the scale, 0..1; null where fewer than two are on a scale. */
  readonly spread: number | null;
}

/** The items of a form, those first on which reviews of the same draft differ most; those without a scale last, as the form has them. */
export function itemSpreads(form: Pick<ReviewForm, 'items'>, reviews: readonly Answers[]): ItemSpread[] {
  const shares = reviews.map((answers) => levelShares(form, answers));
  const spreads = form.items.map(({ id: itemId }): ItemSpread => {
    const given = shares.flatMap((one) => one[itemId] ?? []);
    return { itemId, spread: given.length < 2 ? null : Math.max(...given) - Math.min(...given) };
  });
  return spreads.sort((a, b) => (b.spread ?? -1) - (a.spread ?? -1));
}
