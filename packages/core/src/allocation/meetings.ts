import type { Board } from './board.js';

/**
 * Who reviews each other. Two people are a mutual pair when each reviews a draft of the other; with several drafts or
 * authors they still are one pair.
 */
export class Meetings {
  readonly #mutual = new Set<number>();

  constructor(private readonly board: Board) {
    for (let reviewer = 0; reviewer < board.reviewers; reviewer += 1) {
      if ((board.ownDrafts[reviewer] as readonly number[]).length === 0) continue;
      for (const list of [board.given, board.fixedGiven]) {
        for (const draft of list[reviewer] as readonly number[]) this.#look(reviewer, draft);
      }
    }
  }

  get count(): number {
    return this.#mutual.size;
  }

  /** The first and second person of one of the mutual pairs, by a number from 0 to `count`. */
  at(place: number): readonly [number, number] {
    let left = place;
    for (const key of this.#mutual) {
      if (left === 0) return [Math.floor(key / this.board.reviewers), key % this.board.reviewers];
      left -= 1;
    }
    throw new RangeError('there are fewer mutual pairs');
  }

  /** Whether giving it would make, or it makes, a mutual pair with an author of the draft. */
  isMutual(reviewer: number, draft: number): boolean {
    return (this.board.authors[draft] as readonly number[]).some((author) => this.#reviews(author, reviewer));
  }

  /** Makes moves, and looks anew at the pairs they touch. @returns how many mutual pairs more there are */
  change(touched: ReadonlyArray<readonly [reviewer: number, draft: number]>, moves: () => void): number {
    const before = this.#mutual.size;
    moves();
    for (const [reviewer, draft] of touched) this.#look(reviewer, draft);
    return this.#mutual.size - before;
  }

  #look(reviewer: number, draft: number): void {
    for (const author of this.board.authors[draft] as readonly number[]) {
      // Who reviews the own draft, because that was fixed, meets nobody.
      if (author === reviewer) continue;
      const key = Math.min(reviewer, author) * this.board.reviewers + Math.max(reviewer, author);
      if (this.#reviews(reviewer, author) && this.#reviews(author, reviewer)) this.#mutual.add(key);
      else this.#mutual.delete(key);
    }
  }

  #reviews(reviewer: number, author: number): boolean {
    for (const draft of this.board.ownDrafts[author] as readonly number[]) {
      if (this.board.has(reviewer, draft)) return true;
    }
    return false;
  }
}

/** Possible pairs up to which the bound is worked out by matching: about a hundred people among themselves. */
const PAIRS_LOOKED_AT = 10_000;

/**
 * No allocation as good in what counts more has fewer mutual pairs than this. People that review each other without
 * being a mutual pair use up one pair of people for each review; the most reviews that can be seated like that, one to a
 * pair, is a maximum matching (by augmenting ways; Kuhn, Naval Research Logistics Quarterly 2, 1955), and every further
 * review makes one mutual pair more. How even the reviews are is left out of account, so the bound may be too low.
 *
 * Only where every draft has one author and everybody one draft, otherwise 0; and where there are too many possible pairs
 * for that, simply by the number of pairs of people that the scope leaves.
 */
export function mutualBound(board: Board, placed: number): number {
  const simple =
    board.authors.every(({ length }) => length === 1) && board.ownDrafts.every(({ length }) => length === 1);
  if (!simple) return 0;
  const people = board.reviewers;
  const owner = (draft: number) => (board.authors[draft] as readonly number[])[0] as number;
  const inScope = board.stretches.reduce((sum, list) => sum + list.reduce((all, [from, to]) => all + to - from, 0), 0);
  if (inScope > PAIRS_LOOKED_AT) return Math.max(0, placed - pairsInScope(board, inScope));
  const partners = board.stretches.map((stretches, reviewer) => [
    ...(board.fixedGiven[reviewer] as readonly number[]).map(owner),
    ...stretches.flatMap(([from, to]) =>
      Array.from({ length: to - from }, (_, at) => from + at)
        .filter((draft) => board.permits(reviewer, draft))
        .map(owner),
    ),
  ]);
  const seated = new Map<number, number>();
  const key = (a: number, b: number) => Math.min(a, b) * people + Math.max(a, b);
  const seat = (reviewer: number, tried: Set<number>): boolean => {
    for (const partner of partners[reviewer] as number[]) {
      const pair = key(reviewer, partner);
      if (tried.has(pair)) continue;
      tried.add(pair);
      const other = seated.get(pair);
      if (other === reviewer) continue;
      if (other !== undefined && !seat(other, tried)) continue;
      seated.set(pair, reviewer);
      return true;
    }
    return false;
  };
  let without = 0;
  board.capacity.forEach((capacity, reviewer) => {
    for (let review = 0; review < capacity && seat(reviewer, new Set()); review += 1) without += 1;
  });
  return Math.max(0, placed - without);
}

/** No fewer than the pairs of people of whom one may review the other: if one may by the scope, so may the other. */
function pairsInScope(board: Board, inScope: number): number {
  let own = 0;
  let fixedOutside = 0;
  board.stretches.forEach((stretches, reviewer) => {
    const inside = (draft: number) => stretches.some(([from, to]) => draft >= from && draft < to);
    own += (board.ownDrafts[reviewer] as readonly number[]).filter(inside).length;
    fixedOutside += (board.fixedGiven[reviewer] as readonly number[]).filter((draft) => !inside(draft)).length;
  });
  return Math.ceil((inScope - own) / 2) + fixedOutside;
}
