import type { Board } from './board.js';
import type { AllocationProblem } from './problem.js';

/** Of those whose strength is known, 0 to 1; null when nobody's is. */
export function meanStrength({ reviewers }: AllocationProblem): number | null {
  const known = reviewers.flatMap(({ strength }) => (strength === undefined ? [] : [strength]));
  return known.length === 0 ? null : known.reduce((sum, value) => sum + value, 0) / known.length;
}

/** How strong reviewers are, 0 to 1; those unknown count as the mean of the known. */
export class Strengths {
  readonly #values: Float64Array;
  /** Of the fixed reviewers of each draft: their number, and the sum of their strengths. */
  readonly #fixedCount: Int32Array;
  readonly #fixedSum: Float64Array;

  private constructor(values: Float64Array, board: Board) {
    this.#values = values;
    this.#fixedCount = new Int32Array(board.drafts);
    this.#fixedSum = new Float64Array(board.drafts);
    board.fixedGiven.forEach((drafts, reviewer) => {
      for (const draft of drafts) {
        this.#fixedCount[draft] = (this.#fixedCount[draft] as number) + 1;
        this.#fixedSum[draft] = (this.#fixedSum[draft] as number) + this.of(reviewer);
      }
    });
  }

  /** @returns null when nobody's strength is known */
  static of(problem: AllocationProblem, board: Board): Strengths | null {
    const mean = meanStrength(problem);
    if (mean === null) return null;
    const known = new Map(problem.reviewers.map(({ id, strength }) => [id, strength]));
    return new Strengths(
      Float64Array.from(board.reviewerIds, (id) => known.get(id) ?? mean),
      board,
    );
  }

  of(reviewer: number): number {
    return this.#values[reviewer] as number;
  }

  /** Mean over the reviewers of a draft; infinite without any: then there is no set to be weak. */
  mean(board: Board, draft: number): number {
    const received = board.received[draft] as readonly number[];
    const count = received.length + (this.#fixedCount[draft] as number);
    if (count === 0) return Infinity;
    return received.reduce((sum, reviewer) => sum + this.of(reviewer), this.#fixedSum[draft] as number) / count;
  }

  /**
   * No set's weakest mean can be above the mean over all reviews; where not all that is asked is placed, it might be
   * the strongest who review, so those are counted.
   */
  bound(board: Board): number {
    const reviews = board.count.reduce((sum, count) => sum + count, 0);
    const byStrength = board.reviewerIds.map((_, index) => index).sort((a, b) => this.of(b) - this.of(a));
    let left = board.given.reduce((sum, { length }) => sum + length, 0);
    let sum = this.#fixedSum.reduce((all, one) => all + one, 0);
    for (const reviewer of byStrength) {
      const movable = (board.capacity[reviewer] as number) - (board.fixedGiven[reviewer] as readonly number[]).length;
      const counted = Math.min(left, movable);
      sum += counted * this.of(reviewer);
      left -= counted;
    }
    return reviews === 0 ? 0 : sum / reviews;
  }
}

export function weakestSet(board: Board, strengths: Strengths): { draft: number; mean: number } | null {
  let weakest: { draft: number; mean: number } | null = null;
  for (let draft = 0; draft < board.drafts; draft += 1) {
    const mean = strengths.mean(board, draft);
    if (mean < (weakest?.mean ?? Infinity)) weakest = { draft, mean };
  }
  return weakest;
}
