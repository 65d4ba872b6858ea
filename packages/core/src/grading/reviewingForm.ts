import { say } from '../words/defaults.js';
import type { CriterionItem, FormItem } from '../form/form.js';

const SCALE = [0, 1, 2, 3] as const;

function criterion(id: 'place' | 'next' | 'fair'): CriterionItem {
  return {
    ...{ kind: 'criterion', id, required: true, weight: 1, comment: 'optional' },
    title: say(`${id}Title`),
    guidance: say(`${id}Guidance`),
    levels: SCALE.map((points) => ({ id: `${id}-${points}`, title: say(`${id}${points}`), description: '', points })),
  };
}

/** The ready form by which reviewing is marked. Ours; no standard. */
export function readyReviewingForm(): FormItem[] {
  return [criterion('place'), criterion('next'), criterion('fair')];
}

/** Under what the answer to an item is kept where each review is marked by itself. Ids of reviews hold no dot. */
export function markKey(reviewId: string, itemId: string): string {
  return `${reviewId}.${itemId}`;
}

/** What a key is of; null for one without a review. */
export function ofMarkKey(key: string): { readonly reviewId: string; readonly itemId: string } | null {
  const dot = key.indexOf('.');
  return dot < 0 ? null : { reviewId: key.slice(0, dot), itemId: key.slice(dot + 1) };
}
