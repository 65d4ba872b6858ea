import { seededRandom, shuffled, type Random } from './random.js';
import {
  assertAllocationProblem,
  type Allocation,
  type AllocationProblem,
  type AllocationQuality,
  type Pair,
  type Shortfall,
} from './problem.js';

/** Works on indexes: `reviewers[r]` may not review any of the drafts in `own[r]`. */
interface Board {
  readonly own: ReadonlyArray<ReadonlySet<number>>;
  /** Drafts of each reviewer. */
  readonly given: ReadonlyArray<Set<number>>;
  /** Reviewers of each draft. */
  readonly received: ReadonlyArray<Set<number>>;
}

/**
 * Allocates drafts to reviewers: everyone gets as many drafts as asked while there are any they may
 * review, never their own, and the numbers of reviews per draft are as even as possible
 * (least sum of squares, so floor or ceiling of the mean whenever that can be done).
 *
 * Method: reviewers in a seeded random order take the least-reviewed drafts they may take, avoiding
 * mutual pairs where the balance allows; then reviews move along alternating paths from over- to
 * under-reviewed drafts until no path is left. No improving path is the optimality condition of this
 * convex-cost flow (Ahuja, Magnanti and Orlin, Network Flows, 1993, chapter 14), so the balance is exact.
 *
 * No drafts, or no reviewers: an empty allocation, with a shortfall for each who was asked.
 *
 * @throws MisuseError for duplicate ids or an impossible capacity
 */
export function allocate(problem: AllocationProblem): Allocation {
  assertAllocationProblem(problem);
  const random = seededRandom(problem.seed);
  const board = emptyBoard(problem);
  const authors = authorsOf(problem);
  deal(problem, board, authors, random);
  while (improve(board));
  return result(problem, board, authors);
}

function emptyBoard({ reviewers, drafts }: AllocationProblem): Board {
  const draftsOf = new Map<string, number[]>();
  drafts.forEach((draft, index) => {
    for (const author of draft.authorIds) draftsOf.set(author, [...(draftsOf.get(author) ?? []), index]);
  });
  return {
    own: reviewers.map(({ id }) => new Set(draftsOf.get(id) ?? [])),
    given: reviewers.map(() => new Set<number>()),
    received: drafts.map(() => new Set<number>()),
  };
}

/** For each draft, the indexes of its authors among the reviewers. */
function authorsOf({ reviewers, drafts }: AllocationProblem): number[][] {
  const indexOf = new Map(reviewers.map(({ id }, index) => [id, index]));
  return drafts.map(({ authorIds }) =>
    authorIds.map((id) => indexOf.get(id)).filter((index): index is number => index !== undefined),
  );
}

function deal(problem: AllocationProblem, board: Board, authors: number[][], random: Random): void {
  const everyone = problem.reviewers.map((_, index) => index);
  const rounds = problem.reviewers.reduce((most, { capacity }) => Math.max(most, capacity), 0);
  /** Drafts by the number of reviews they have got so far. */
  let byLoad: number[][] = [problem.drafts.map((_, index) => index)];
  // In rounds of one draft each, so that the last in the order do not only get what is left. Shuffled anew each
  // time: in the same order, the same two reviewers would meet at draft after draft.
  for (let round = 0; round < rounds; round += 1) {
    byLoad = byLoad.map((drafts) => shuffled(drafts, random));
    for (const reviewer of shuffled(everyone, random)) {
      if (round >= (problem.reviewers[reviewer]?.capacity ?? 0)) continue;
      const pick = takeLeastReviewed(byLoad, board, authors, reviewer);
      if (pick === null) continue;
      board.given[reviewer]?.add(pick);
      board.received[pick]?.add(reviewer);
    }
  }
}

/** Takes one of the least-reviewed drafts that the reviewer may take, if possible of nobody who reviews the reviewer. */
function takeLeastReviewed(byLoad: number[][], board: Board, authors: number[][], reviewer: number): number | null {
  for (const [load, drafts] of byLoad.entries()) {
    let place = -1;
    for (let at = drafts.length - 1; at >= 0; at -= 1) {
      const draft = drafts[at] as number;
      if (board.own[reviewer]?.has(draft) || board.given[reviewer]?.has(draft)) continue;
      place = at;
      if (!isMutual(board, authors, reviewer, draft)) break;
    }
    if (place === -1) continue;
    const draft = drafts[place] as number;
    drafts[place] = drafts.at(-1) as number;
    drafts.pop();
    (byLoad[load + 1] ??= []).push(draft);
    return draft;
  }
  return null;
}

