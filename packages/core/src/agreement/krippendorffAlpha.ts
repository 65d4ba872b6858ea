import { MisuseError } from '../problem.js';
import { seededRandom } from '../random/random.js';

/** What values can be told apart by: sameness, order, distance, proportion. */
export type MeasureLevel = 'nominal' | 'ordinal' | 'interval' | 'ratio';

/** Ratings of one thing, a place for each rater; null where there is none. */
export type Unit = ReadonlyArray<number | null>;

export interface Alpha {
  /** 1 for the same throughout, 0 for what chance gives; null where nothing can be compared, or nobody ever differs. */
  readonly alpha: number | null;
  /** By resampling the units; null with fewer than two that count, or without an alpha. */
  readonly interval: { readonly low: number; readonly high: number } | null;
  /** Things that were rated twice or more: the others tell nothing. */
  readonly units: number;
  /** Their ratings. */
  readonly ratings: number;
}

interface AlphaOptions {
  /** Of the interval; 0.95 unless given. */
  readonly confidence?: number;
  /** Resamples for the interval; 0 for none, 1,000 unless given. */
  readonly resamples?: number;
  readonly seed?: number;
}

/**
 * Agreement of any number of raters, whoever rated what: Krippendorff's alpha (Krippendorff 2011, "Computing Krippendorff's
 * Alpha-Reliability"), the interval from a percentile bootstrap over units.
 *
 * @param units one row a draft
 * @throws MisuseError `rating-not-finite`, or for `ratio` `rating-negative`
 */
export function krippendorffAlpha(units: readonly Unit[], level: MeasureLevel, options: AlphaOptions = {}): Alpha {
  const { confidence = 0.95, resamples = 1_000, seed = 1 } = options;
  const rated = units.map((unit) => unit.filter((value) => value !== null)).filter((unit) => unit.length > 1);
  for (const unit of rated) {
    for (const value of unit) {
      if (!Number.isFinite(value)) throw new MisuseError('rating-not-finite', 'a rating is not a number', { value });
      if (level === 'ratio' && value < 0)
        throw new MisuseError('rating-negative', 'a proportion is 0 or more', { value });
    }
  }
  const ratings = rated.reduce((sum, { length }) => sum + length, 0);
  const alpha = alphaOf(rated, level);
  return {
    ...{ alpha, units: rated.length, ratings },
    interval:
      alpha === null || rated.length < 2 || resamples === 0
        ? null
        : resampled(rated, level, { confidence, resamples, seed }),
  };
}

function resampled(
  rated: ReadonlyArray<readonly number[]>,
  level: MeasureLevel,
  { confidence, resamples, seed }: Required<AlphaOptions>,
): Alpha['interval'] {
  const random = seededRandom(seed);
  const found: number[] = [];
  for (let index = 0; index < resamples; index += 1) {
    const sample = rated.map(() => rated[Math.floor(random() * rated.length)] as readonly number[]);
    const alpha = alphaOf(sample, level);
    if (alpha !== null) found.push(alpha);
  }
  if (found.length === 0) return null;
  found.sort((a, b) => a - b);
  const at = (share: number) => found[Math.min(found.length - 1, Math.floor(share * found.length))] as number;
  return { low: at((1 - confidence) / 2), high: at((1 + confidence) / 2) };
}

function alphaOf(rated: ReadonlyArray<readonly number[]>, level: MeasureLevel): number | null {
  const counts = new Map<number, number>();
  for (const unit of rated) for (const value of unit) counts.set(value, (counts.get(value) ?? 0) + 1);
  const all = [...counts.values()].reduce((sum, count) => sum + count, 0);
  if (all === 0) return null;
  const distance = distanceOf(level, counts);
  let observed = 0;
  for (const unit of rated) {
    let within = 0;
    unit.forEach((value, index) => {
      for (let other = index + 1; other < unit.length; other += 1) within += distance(value, unit[other] as number);
    });
    observed += (2 * within) / (unit.length - 1);
  }
  const expected = level === 'interval' ? squaresOfPairs(counts, all) : sumOfPairs(counts, distance);
  return expected === 0 ? null : 1 - ((all - 1) * observed) / expected;
}

/** Of all pairs, with those of a value with itself, which differ by nothing. */
function sumOfPairs(counts: ReadonlyMap<number, number>, distance: (a: number, b: number) => number): number {
  const values = [...counts];
  let sum = 0;
  values.forEach(([value, count], index) => {
    for (let other = index + 1; other < values.length; other += 1) {
      const [second, many] = values[other] as [number, number];
      sum += 2 * count * many * distance(value, second);
    }
  });
  return sum;
}

/** The same for squared differences, without going through the pairs: scores can all be different ones. */
function squaresOfPairs(counts: ReadonlyMap<number, number>, all: number): number {
  let sum = 0;
  for (const [value, count] of counts) sum += value * count;
  const mean = sum / all;
  let squares = 0;
  for (const [value, count] of counts) squares += count * (value - mean) ** 2;
  return counts.size === 1 ? 0 : 2 * all * squares;
}

/** Squared differences, as the level has them. */
function distanceOf(level: MeasureLevel, counts: ReadonlyMap<number, number>): (a: number, b: number) => number {
  switch (level) {
    case 'nominal':
      return (a, b) => (a === b ? 0 : 1);
    case 'interval':
      return (a, b) => (a - b) ** 2;
    case 'ratio':
      return (a, b) => (a === b ? 0 : ((a - b) / (a + b)) ** 2);
    case 'ordinal': {
      // How many ratings lie between two values, half of those of each of the two with them.
      const sorted = [...counts.keys()].sort((a, b) => a - b);
      const upTo = new Map<number, number>();
      let below = 0;
      for (const value of sorted) {
        const count = counts.get(value) as number;
        upTo.set(value, below + count / 2);
        below += count;
      }
      return (a, b) => ((upTo.get(a) as number) - (upTo.get(b) as number)) ** 2;
    }
  }
}
