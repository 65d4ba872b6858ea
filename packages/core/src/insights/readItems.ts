import { krippendorffAlpha } from '../agreement/krippendorffAlpha.js';
import type { Answers, FormItem, ReviewForm } from '../form/form.js';
import { levelShares } from '../quality/flags.js';

/** What one review says of one draft. */
export interface ReadReview {
  readonly draftId: string;
  readonly answers: Answers;
}

/** Parts that a scale is cut into, so that items of any kind stand beside each other. */
export const SCALE_PARTS = 5;

/** How an item of the form came out over all drafts. */
export interface ItemInsight {
  readonly itemId: string;
  readonly title: string;
  /** Answers in each fifth of its scale, from the lowest; the top belongs to the highest. */
  readonly counts: readonly number[];
  /** Of all answers, 0 to 1 of the scale; null without any. */
  readonly mean: number | null;
  readonly answers: number;
  /** How alike different people answer it of the same draft (Krippendorff's alpha, interval); null where nothing can be compared. */
  readonly alpha: number | null;
}

/** Items that have a scale, in the order of the form. */
export function readItems(form: Pick<ReviewForm, 'items'>, reviews: readonly ReadReview[]): ItemInsight[] {
  const shares = reviews.map(({ draftId, answers }) => ({ draftId, of: levelShares(form, answers) }));
  return form.items.filter(hasScale).map(({ id: itemId, title }) => {
    const counts = new Array<number>(SCALE_PARTS).fill(0);
    const byDraft = new Map<string, number[]>();
    let sum = 0;
    let answers = 0;
    for (const { draftId, of } of shares) {
      const share = of[itemId];
      if (share === undefined) continue;
      const part = Math.min(SCALE_PARTS - 1, Math.floor(share * SCALE_PARTS));
      counts[part] = (counts[part] as number) + 1;
      byDraft.set(draftId, [...(byDraft.get(draftId) ?? []), share]);
      sum += share;
      answers += 1;
    }
    const { alpha } = krippendorffAlpha([...byDraft.values()], 'interval', { resamples: 0 });
    return { itemId, title, counts, mean: answers === 0 ? null : sum / answers, answers, alpha };
  });
}

function hasScale({ kind }: FormItem): boolean {
  return kind === 'criterion' || kind === 'range' || kind === 'checklist';
}
