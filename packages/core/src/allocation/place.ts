import type { Board } from './board.js';
import type { Pair } from './problem.js';
import type { Random } from '../random/random.js';
import type { Search, Way } from './search.js';

const PLACING: Way = { free: false, handing: false, trading: false };
const BALANCING: Way = { free: false, handing: true, trading: false };

/** Puts those pairs on the board that rules and numbers still allow. @returns these, in the order given */
export function keep(board: Board, pairs: readonly Pair[]): Pair[] {
  const reviewerAt = new Map(board.reviewerIds.map((id, index) => [id, index]));
  const draftAt = new Map(board.draftIds.map((id, index) => [id, index]));
  return pairs.filter(({ reviewerId, draftId }) => {
    const reviewer = reviewerAt.get(reviewerId) as number;
    const draft = draftAt.get(draftId) as number;
    const hasRoom = (board.load[draft] as number) < (board.room[draft] as number);
    if (!hasRoom || board.spare(reviewer) <= 0 || !board.open(reviewer, draft)) return false;
    board.add(reviewer, draft);
    return true;
  });
}

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
export function balance(board: Board, search: Search, random: Random): void {
  const open = indexes(board.drafts).filter((draft) => board.closed[draft] !== true);
  handDown(board, open, random);
  for (let improved = true; improved;) {
    improved = false;
    const levels = [...new Set(open.map((draft) => board.load[draft] as number))].sort((a, b) => b - a);
    const fewest = levels.at(-1) ?? 0;
    for (const level of levels.filter((load) => load >= fewest + 2)) {
      while (lower(board, search, open, level)) improved = true;
    }
  }
}

/** Drafts tried at random before a reviewer's draft is left where it is. */
const TRIES = 16;

/**
 * The plain cases, which are nearly all: a reviewer of a draft with many takes one with at least two fewer in its stead. A
 * search finds few ways that share nothing where thousands of drafts have too many, and would have to be run for each.
 */
function handDown(board: Board, open: readonly number[], random: Random): void {
  const load = (draft: number) => board.load[draft] as number;
  const heavy = [...open].sort((a, b) => load(b) - load(a));
  const light = [...heavy].reverse();
  for (let moved = true; moved;) {
    moved = false;
    const fewest = light.reduce((least, draft) => Math.min(least, load(draft)), Infinity);
    const lightest = light.filter((draft) => load(draft) === fewest && fewest < (board.room[draft] as number));
    if (lightest.length === 0) return;
    for (const draft of heavy) {
      if (load(draft) < fewest + 2) continue;
      for (const reviewer of [...(board.received[draft] as readonly number[])]) {
        const other = anyOpen(board, reviewer, lightest, fewest, random);
        if (other === null || load(draft) < fewest + 2) continue;
        board.remove(reviewer, draft);
        board.add(reviewer, other);
        moved = true;
      }
    }
  }
}

/** One of these drafts that this reviewer may take and that still has so few; null where some tries find none. */
function anyOpen(board: Board, reviewer: number, among: readonly number[], load: number, random: Random) {
  for (let tried = 0; tried < TRIES; tried += 1) {
    const draft = among[Math.floor(random() * among.length)] as number;
    if (board.load[draft] === load && board.open(reviewer, draft)) return draft;
  }
  return null;
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
