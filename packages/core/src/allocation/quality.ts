import { Board } from './board.js';
import { Meetings } from './meetings.js';
import { pairKey } from './pairKey.js';
import type { AllocationProblem, Pair } from './problem.js';
import { assertAllocationProblem } from './problem.js';
import { Strengths, weakestSet } from './strengths.js';

/** What an allocation is like, whoever made it. */
export interface Measures {
  /** Reviews given, asked for in all, and given beyond what was asked of somebody. */
  readonly reviews: number;
  readonly asked: number;
  readonly beyond: number;
  /** Fewest and most reviews of an open draft (0 and 0 without), and the sum of squares. */
  readonly fewest: number;
  readonly most: number;
  readonly squares: number;
  /** Meetings of before that come again, counted by how often they have been. */
  readonly repeats: number;
  /** Pairs among them, each once. */
  readonly repeatedPairs: number;
  readonly mutualPairs: number;
  /** Mean strength of the weakest set of reviewers; null without strengths. */
  readonly weakest: number | null;
}

export function measuresOf(board: Board, problem: AllocationProblem, strengths: Strengths | null): Measures {
  const loads = Array.from(board.load).filter((_, draft) => board.closed[draft] !== true);
  const asked = new Map(problem.reviewers.map(({ id, capacity }) => [id, capacity]));
  const given = new Set(board.pairs().map(pairKey));
  return {
    reviews: board.count.reduce((sum, count) => sum + count, 0),
    asked: problem.reviewers.reduce((sum, { capacity }) => sum + capacity, 0),
    beyond: board.reviewerIds.reduce(
      (sum, id, reviewer) => sum + Math.max(0, (board.count[reviewer] as number) - (asked.get(id) as number)),
      0,
    ),
    fewest: loads.reduce((least, load) => Math.min(least, load), loads[0] ?? 0),
    most: loads.reduce((most, load) => Math.max(most, load), 0),
    squares: loads.reduce((sum, load) => sum + load * load, 0),
    repeats: problem.earlier.reduce((sum, pair) => sum + (given.has(pairKey(pair)) ? pair.times : 0), 0),
    repeatedPairs: problem.earlier.filter((pair) => pair.times > 0 && given.has(pairKey(pair))).length,
    mutualPairs: new Meetings(board).count,
    weakest: strengths === null ? null : (weakestSet(board, strengths)?.mean ?? null),
  };
}

/**
 * Measures any allocation, such as one made by hand, at once: nothing is searched for.
 *
 * @param pairs all of them; what is fixed in the problem plays no part
 * @throws MisuseError as `allocate` does
 */
export function measure(problem: AllocationProblem, pairs: readonly Pair[]): Measures {
  const given = { ...problem, fixed: pairs, forbidden: [] };
  assertAllocationProblem(given);
  const board = new Board(given, []);
  return measuresOf(board, given, Strengths.of(given, board));
}
