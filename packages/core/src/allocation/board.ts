import type { AllocationProblem, Pair } from './problem.js';

/** Drafts that a reviewer may review but for those ruled out one by one, as stretches `[from, to)` of indexes. */
export type Stretches = ReadonlyArray<readonly [from: number, to: number]>;

/**
 * A problem in indexes, with an allocation on it that is being improved. Reviewers are in the order of their ids, drafts
 * by group and then id, so that the order of the input plays no part, and what a group rules out is one stretch.
 *
 * Which pairs are possible is a dense relation (nearly everybody may review nearly everything), so it is never written
 * out: only what deviates from it is kept, in rows of sorted indexes.
 */
export class Board {
  readonly reviewerIds: readonly string[];
  readonly draftIds: readonly string[];
  /** Reviews asked, or more where more are fixed. */
  readonly capacity: Int32Array;
  /** How many reviews a draft may get. */
  readonly room: Int32Array;
  readonly stretches: readonly Stretches[];
  /** By reviewer: drafts ruled out, and those fixed, which cannot be given twice. Sorted. */
  readonly banned: ReadonlyArray<readonly number[]>;
  /** By reviewer: drafts that cost something to give, sorted, and what. May be negative: a reward for keeping. */
  readonly costly: ReadonlyArray<readonly number[]>;
  readonly costs: ReadonlyArray<readonly number[]>;
  /** Own drafts of each reviewer, and the reviewers among the authors of each draft. */
  readonly ownDrafts: ReadonlyArray<readonly number[]>;
  readonly authors: ReadonlyArray<readonly number[]>;
  readonly fixedGiven: ReadonlyArray<readonly number[]>;
  /** Of closed drafts, whose balance does not matter. */
  readonly closed: ReadonlyArray<boolean>;

  /** What can be moved: drafts by reviewer, reviewers by draft. */
  readonly given: number[][];
  readonly received: number[][];
  /** Reviews of each draft and of each reviewer, fixed ones included. */
  readonly load: Int32Array;
  readonly count: Int32Array;

  constructor(problem: AllocationProblem, costs: ReadonlyArray<Pair & { readonly cost: number }>) {
    const reviewers = [...problem.reviewers].sort((a, b) => compare(a.id, b.id));
    const drafts = [...problem.drafts].sort((a, b) => compare(a.groupId ?? '', b.groupId ?? '') || compare(a.id, b.id));
    const reviewerAt = new Map(reviewers.map(({ id }, index) => [id, index]));
    const draftAt = new Map(drafts.map(({ id }, index) => [id, index]));
    const rows = (): number[][] => reviewers.map(() => []);
    const at = ({ reviewerId, draftId }: Pair) =>
      [reviewerAt.get(reviewerId) as number, draftAt.get(draftId) as number] as const;

    this.reviewerIds = reviewers.map(({ id }) => id);
    this.draftIds = drafts.map(({ id }) => id);
    this.closed = drafts.map(({ closed }) => closed === true);
    this.authors = drafts.map(({ authorIds }) =>
      [...new Set(authorIds)].map((id) => reviewerAt.get(id) ?? -1).filter((index) => index >= 0),
    );
    const own = rows();
    this.authors.forEach((authors, draft) => authors.forEach((author) => own[author]?.push(draft)));
    this.ownDrafts = own;

    const fixedGiven = rows();
    const load = new Int32Array(drafts.length);
    for (const pair of problem.fixed) {
      const [reviewer, draft] = at(pair);
      fixedGiven[reviewer]?.push(draft);
      load[draft] = (load[draft] as number) + 1;
    }
    this.fixedGiven = fixedGiven;
    this.load = load;
    this.count = Int32Array.from(fixedGiven, ({ length }) => length);
    this.capacity = Int32Array.from(reviewers, ({ capacity }, index) =>
      Math.max(capacity, this.count[index] as number),
    );
    this.room = Int32Array.from(drafts, ({ closed }) =>
      closed === true ? 0 : Math.min(problem.maxPerDraft ?? 0x7fffffff, 0x7fffffff),
    );

    const groupStretch = new Map<string, [number, number]>();
    drafts.forEach(({ groupId }, index) => {
      if (groupId === undefined) return;
      const known = groupStretch.get(groupId);
      if (known === undefined) groupStretch.set(groupId, [index, index + 1]);
      else known[1] = index + 1;
    });
    this.stretches = reviewers.map(({ groupId }): Stretches => {
      const group = groupId === undefined ? undefined : groupStretch.get(groupId);
      if (problem.scope === 'same-group') return group === undefined ? [] : [group];
      if (problem.scope === 'anyone' || group === undefined) return [[0, drafts.length]];
      return [
        [0, group[0]],
        [group[1], drafts.length],
      ];
    });

    const banned = own.map((drafts, reviewer) => [...drafts, ...(fixedGiven[reviewer] as number[])]);
    for (const pair of problem.forbidden) {
      const [reviewer, draft] = at(pair);
      banned[reviewer]?.push(draft);
    }
    const ofGroups = new Map<string, number[]>();
    drafts.forEach(({ authorIds, groupId }, index) => {
      if (groupId !== undefined && new Set(authorIds).size !== 1) {
        ofGroups.set(groupId, [...(ofGroups.get(groupId) ?? []), index]);
      }
    });
    reviewers.forEach(({ groupId }, reviewer) => {
      if (groupId !== undefined) banned[reviewer]?.push(...(ofGroups.get(groupId) ?? []));
    });
    this.banned = banned.map(sortedSet);

    const byDraft = reviewers.map(() => new Map<number, number>());
    for (const pair of costs) {
      const [reviewer, draft] = at(pair);
      const row = byDraft[reviewer] as Map<number, number>;
      row.set(draft, (row.get(draft) ?? 0) + pair.cost);
    }
    this.costly = byDraft.map((row) => [...row.keys()].filter((draft) => row.get(draft) !== 0).sort(ascending));
    this.costs = byDraft.map((row, reviewer) =>
      (this.costly[reviewer] as readonly number[]).map((draft) => row.get(draft) as number),
    );
    this.given = rows();
    this.received = drafts.map(() => []);
  }

