import type { CriterionItem, FormItem } from '../form/form.js';

function criterion(id: string, title: string, guidance: string, levels: readonly string[]): CriterionItem {
  return {
    ...{ kind: 'criterion', id, title, guidance, required: true, weight: 1, comment: 'optional' },
    levels: levels.map((level, points) => ({ id: `${id}-${points}`, title: level, description: '', points })),
  };
}

/** The ready form by which reviewing is marked. Ours; no standard. */
export const READY_REVIEWING_FORM: readonly FormItem[] = [
  criterion('place', 'Points to places', 'Could the author find what is meant without asking?', [
    'Nowhere',
    'Here and there',
    'Mostly',
    'Throughout',
  ]),
  criterion('next', 'Says what to do', 'After reading, is there something to do tomorrow?', [
    'Nothing',
    'In general words',
    'For some things',
    'For all that matters',
  ]),
  criterion('fair', 'Fair, and with reasons', 'Would you want to be written to like this?', [
    'Hardly',
    'Judges without reasons',
    'Mostly',
    'Throughout',
  ]),
];

/** Under what the answer to an item is kept where each review is marked by itself. Ids of reviews hold no dot. */
export function markKey(reviewId: string, itemId: string): string {
  return `${reviewId}.${itemId}`;
}

/** What a key is of; null for one without a review. */
export function ofMarkKey(key: string): { readonly reviewId: string; readonly itemId: string } | null {
  const dot = key.indexOf('.');
  return dot < 0 ? null : { reviewId: key.slice(0, dot), itemId: key.slice(dot + 1) };
}
