import type { Board, Stretches } from './board.js';
import type { Shortfall } from './problem.js';
import { indexes } from './place.js';
import type { Search } from './search.js';

/** So many sets are told of; further reviewers in the same plight are counted in the quality all the same. */
export const MOST_SETS = 500;
/** From so many reviewers, the most constrained first, sets are looked for before the smallest are chosen. */
const MOST_STARTS = 100;

/**
 * Why some reviewers got fewer than asked, once no more can be placed. From such a reviewer, all reviewers are found who
 * could make room by taking something else, and who cannot either: the reviewers' side of a minimum cut. Together they
 * are stuck: the drafts that any of them may review hold fewer reviews than are asked of them (Hall's condition, in the
 * form for several reviews each; Hall, J. London Math. Soc. 10, 1935). No smaller set lacks as much. Everybody is explained
 * by the smallest of the sets that they are in.
 */
export function stuckSets(board: Board, search: Search): Shortfall[] {
  const short = indexes(board.reviewers)
    .filter((reviewer) => board.spare(reviewer) > 0)
    .sort((a, b) => inReach(board, a) - inReach(board, b) || a - b);
  const explained = new Set<number>();
  const sets: Shortfall[] = [];
  const take = (reviewer: number, reviewers: readonly number[]) => {
    if (explained.has(reviewer) || sets.length === MOST_SETS) return;
    for (const one of reviewers) explained.add(one);
    sets.push(describe(board, reviewers));
  };
  short
    .slice(0, MOST_STARTS)
    .map((reviewer) => ({ reviewer, reviewers: stuckWith(board, search, reviewer) }))
    .sort((a, b) => a.reviewers.length - b.reviewers.length)
    .forEach(({ reviewer, reviewers }) => take(reviewer, reviewers));
  for (const reviewer of short.slice(MOST_STARTS)) {
    if (sets.length === MOST_SETS) break;
    if (!explained.has(reviewer)) take(reviewer, stuckWith(board, search, reviewer));
  }
  return sets;
}

function stuckWith(board: Board, search: Search, reviewer: number): number[] {
  search.run([reviewer], { free: false, handing: false, trading: false }, () => false, true);
  return indexes(board.reviewers).filter((one) => search.reached(one));
}

function inReach(board: Board, reviewer: number): number {
  const inScope = (board.stretches[reviewer] as Stretches).reduce((sum, [from, to]) => sum + to - from, 0);
  return inScope - (board.banned[reviewer] as readonly number[]).length;
}

function describe(board: Board, reviewers: readonly number[]): Shortfall {
  const drafts = new Set<number>();
  for (const reviewer of reviewers) {
    for (const draft of board.fixedGiven[reviewer] as readonly number[]) drafts.add(draft);
    for (const [from, to] of board.stretches[reviewer] as Stretches) {
      for (let draft = from; draft < to; draft += 1) if (board.permits(reviewer, draft)) drafts.add(draft);
    }
  }
  const sum = (of: (reviewer: number) => number) => reviewers.reduce((total, one) => total + of(one), 0);
  return {
    reviewerIds: reviewers.map((reviewer) => board.reviewerIds[reviewer] as string),
    draftIds: [...drafts].sort((a, b) => a - b).map((draft) => board.draftIds[draft] as string),
    asked: sum((reviewer) => board.capacity[reviewer] as number),
    possible: sum((reviewer) => board.count[reviewer] as number),
  };
}
