import { MisuseError } from '../problem.js';

/** How alike the ratings of one thing are, of a single rater and of the mean of all; null where nothing differs. */
export interface Reliability {
  readonly single: number | null;
  readonly average: number | null;
}

/** The six forms of Shrout and Fleiss (1979). */
export interface IntraclassCorrelation {
  /** ICC(1,1) and ICC(1,k): everything was rated by other raters. */
  readonly oneWay: Reliability;
  /** ICC(2,1) and ICC(2,k): the same raters, who stand for others; that one is more severe counts. */
  readonly twoWayRandom: Reliability;
  /** ICC(3,1) and ICC(3,k): these raters and no others; that one is more severe does not count. */
  readonly twoWayMixed: Reliability;
}

/**
 * Shrout, P. E. and Fleiss, J. L. (1979), Intraclass correlations: uses in assessing rater reliability, Psychological Bulletin 86(2),
 * 420–428.
 *
 * @param rows one for each rated thing, with as many ratings in each: two or more of both
 * @throws MisuseError `rows-uneven`, `rating-not-finite`, or `too-few`
 */
export function intraclassCorrelation(rows: ReadonlyArray<readonly number[]>): IntraclassCorrelation {
  const things = rows.length;
  const raters = rows[0]?.length ?? 0;
  if (things < 2 || raters < 2)
    throw new MisuseError('too-few', 'two things and two raters are needed', { things, raters });
  rows.forEach((row, index) => {
    if (row.length !== raters) throw new MisuseError('rows-uneven', 'every row has as many ratings', { row: index });
    const value = row.find((one) => !Number.isFinite(one));
    if (value !== undefined)
      throw new MisuseError('rating-not-finite', 'a rating is not a number', { row: index, value });
  });
  const mean = (values: readonly number[]) => values.reduce((sum, value) => sum + value, 0) / values.length;
  const all = mean(rows.map(mean));
  const ofThings = raters * rows.reduce((sum, row) => sum + (mean(row) - all) ** 2, 0);
  const columns = rows[0]?.map((_, rater) => mean(rows.map((row) => row[rater] as number))) ?? [];
  const ofRaters = things * columns.reduce((sum, value) => sum + (value - all) ** 2, 0);
  const total = rows.reduce((sum, row) => sum + row.reduce((within, value) => within + (value - all) ** 2, 0), 0);
  const between = ofThings / (things - 1);
  const within = (total - ofThings) / (things * (raters - 1));
  const judges = ofRaters / (raters - 1);
  const rest = Math.max(0, total - ofThings - ofRaters) / ((things - 1) * (raters - 1));
  const share = (part: number, of: number) => (of === 0 ? null : part / of);
  return {
    oneWay: {
      single: share(between - within, between + (raters - 1) * within),
      average: share(between - within, between),
    },
    twoWayRandom: {
      single: share(between - rest, between + (raters - 1) * rest + (raters * (judges - rest)) / things),
      average: share(between - rest, between + (judges - rest) / things),
    },
    twoWayMixed: {
      single: share(between - rest, between + (raters - 1) * rest),
      average: share(between - rest, between),
    },
  };
}

/**
 * How reliable the mean of so many ratings is, from the reliability of one (Spearman 1910, Brown 1910).
 *
 * @param single 0 to 1
 * @param ratings more than 0; need not be whole
 */
export function spearmanBrown(single: number, ratings: number): number {
  return (ratings * single) / (1 + (ratings - 1) * single);
}

/** How many ratings make the mean as reliable as wanted, not rounded; null where one alone says nothing, or all. */
export function ratingsNeeded(single: number, wanted: number): number | null {
  if (!(single > 0 && single < 1 && wanted > 0 && wanted < 1)) return null;
  return (wanted * (1 - single)) / (single * (1 - wanted));
}
