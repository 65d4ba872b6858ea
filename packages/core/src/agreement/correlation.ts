import { MisuseError } from '../problem.js';

/** Two numbers on the same thing. */
export type Pair = readonly [number, number];

/**
 * Pearson's product-moment correlation.
 *
 * @returns −1 to 1; null with fewer than two pairs, or where one side never differs
 * @throws MisuseError `rating-not-finite`
 */
export function pearson(pairs: readonly Pair[]): number | null {
  pairs.forEach((pair, index) => {
    if (!pair.every(Number.isFinite))
      throw new MisuseError('rating-not-finite', 'one of a pair is not a number', { index });
  });
  const mean = (side: 0 | 1) => pairs.reduce((sum, pair) => sum + pair[side], 0) / pairs.length;
  const [first, second] = [mean(0), mean(1)];
  let product = 0;
  let ofFirst = 0;
  let ofSecond = 0;
  for (const [a, b] of pairs) {
    product += (a - first) * (b - second);
    ofFirst += (a - first) ** 2;
    ofSecond += (b - second) ** 2;
  }
  const root = Math.sqrt(ofFirst * ofSecond);
  // Rounding must not make more of it than there can be.
  return pairs.length < 2 || root === 0 ? null : Math.max(-1, Math.min(1, product / root));
}

/** Spearman's rank correlation: Pearson's of the ranks, equal values sharing the mean of theirs. */
export function spearman(pairs: readonly Pair[]): number | null {
  const first = ranks(pairs.map(([a]) => a));
  const second = ranks(pairs.map(([, b]) => b));
  return pearson(first.map((rank, index) => [rank, second[index] as number]));
}

function ranks(values: readonly number[]): number[] {
  const order = values.map((_, index) => index).sort((a, b) => (values[a] as number) - (values[b] as number));
  const ranked = new Array<number>(values.length);
  for (let from = 0; from < order.length;) {
    let to = from + 1;
    while (to < order.length && values[order[to] as number] === values[order[from] as number]) to += 1;
    for (let place = from; place < to; place += 1) ranked[order[place] as number] = (from + to + 1) / 2;
    from = to;
  }
  return ranked;
}

export interface LimitsOfAgreement {
  /** Of the first less the second, on average. */
  readonly difference: number;
  /** Standard deviation of the differences. */
  readonly deviation: number;
  /** Between these lie 95 of 100 differences, if they are normal. */
  readonly low: number;
  readonly high: number;
  readonly pairs: number;
}

/** The 97.5 % quantile of the standard normal distribution; Bland and Altman round it to 2, as is done here. */
const TWO = 2;

/**
 * Limits of agreement: Bland, J. M. and Altman, D. G. (1986), Statistical methods for assessing agreement between two methods of clinical
 * measurement, Lancet 327, 307–310: the mean difference, and two standard deviations to both sides.
 *
 * @returns null with fewer than two pairs
 * @throws MisuseError `rating-not-finite`
 */
export function blandAltman(pairs: readonly Pair[]): LimitsOfAgreement | null {
  pairs.forEach((pair, index) => {
    if (!pair.every(Number.isFinite))
      throw new MisuseError('rating-not-finite', 'one of a pair is not a number', { index });
  });
  if (pairs.length < 2) return null;
  const differences = pairs.map(([a, b]) => a - b);
  const difference = differences.reduce((sum, value) => sum + value, 0) / pairs.length;
  const squares = differences.reduce((sum, value) => sum + (value - difference) ** 2, 0);
  const deviation = Math.sqrt(squares / (pairs.length - 1));
  const reach = TWO * deviation;
  return { difference, deviation, low: difference - reach, high: difference + reach, pairs: pairs.length };
}
