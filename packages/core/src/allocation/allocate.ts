import { Board, compare } from './board.js';
import { cheapen } from './cheapen.js';
import { deal } from './deal.js';
import { Meetings } from './meetings.js';
import { balance, keep, placeAll } from './place.js';
import {
  assertAllocationProblem,
  type Allocation,
  type AllocationProblem,
  type AllocationProgress,
  type AllocationQuality,
  type Watch,
} from './problem.js';
import { measure, measuresOf, type Measures } from './quality.js';
import { seededRandom } from '../random/random.js';
import { mix, untangle } from './refine.js';
import { Search } from './search.js';
import { separate, type Start } from './separate.js';
import { meanStrength, Strengths } from './strengths.js';
import { MOST_SETS, stuckSets } from './stuck.js';
import { TightWays } from './tightWays.js';

/**
 * Allocates drafts to reviewers. Best first, each only after the one before: (1) most reviews placed within capacity;
 * (2) the most even number of reviews per draft (least sum of squares, so floor or ceiling of the mean whenever that is
 * possible); (3) fewest repeats of earlier pairs, by times; (4) fewest mutual pairs; (5) the weakest set of reviewers of
 * any draft as strong as can be. (1) to (3) are exact; (4) and (5) are found by a bounded search, and their bounds told.
 *
 * Nobody gets the own draft, nor a draft that their group handed in as one, unless that is fixed. The same problem with
 * the same seed gives the same allocation, in whatever order it is written down.
 *
 * How it works stands in docs/allocation.md. No drafts, or no reviewers: nothing is placed, and the shortfalls say so.
 *
 * @param watch is told of progress, some hundred times at most for each step
 * @throws MisuseError for a problem that contradicts itself: see `assertAllocationProblem`
 */
export function allocate(problem: AllocationProblem, watch: Watch = () => {}): Allocation {
  assertAllocationProblem(problem);
  const costs = problem.earlier.map(({ reviewerId, draftId, times }) => ({ reviewerId, draftId, cost: times }));
  return solveAll({ problem, costs, kept: [] }, watch);
}

/** Part by part, where there are several: what many small ones take grows with their number, not with its square. */
export function solveAll(start: Start, watch: Watch): Allocation {
  const known = withStrengths(start);
  const parts = separate(known);
  if (parts.length <= 1) return solvePart(start, watch);
  const asked = ({ problem }: Start) => problem.reviewers.reduce((sum, { capacity }) => sum + capacity, 0);
  const all = Math.max(1, asked(known));
  const solved: Allocation[] = [];
  const tellEvery = Math.ceil(parts.length / MOST_TOLD);
  for (const part of parts) {
    solved.push(solvePart(part, () => {}, asked(part) / all));
    if (solved.length % tellEvery === 0) watch({ step: 'repeats', share: solved.length / parts.length });
  }
  return together(start.problem, solved);
}

const MOST_TOLD = 100;

/** @param share of the whole problem, 0 to 1 */
function solvePart({ problem, costs, kept }: Start, watch: Watch, share = 1): Allocation {
  const board = new Board(problem, costs);
  keep(board, kept);
  return solve(problem, board, watch, share);
}

/** Those unknown count as the mean of all the known, not of those in their part. */
function withStrengths({ problem, ...rest }: Start): Start {
  const mean = meanStrength(problem);
  if (mean === null) return { problem, ...rest };
  const reviewers = problem.reviewers.map((one) => ({ ...one, strength: one.strength ?? mean }));
  return { problem: { ...problem, reviewers }, ...rest };
}

function together(problem: AllocationProblem, parts: readonly Allocation[]): Allocation {
  const pairs = parts
    .flatMap((part) => part.pairs)
    .sort((a, b) => compare(a.reviewerId, b.reviewerId) || compare(a.draftId, b.draftId));
  const bound = parts.reduce((sum, { quality }) => sum + quality.mutual.bound, 0);
  const mixes = parts.flatMap(({ quality }) => (quality.mix === null ? [] : [quality.mix.bound]));
  const found = measure(problem, pairs);
  return {
    pairs,
    quality: qualityFrom(found, bound, mixes.length === 0 ? null : Math.min(...mixes)),
    shortfalls: parts.flatMap(({ shortfalls }) => shortfalls).slice(0, MOST_SETS),
  };
}

/** From what is on the board already, which may be nothing, to the best there is. */
function solve(problem: AllocationProblem, board: Board, watch: Watch, share: number): Allocation {
  const random = seededRandom(problem.seed);
  const search = new Search(board);
  const meetings = new Meetings(board);
  const strengths = Strengths.of(problem, board);
  const tell = (step: AllocationProgress['step']) => (share: number) => watch({ step, share });
  deal(board, meetings, random, tell('deal'));
  watch({ step: 'place', share: 0 });
  placeAll(board, search);
  watch({ step: 'balance', share: 0 });
  balance(board, search, random);
  watch({ step: 'repeats', share: 0 });
  const potentials = cheapen(board, search, tell('repeats'));
  watch({ step: 'mutual', share: 0 });
  const settled = new Meetings(board);
  const bound = untangle(
    { board, meetings: settled, random, tell: tell('mutual'), share },
    new TightWays(board, potentials),
  );
  if (strengths !== null) {
    watch({ step: 'mix', share: 0 });
    mix({ board, meetings: settled, random, tell: tell('mix'), share }, strengths);
  }
  const found = measuresOf(board, problem, strengths);
  const quality = qualityFrom(found, bound, strengths?.bound(board) ?? null);
  return { pairs: board.pairs(), quality, shortfalls: stuckSets(board, search) };
}

function qualityFrom(found: Measures, mutualBound: number, mixBound: number | null): AllocationQuality {
  // Where the searches for these three end, there is nothing better: that is what ended them.
  return {
    placed: { asked: found.asked, reached: found.reviews, best: found.reviews, beyond: found.beyond },
    balance: { fewest: found.fewest, most: found.most, squares: found.squares, best: found.squares },
    repeats: { reached: found.repeats, best: found.repeats, pairs: found.repeatedPairs },
    mutual: { reached: found.mutualPairs, bound: mutualBound },
    mix: mixBound === null || found.weakest === null ? null : { weakest: found.weakest, bound: mixBound },
  };
}
