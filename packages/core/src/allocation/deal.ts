import type { Board, Stretches } from './board.js';
import type { Meetings } from './meetings.js';
import { shuffled, type Random } from '../random/random.js';

/** How many of the least-reviewed drafts are tried at random before looking through all of them. */
const TRIES = 24;
/** Up to this many drafts in reach, all are looked at. */
const FEW = 64;

/**
 * A first allocation, quick and nearly as good as it gets: in rounds of one draft each, so that the last do not only get
 * what is left, everybody takes one of the least-reviewed drafts, if possible one that costs nothing and is of nobody who
 * reviews them. Shuffled anew each round: in the same order, the same reviewers would meet at draft after draft.
 */
export function deal(board: Board, meetings: Meetings, random: Random, tell: (share: number) => void): void {
  const piles = new Piles(board);
  const everyone = board.reviewerIds.map((_, index) => index);
  const rounds = board.capacity.reduce((most, capacity) => Math.max(most, capacity), 0);
  for (let round = 0; round < rounds; round += 1) {
    tell(round / rounds);
    let placed = 0;
    for (const reviewer of shuffled(everyone, random)) {
      if (board.spare(reviewer) <= 0) continue;
      const draft = choose(board, meetings, piles, reviewer, random);
      if (draft === null) continue;
      meetings.change([[reviewer, draft]], () => board.add(reviewer, draft));
      piles.lift(draft);
      placed += 1;
    }
    if (placed === 0) return;
  }
}

function choose(board: Board, meetings: Meetings, piles: Piles, reviewer: number, random: Random): number | null {
  const stretches = board.stretches[reviewer] as Stretches;
  const inReach = stretches.reduce((sum, [from, to]) => sum + to - from, 0);
  const worth = (draft: number) =>
    2 * Math.max(-1, Math.min(1, board.cost(reviewer, draft))) + (meetings.isMutual(reviewer, draft) ? 1 : 0);
  if (inReach <= FEW) return leastOf(board, reviewer, stretches, worth, random);
  for (const pile of piles.fromLowest(reviewer)) {
    let best: number | null = null;
    let least = Infinity;
    const look = (draft: number): boolean => {
      if (!board.open(reviewer, draft)) return false;
      const value = worth(draft);
      if (value < least) {
        least = value;
        best = draft;
      }
      return value <= 0;
    };
    for (let tried = 0; tried < TRIES; tried += 1) {
      const draft = pile[Math.floor(random() * pile.length)] as number;
      if (look(draft)) return draft;
    }
    if (best !== null) return best;
    for (const draft of pile) if (look(draft)) return draft;
    if (best !== null) return best;
  }
  return null;
}

function leastOf(
  board: Board,
  reviewer: number,
  stretches: Stretches,
  worth: (draft: number) => number,
  random: Random,
): number | null {
  let best: number | null = null;
  let least: readonly [number, number, number] = [Infinity, Infinity, Infinity];
  for (const [from, to] of stretches) {
    for (let draft = from; draft < to; draft += 1) {
      const load = board.load[draft] as number;
      if (load >= (board.room[draft] as number) || !board.open(reviewer, draft)) continue;
      const value = [load, worth(draft), random()] as const;
      const better =
        value[0] < least[0] ||
        (value[0] === least[0] && (value[1] < least[1] || (value[1] === least[1] && value[2] < least[2])));
      if (better) {
        least = value;
        best = draft;
      }
    }
  }
  return best;
}

/** Drafts that have room, in piles by their number of reviews. */
class Piles {
  readonly #piles: number[][] = [];
  readonly #place: Int32Array;
  readonly #scopes: Scopes;
  /** Of each pile, how many of each section it holds. */
  readonly #sections: Int32Array[] = [];

  constructor(private readonly board: Board) {
    this.#place = new Int32Array(board.drafts);
    this.#scopes = new Scopes(board);
    for (let draft = 0; draft < board.drafts; draft += 1) this.#put(draft);
  }

  /** Without those that hold nothing in the scope of this reviewer: somebody of the largest group need not look through them. */
  *fromLowest(reviewer: number): Generator<readonly number[]> {
    const out = this.#scopes.outside(reviewer);
    for (const [load, pile] of this.#piles.entries()) {
      const useless = out === null ? 0 : (this.#sections[load]?.[out] ?? 0);
      if (pile.length > useless) yield pile;
    }
  }

  /** After a draft has got one review more. */
  lift(draft: number): void {
    const pile = this.#piles[(this.board.load[draft] as number) - 1] as number[];
    const at = this.#place[draft] as number;
    const last = pile.at(-1) as number;
    pile[at] = last;
    this.#place[last] = at;
    pile.pop();
    this.#count((this.board.load[draft] as number) - 1, draft, -1);
    this.#put(draft);
  }

  #put(draft: number): void {
    const load = this.board.load[draft] as number;
    if (load >= (this.board.room[draft] as number)) return;
    while (this.#piles.length <= load) this.#piles.push([]);
    const pile = this.#piles[load] as number[];
    this.#place[draft] = pile.length;
    pile.push(draft);
    this.#count(load, draft, 1);
  }

  #count(load: number, draft: number, by: 1 | -1): void {
    const counts = (this.#sections[load] ??= new Int32Array(this.#scopes.sections));
    const section = this.#scopes.sectionOf(draft);
    counts[section] = (counts[section] as number) + by;
  }
}

/** Stretches of drafts between which scopes differ: groups, as a rule. */
class Scopes {
  readonly #section: Int32Array;
  readonly sections: number;

  constructor(private readonly board: Board) {
    const cuts = new Set(board.stretches.flatMap((stretches) => stretches.flat()));
    this.#section = new Int32Array(board.drafts);
    let section = 0;
    for (let draft = 0; draft < board.drafts; draft += 1) {
      if (draft > 0 && cuts.has(draft)) section += 1;
      this.#section[draft] = section;
    }
    this.sections = section + 1;
  }

  sectionOf(draft: number): number {
    return this.#section[draft] as number;
  }

  /** The one section between two stretches that somebody may not review; null where the scope is not of that kind. */
  outside(reviewer: number): number | null {
    const [before, after, ...more] = this.board.stretches[reviewer] as Stretches;
    if (before === undefined || after === undefined || more.length > 0 || before[1] >= after[0]) return null;
    return this.sectionOf(before[1]);
  }
}
