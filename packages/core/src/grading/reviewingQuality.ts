import { QUALITY_COLUMNS, type QualityColumn } from './gradeRule.js';

/** What says how well somebody reviews, each 0 to 1; null where there is nothing to go by. */
export type QualityEvidence = Readonly<Record<QualityColumn, number | null>>;

/** Words of one's own, and places pointed to, from which on a review is as substantial as can be asked. Ours; no standard. */
export const SUBSTANTIAL = { words: 200, notes: 5, directed: 0.5 } as const;

/** What one submitted review says, in figures. */
export interface ReviewSubstance {
  readonly words: number;
  readonly notes: number;
  /** Notes that say what to do: with a proposed edit, or a Change or Fix in some words. */
  readonly directed: number;
}

/**
 * How substantial reviews are, 0 to 1: a third each for words, for notes, and for the share of the notes that says what to do, each up to
 * {@link SUBSTANTIAL}. The mean of the reviews.
 */
export function substanceOf(reviews: readonly ReviewSubstance[]): number | null {
  if (reviews.length === 0) return null;
  const upTo = (value: number, most: number) => Math.min(1, value / most);
  const each = reviews.map(({ words, notes, directed }) => {
    const share = notes === 0 ? 0 : directed / notes;
    return (upTo(words, SUBSTANTIAL.words) + upTo(notes, SUBSTANTIAL.notes) + upTo(share, SUBSTANTIAL.directed)) / 3;
  });
  return each.reduce((sum, value) => sum + value, 0) / each.length;
}

/**
 * How close somebody's scores are to what others gave the same drafts, 0 to 1: one less the mean distance from the mean of the others, so
 * that the own score is no part of what it is held against.
 *
 * @param pairs the own score, and those of the others of the same draft, as shares of the maximum
 */
export function closenessToOthers(
  pairs: ReadonlyArray<{ readonly own: number; readonly others: readonly number[] }>,
): number | null {
  const compared = pairs.filter(({ others }) => others.length > 0);
  if (compared.length === 0) return null;
  const apart = compared.map(({ own, others }) =>
    Math.abs(own - others.reduce((sum, one) => sum + one, 0) / others.length),
  );
  return 1 - apart.reduce((sum, one) => sum + one, 0) / apart.length;
}

/** The columns in proportion to their weights, of those that there is something to go by; null where there is none. */
export function qualityOf(evidence: QualityEvidence, weights: Readonly<Record<QualityColumn, number>>): number | null {
  let sum = 0;
  let all = 0;
  for (const column of QUALITY_COLUMNS) {
    const value = evidence[column];
    if (value === null) continue;
    sum += weights[column] * value;
    all += weights[column];
  }
  return all === 0 ? null : sum / all;
}
