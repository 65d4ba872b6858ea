import type { Board } from './board.js';
import type { Search, Way } from './search.js';

const PLACING: Way = { free: false, handing: false, trading: false };
const BALANCING: Way = { free: false, handing: true, trading: false };

/**
 * Places as many reviews as can be: while a way leads from a reviewer with too few to a draft with room, it is gone. No
 * such way is the condition for a maximum flow (Ford and Fulkerson, Canadian J. Math. 8, 1956), so the number is exact.
 */
export function placeAll(board: Board, search: Search): void {
  for (;;) {
    const starts = indexes(board.reviewers).filter((reviewer) => board.spare(reviewer) > 0);
    if (starts.length === 0) return;
    const hasRoom = (draft: number) => (board.load[draft] as number) < (board.room[draft] as number);
    const targets = search.run(starts, PLACING, hasRoom, true);
    if (search.goApart(targets) === 0) return;
  }
}

/**
 * Evens out the numbers of reviews per draft: while a way leads from a draft to one with at least two fewer, it is gone,
 * which lowers the sum of squares and leaves the number of reviews. No such way is the condition for the least
 * separable convex cost of a flow (Ahuja, Magnanti and Orlin, Network Flows, 1993, chapter 14), so the balance is exact.
 */
export function balance(board: Board, search: Search): void {
  const open = indexes(board.drafts).filter((draft) => board.closed[draft] !== true);
  for (let improved = true; improved;) {
    improved = false;
    const levels = [...new Set(open.map((draft) => board.load[draft] as number))].sort((a, b) => b - a);
    const fewest = levels.at(-1) ?? 0;
    for (const level of levels.filter((load) => load >= fewest + 2)) {
      while (lower(board, search, open, level)) improved = true;
    }
  }
}

function lower(board: Board, search: Search, open: readonly number[], level: number): boolean {
  const heavy = open.filter(
    (draft) => board.load[draft] === level && (board.received[draft] as readonly number[]).length > 0,
  );
  const isLight = (draft: number) => {
    const load = board.load[draft] as number;
    return load <= level - 2 && load < (board.room[draft] as number);
  };
  const targets = search.run(
    heavy.map((draft) => search.draftNode(draft)),
    BALANCING,
    isLight,
    true,
  );
  return search.goApart(targets) > 0;
}

export function indexes(count: number): number[] {
  return Array.from({ length: count }, (_, index) => index);
}
