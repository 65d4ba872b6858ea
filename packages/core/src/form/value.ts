import type { NumberItem, RangeItem } from './form.js';
import { rangeBounds } from './range.js';

export type ValueFault = 'too-small' | 'too-large' | 'not-whole' | 'between-steps';

/** Points and numbers are compared in thousandths: in binary, tenths are not what they are called. */
const THOUSAND = 1_000;

/**
 * What keeps a number from being an answer to an item; null for one that is. The one rule of bounds, wholeness and steps: the
 * field, the completeness of a review, its points and the API ask it.
 */
export function valueFault(item: RangeItem | NumberItem, value: number): ValueFault | null {
  if (item.kind === 'number') {
    if (item.minimum !== null && value < item.minimum) return 'too-small';
    if (item.maximum !== null && value > item.maximum) return 'too-large';
    return item.whole && !Number.isInteger(value) ? 'not-whole' : null;
  }
  const { least, most } = rangeBounds(item);
  if (value < least) return 'too-small';
  if (value > most) return 'too-large';
  const above = (value - least) * THOUSAND;
  const step = Math.round(item.step * THOUSAND);
  // The end of a range is an answer, also where no step leads to it.
  const onStep = Math.abs(above - Math.round(above)) < 1e-6 && Math.round(above) % step === 0;
  return onStep || value === most ? null : 'between-steps';
}
