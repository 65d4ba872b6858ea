import type { Answer, Answers, CriterionItem, FormItem, ReviewForm } from '../form/form.js';
import { bandOf } from '../form/score.js';
import { weightedKappa } from './weightedKappa.js';

/** What the distance of two answers is counted in. */
export type ClosenessUnit = 'levels' | 'bands' | 'points' | 'entries' | 'choice' | 'number';

/** How one item of a review stands to the same item of a key. */
export interface ItemCloseness {
  readonly itemId: string;
  readonly unit: ClosenessUnit;
  /**
   * How far apart, 0 or more, in the unit: levels or bands between, points, checklist entries answered otherwise, the difference of
   * two numbers; 0 or 1 for a choice. Null where the review has no answer to what the key answers.
   */
  readonly apart: number | null;
  /** Which of the two gives more; null where that means nothing, or nothing is apart. */
  readonly gives: 'more' | 'less' | null;
  /** Within one level, or what corresponds to it (see {@link closeness}). */
  readonly near: boolean;
}

export interface Closeness {
  /** Items that the key answers and that can be compared: texts cannot. In the order of the form. */
  readonly items: readonly ItemCloseness[];
  /** Share of them that are near, 0..1; null where there is none. */
  readonly share: number | null;
  /**
   * Weighted kappa over the criteria that have the commonest number of levels, a level apart counting once; null below
   * {@link KAPPA_ITEMS} of them, or where chance alone would agree.
   */
  readonly kappa: number | null;
}

/** With fewer items kappa says next to nothing: one answer moves it by a quarter. */
export const KAPPA_ITEMS = 6;

/** A range without bands to speak of, or a number, is near within this share of what could be, or of the key. */
const NEAR_SHARE = 0.1;

/**
 * How near a review comes to a key, item by item. Near is: a level apart or less; the same band or the next, or, in a range of one
 * band, within a tenth of it; at most one entry of a checklist answered otherwise; the same choice; a number within 1 or a tenth of
 * the key. What a key leaves unanswered is not asked of anybody.
 */
export function closeness(form: Pick<ReviewForm, 'items'>, answers: Answers, key: Answers): Closeness {
  const items = form.items.flatMap((item) => {
    const found = compare(item, answers[item.id], key[item.id]);
    return found === null ? [] : [found];
  });
  const near = items.filter((one) => one.near).length;
  return {
    items,
    share: items.length === 0 ? null : near / items.length,
    kappa: kappaOf(form, answers, key),
  };
}

function compare(item: FormItem, own: Answer | undefined, key: Answer | undefined): ItemCloseness | null {
  switch (item.kind) {
    case 'criterion':
      return ofCriterion(item, own, key);
    case 'range': {
      const [given, right] = [own?.value ?? null, key?.value ?? null];
      if (right === null) return null;
      const bands = [...item.bands].sort((a, b) => a.from - b.from);
      const place = (value: number) => bands.findIndex(({ id }) => id === bandOf(item, value)?.id);
      if (given === null) return none(item, bands.length > 1 ? 'bands' : 'points');
      const gives = side(given - right);
      if (bands.length > 1) {
        const apart = Math.abs(place(given) - place(right));
        return { itemId: item.id, unit: 'bands', apart, gives, near: apart <= 1 };
      }
      const [only] = bands;
      const width = only === undefined ? 0 : only.to - only.from;
      const apart = Math.abs(given - right);
      return { itemId: item.id, unit: 'points', apart, gives, near: apart <= width * NEAR_SHARE };
    }
    case 'checklist': {
      const right = key?.checks ?? {};
      const asked = item.entries.filter(({ id }) => right[id] !== undefined);
      if (asked.length === 0) return null;
      if (Object.keys(own?.checks ?? {}).length === 0) return none(item, 'entries');
      const apart = asked.filter(({ id }) => own?.checks?.[id] !== right[id]).length;
      return { itemId: item.id, unit: 'entries', apart, gives: null, near: apart <= 1 };
    }
    case 'choice': {
      const right = chosen(item.options, key);
      if (right === '') return null;
      const given = chosen(item.options, own);
      if (given === '') return none(item, 'choice');
      return { itemId: item.id, unit: 'choice', apart: given === right ? 0 : 1, gives: null, near: given === right };
    }
    case 'number': {
      const [given, right] = [own?.value ?? null, key?.value ?? null];
      if (right === null) return null;
      if (given === null) return none(item, 'number');
      const apart = Math.abs(given - right);
      const near = apart <= Math.max(1, Math.abs(right) * NEAR_SHARE);
      return { itemId: item.id, unit: 'number', apart, gives: side(given - right), near };
    }
    case 'prompt':
    case 'pair':
      return null;
  }
}

function none({ id }: FormItem, unit: ClosenessUnit): ItemCloseness {
  return { itemId: id, unit, apart: null, gives: null, near: false };
}

function side(difference: number): ItemCloseness['gives'] {
  return difference === 0 ? null : difference > 0 ? 'more' : 'less';
}

function ofCriterion(item: CriterionItem, own: Answer | undefined, key: Answer | undefined): ItemCloseness | null {
  const right = levelOf(item, key);
  if (right === null) return null;
  const given = levelOf(item, own);
  if (given === null) return none(item, 'levels');
  const points = (index: number) => item.levels[index]?.points ?? null;
  const [mine, theirs] = [points(given), points(right)];
  const apart = Math.abs(given - right);
  // Levels are listed as their author likes; without points which end is the better one cannot be known.
  const gives = mine === null || theirs === null ? null : side(mine - theirs);
  return { itemId: item.id, unit: 'levels', apart, gives, near: apart <= 1 };
}

/** Index among the levels of the item; null where none is chosen. */
function levelOf({ levels }: CriterionItem, answer: Answer | undefined): number | null {
  const index = levels.findIndex(({ id }) => id === answer?.levelId);
  return index < 0 ? null : index;
}

function chosen(options: ReadonlyArray<{ readonly id: string }>, answer: Answer | undefined): string {
  return options
    .filter(({ id }) => answer?.choices?.includes(id) === true)
    .map(({ id }) => id)
    .join('\n');
}

function kappaOf({ items }: Pick<ReviewForm, 'items'>, answers: Answers, key: Answers): number | null {
  const byLevels = new Map<number, Array<readonly [number, number]>>();
  for (const item of items) {
    if (item.kind !== 'criterion') continue;
    const [own, right] = [levelOf(item, answers[item.id]), levelOf(item, key[item.id])];
    if (own === null || right === null) continue;
    byLevels.set(item.levels.length, [...(byLevels.get(item.levels.length) ?? []), [own, right]]);
  }
  const [most] = [...byLevels].sort(([a, one], [b, two]) => two.length - one.length || b - a);
  if (most === undefined || most[1].length < KAPPA_ITEMS) return null;
  return weightedKappa(most[1], most[0]);
}
