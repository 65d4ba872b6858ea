import type { Answers, CriterionItem, ReviewForm } from './form.js';

/** Most points the item can give, or null when it carries none. */
export function itemMaximum(item: CriterionItem): number | null {
  let most: number | null = null;
  for (const level of item.levels) {
    if (level.points !== null && (most === null || level.points > most)) most = level.points;
  }
  return most;
}

/** Most points the form can give; null when no item carries points (comments only). */
export function formMaximum(form: ReviewForm): number | null {
  let sum: number | null = null;
  for (const item of form.items) {
    const most = item.kind === 'criterion' ? itemMaximum(item) : null;
    if (most !== null) sum = (sum ?? 0) + most;
  }
  return sum === null ? null : tenths(sum);
}

export interface FormScore {
  /** Points given so far. */
  readonly points: number;
  /** Most points of the items answered so far. */
  readonly ofAnswered: number;
  /** Most points of the whole form. */
  readonly of: number;
}

/** Points from the levels chosen. Null for a form without points; unanswered items give nothing. */
export function formScore(form: ReviewForm, answers: Answers): FormScore | null {
  const of = formMaximum(form);
  if (of === null) return null;
  let points = 0;
  let ofAnswered = 0;
  for (const item of form.items) {
    if (item.kind !== 'criterion') continue;
    const chosen = item.levels.find((level) => level.id === answers[item.id]?.levelId);
    if (chosen === undefined || chosen.points === null) continue;
    points += chosen.points;
    ofAnswered += itemMaximum(item) ?? 0;
  }
  return { points: tenths(points), ofAnswered: tenths(ofAnswered), of };
}

/** Points come in tenths; their binary sums do not (0.1 + 0.2). */
function tenths(value: number): number {
  return Math.round(value * 10) / 10;
}