/** Whether an author of `draft` already reviews a draft of `reviewer`. */
function isMutual(board: Board, authors: number[][], reviewer: number, draft: number): boolean {
  const own = board.own[reviewer] as ReadonlySet<number>;
  return (authors[draft] as number[]).some((author) => {
    for (const mine of own) if (board.given[author]?.has(mine)) return true;
    return false;
  });
}

/**
 * Moves one review from a draft to one with at least two fewer, along the shortest alternating path.
 * @returns false when there is no such path, that is, when the balance is best possible
 */
function improve(board: Board): boolean {
  const load = board.received.map((reviewers) => reviewers.size);
  const fewest = Math.min(...load, Infinity);
  const starts = load.map((_, draft) => draft).filter((draft) => (load[draft] as number) >= fewest + 2);
  for (const start of starts.sort((a, b) => (load[b] as number) - (load[a] as number))) {
    const path = pathToLighter(board, load, start);
    if (path === null) continue;
    for (const { reviewer, from, to } of path) {
      board.given[reviewer]?.delete(from);
      board.given[reviewer]?.add(to);
      board.received[from]?.delete(reviewer);
      board.received[to]?.add(reviewer);
    }
    return true;
  }
  return false;
}

interface Move {
  readonly reviewer: number;
  readonly from: number;
  readonly to: number;
}

function pathToLighter(board: Board, load: number[], start: number): Move[] | null {
  const reachedBy = new Map<number, Move | null>([[start, null]]);
  const queue = [start];
  for (let head = 0; head < queue.length; head += 1) {
    const from = queue[head] as number;
    if ((load[from] as number) <= (load[start] as number) - 2) return trace(reachedBy, from);
    for (const reviewer of board.received[from] as Set<number>) {
      for (let to = 0; to < load.length; to += 1) {
        if (reachedBy.has(to) || board.own[reviewer]?.has(to) || board.given[reviewer]?.has(to)) continue;
        reachedBy.set(to, { reviewer, from, to });
        queue.push(to);
      }
    }
  }
  return null;
}

function trace(reachedBy: Map<number, Move | null>, end: number): Move[] {
  const path: Move[] = [];
  for (let move = reachedBy.get(end); move; move = reachedBy.get(move.from)) path.unshift(move);
  return path;
}

function result(problem: AllocationProblem, board: Board, authors: number[][]): Allocation {
  const { reviewers, drafts } = problem;
  const pairs: Pair[] = [];
  const shortfalls: Shortfall[] = [];
  reviewers.forEach(({ id, capacity }, reviewer) => {
    const given = [...(board.given[reviewer] as Set<number>)];
    for (const draft of given) pairs.push({ reviewerId: id, draftId: drafts[draft]?.id as string });
    if (given.length < capacity) {
      const eligible = drafts.length - (board.own[reviewer]?.size ?? 0);
      shortfalls.push({ reviewerId: id, asked: capacity, placed: given.length, eligible });
    }
  });
  return { pairs, quality: quality(problem, board, authors, pairs.length), shortfalls };
}

function quality(problem: AllocationProblem, board: Board, authors: number[][], placed: number): AllocationQuality {
  const loads = board.received.map((reviewers) => reviewers.size);
  const mutual = new Set<string>();
  board.given.forEach((given, reviewer) => {
    for (const draft of given) {
      for (const author of authors[draft] as number[]) {
        const back = [...(board.own[reviewer] as ReadonlySet<number>)].some((own) => board.given[author]?.has(own));
        if (back) mutual.add(reviewer < author ? `${reviewer} ${author}` : `${author} ${reviewer}`);
      }
    }
  });
  return {
    asked: problem.reviewers.reduce((sum, { capacity }) => sum + capacity, 0),
    placed,
    fewestPerDraft: loads.length === 0 ? 0 : Math.min(...loads),
    mostPerDraft: loads.length === 0 ? 0 : Math.max(...loads),
    mutualPairs: mutual.size,
  };
}
