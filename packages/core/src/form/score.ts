import type { Answer, Answers, FormItem, RangeItem, ReviewForm } from './form.js';
import { rangeBounds } from './range.js';
import { valueFault } from './value.js';

/** Points come in tenths; their binary sums do not (0.1 + 0.2). */
function tenths(value: number): number {
  return Math.round(value * 10) / 10;
}

function most(values: ReadonlyArray<number | null>): number | null {
  const given = values.filter((value) => value !== null);
  return given.length === 0 ? null : Math.max(...given);
}

/** Most points the item can give, or null when it carries none. */
export function itemMaximum(item: FormItem): number | null {
  switch (item.kind) {
    case 'criterion':
      return most(item.levels.map(({ points }) => points));
    case 'range':
      return item.bands.length === 0 ? null : rangeBounds(item).most;
    case 'checklist': {
      const given = item.entries.flatMap(({ points }) => (points === null ? [] : [points]));
      return given.length === 0 ? null : tenths(given.reduce((sum, points) => sum + points, 0));
    }
    default:
      return null;
  }
}

/**
 * Points given for the item, or null when it carries none or is not answered. A checklist counts as
 * answered when every entry is.
 */
export function itemPoints(item: FormItem, answer: Answer | undefined): number | null {
  switch (item.kind) {
    case 'criterion':
      return item.levels.find((level) => level.id === answer?.levelId)?.points ?? null;
    case 'range': {
      const value = answer?.value ?? null;
      return item.bands.length === 0 || value === null || valueFault(item, value) !== null ? null : value;
    }
    case 'checklist': {
      if (itemMaximum(item) === null || item.entries.some(({ id }) => answer?.checks?.[id] === undefined)) return null;
      return tenths(
        item.entries.reduce((sum, { id, points }) => sum + (answer?.checks?.[id] === 'yes' ? (points ?? 0) : 0), 0),
      );
    }
    default:
      return null;
  }
}

/** Most points the form can give; null when no item carries points (comments only). */
export function formMaximum(form: Pick<ReviewForm, 'items'>): number | null {
  const all = form.items.map(itemMaximum).filter((value) => value !== null);
  return all.length === 0 ? null : tenths(all.reduce((sum, value) => sum + value, 0));
}

/** What the weights of all scored items add up to. */
export function weightSum(form: Pick<ReviewForm, 'items'>): number {
  return form.items.reduce((sum, item) => sum + (itemMaximum(item) === null ? 0 : item.weight), 0);
}

export interface FormScore {
  /** Points given so far, summed as they are whatever the weighting. */
  readonly points: number;
  /** Most points of the items answered so far. */
  readonly ofAnswered: number;
  /** Most points of the whole form. */
  readonly of: number;
  /**
   * The score of the whole form in percent, 0 to 100, unanswered items giving nothing: points of maximum, or, in a
   * form that goes by weights, the weighted mean of each item's share of its own maximum. Not rounded.
   */
  readonly percent: number;
}

/**
 * The score of a filled form. Null for a form without points.
 * An item whose maximum is 0 (all levels worth nothing) gives its whole weight nothing.
 */
export function formScore(form: Pick<ReviewForm, 'items' | 'weighting'>, answers: Answers): FormScore | null {
  const of = formMaximum(form);
  if (of === null) return null;
  let points = 0;
  let ofAnswered = 0;
  let weighted = 0;
  for (const item of form.items) {
    const given = itemPoints(item, answers[item.id]);
    const maximum = itemMaximum(item);
    if (given === null || maximum === null) continue;
    points += given;
    ofAnswered += maximum;
    if (maximum > 0) weighted += item.weight * (given / maximum);
  }
  const weights = weightSum(form);
  const byPoints = of === 0 ? 0 : (tenths(points) / of) * 100;
  const byWeights = weights === 0 ? 0 : (weighted / weights) * 100;
  return {
    points: tenths(points),
    ofAnswered: tenths(ofAnswered),
    of,
    percent: form.weighting === 'weights' ? byWeights : byPoints,
  };
}

/** The band that a number of points falls in: the highest one that begins at or below it. */
export function bandOf(item: RangeItem, value: number): RangeItem['bands'][number] | null {
  const { least, most: top } = rangeBounds(item);
  if (item.bands.length === 0 || value < least || value > top) return null;
  // Points between two bands (4.5 between “0 to 4” and “5 to 8”) belong to the lower one: the higher is not reached.
  return item.bands.reduce<RangeItem['bands'][number] | null>(
    (best, band) => (band.from <= value && (best === null || band.from >= best.from) ? band : best),
    null,
  );
}