  get reviewers(): number {
    return this.reviewerIds.length;
  }

  get drafts(): number {
    return this.draftIds.length;
  }

  spare(reviewer: number): number {
    return (this.capacity[reviewer] as number) - (this.count[reviewer] as number);
  }

  /** Whether it is given, fixed or not. */
  has(reviewer: number, draft: number): boolean {
    return (
      (this.given[reviewer] as number[]).includes(draft) || (this.fixedGiven[reviewer] as number[]).includes(draft)
    );
  }

  /** Whether the rules let this reviewer have this draft; it may be given already. */
  permits(reviewer: number, draft: number): boolean {
    if (this.closed[draft] === true) return false;
    const inScope = (this.stretches[reviewer] as Stretches).some(([from, to]) => draft >= from && draft < to);
    return inScope && indexIn(this.banned[reviewer] as readonly number[], draft) < 0;
  }

  /** Whether it could be added now, but for the limits of numbers. */
  open(reviewer: number, draft: number): boolean {
    return !(this.given[reviewer] as number[]).includes(draft) && this.permits(reviewer, draft);
  }

  cost(reviewer: number, draft: number): number {
    const at = indexIn(this.costly[reviewer] as readonly number[], draft);
    return at < 0 ? 0 : ((this.costs[reviewer] as readonly number[])[at] as number);
  }

  add(reviewer: number, draft: number): void {
    this.given[reviewer]?.push(draft);
    this.received[draft]?.push(reviewer);
    this.load[draft] = (this.load[draft] as number) + 1;
    this.count[reviewer] = (this.count[reviewer] as number) + 1;
  }

  remove(reviewer: number, draft: number): void {
    takeOut(this.given[reviewer] as number[], draft);
    takeOut(this.received[draft] as number[], reviewer);
    this.load[draft] = (this.load[draft] as number) - 1;
    this.count[reviewer] = (this.count[reviewer] as number) - 1;
  }

  /** Fixed and moved pairs, by reviewer and draft. */
  pairs(): Pair[] {
    return this.reviewerIds.flatMap((reviewerId, reviewer) =>
      [...(this.fixedGiven[reviewer] as number[]), ...(this.given[reviewer] as number[])]
        .map((draft) => this.draftIds[draft] as string)
        .sort(compare)
        .map((draftId) => ({ reviewerId, draftId })),
    );
  }
}

/** By code units: the same everywhere, whatever the language of the machine. */
export function compare(a: string, b: string): number {
  return a < b ? -1 : a > b ? 1 : 0;
}

function ascending(a: number, b: number): number {
  return a - b;
}

function sortedSet(list: readonly number[]): number[] {
  return [...new Set(list)].sort(ascending);
}

function takeOut(list: number[], element: number): void {
  const at = list.indexOf(element);
  list[at] = list.at(-1) as number;
  list.pop();
}

/** Place of an element in a sorted list, or -1. */
function indexIn(sorted: readonly number[], element: number): number {
  let low = 0;
  let high = sorted.length - 1;
  while (low <= high) {
    const middle = (low + high) >> 1;
    const found = sorted[middle] as number;
    if (found === element) return middle;
    if (found < element) low = middle + 1;
    else high = middle - 1;
  }
  return -1;
}
