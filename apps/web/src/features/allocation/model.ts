import type { AllocationView, BoardDraft, BoardPair, BoardReviewer } from '@salt-circle/contracts';
import { measure, pairKey, type AllocationProblem, type Measures, type Pair } from '@salt-circle/core';
import { labelWords } from '../../app/People.js';
import { say } from '../../words/allocation.js';

/** What stands where a reviewer and a draft meet. */
export type Meeting = 'own' | 'given' | 'apart' | 'free';

/** The board as it is shown: people and drafts of the server, with the pairs applied or those of a preview. */
export class Model {
  readonly reviewerById: ReadonlyMap<string, BoardReviewer>;
  readonly draftById: ReadonlyMap<string, BoardDraft>;
  readonly draftsOf: ReadonlyMap<string, readonly string[]>;
  readonly reviewersOf: ReadonlyMap<string, readonly string[]>;
  readonly applied: ReadonlyMap<string, BoardPair>;
  readonly times: ReadonlyMap<string, number>;
  readonly pairs: readonly Pair[];
  /** By reviewer: drafts kept apart, and drafts of people met before. */
  readonly apartOf: ReadonlyMap<string, readonly string[]>;
  readonly metOf: ReadonlyMap<string, readonly string[]>;
  /** Own draft of each reviewer. */
  readonly ownOf: ReadonlyMap<string, BoardDraft>;
  readonly #apart: ReadonlySet<string>;
  readonly #given: ReadonlySet<string>;
  #measures: Measures | null = null;

  constructor(
    readonly view: AllocationView,
    preview: readonly Pair[] | null,
  ) {
    const own = view.pairs.filter(({ self }) => !self);
    this.pairs = preview ?? own.map(({ reviewerId, draftId }) => ({ reviewerId, draftId }));
    this.applied = new Map(own.map((pair) => [pairKey(pair), pair]));
    this.reviewerById = new Map(view.reviewers.map((one) => [one.id, one]));
    this.draftById = new Map(view.drafts.map((one) => [one.id, one]));
    this.ownOf = new Map(view.drafts.flatMap((one) => one.authorIds.map((id) => [id, one] as const)));
    this.draftsOf = listed(this.pairs, 'reviewerId', 'draftId');
    this.reviewersOf = listed(this.pairs, 'draftId', 'reviewerId');
    this.apartOf = listed(view.forbidden, 'reviewerId', 'draftId');
    this.metOf = listed(view.earlier, 'reviewerId', 'draftId');
    this.times = new Map(view.earlier.map((pair) => [pairKey(pair), pair.times]));
    this.#apart = new Set(view.forbidden.map(pairKey));
    this.#given = new Set(this.pairs.map(pairKey));
  }

  meeting(pair: Pair): Meeting {
    if (this.draftById.get(pair.draftId)?.authorIds.includes(pair.reviewerId) === true) return 'own';
    if (this.#given.has(pairKey(pair))) return 'given';
    return this.#apart.has(pairKey(pair)) ? 'apart' : 'free';
  }

  isApart(pair: Pair): boolean {
    return this.#apart.has(pairKey(pair));
  }

  reviewerName(id: string): string {
    const reviewer = this.reviewerById.get(id);
    return reviewer === undefined ? say('somebodyWhoHasLeft') : labelWords(reviewer.label);
  }

  authorName(draftId: string): string {
    const draft = this.draftById.get(draftId);
    return draft === undefined ? say('draftThatWasTakenBack') : labelWords(draft.author);
  }

  load(draftId: string): number {
    return this.reviewersOf.get(draftId)?.length ?? 0;
  }

  /** How many of a draft's reviews were made or held by hand. */
  held(draftId: string): number {
    return (this.reviewersOf.get(draftId) ?? []).filter(
      (reviewerId) => this.applied.get(pairKey({ reviewerId, draftId }))?.locked === true,
    ).length;
  }

  given(reviewerId: string): number {
    return this.draftsOf.get(reviewerId)?.length ?? 0;
  }

  measures(): Measures {
    this.#measures ??= measuresOf(this.view, this.pairs);
    return this.#measures;
  }

  measuresOf(pairs: readonly Pair[]): Measures {
    return measuresOf(this.view, pairs);
  }
}

function listed(
  pairs: readonly Pair[],
  by: 'reviewerId' | 'draftId',
  what: 'reviewerId' | 'draftId',
): Map<string, readonly string[]> {
  const lists = new Map<string, string[]>();
  for (const pair of pairs) {
    const list = lists.get(pair[by]);
    if (list === undefined) lists.set(pair[by], [pair[what]]);
    else list.push(pair[what]);
  }
  return lists;
}

/** The same measures as those of a computed allocation, for any pairs at all; fast enough for every move. */
export function measuresOf(view: AllocationView, pairs: readonly Pair[]): Measures {
  const reviewers = new Set(view.reviewers.map(({ id }) => id));
  const drafts = new Set(view.drafts.map(({ id }) => id));
  // What somebody who has left did not submit will not be finished, and counts for nothing.
  const gone = new Set(
    view.reviewers.filter(({ leftOut }) => leftOut === 'left' || leftOut === 'excused').map(({ id }) => id),
  );
  const submitted = new Set(view.pairs.filter(({ state }) => state === 'submitted').map(pairKey));
  const listedOnly = (pair: Pair) =>
    reviewers.has(pair.reviewerId) &&
    drafts.has(pair.draftId) &&
    (!gone.has(pair.reviewerId) || submitted.has(pairKey(pair)));
  const problem: AllocationProblem = {
    reviewers: view.reviewers.map(({ id, capacity, strength }) => ({
      id,
      capacity,
      ...(strength === null || !view.wishes.mix ? {} : { strength }),
    })),
    drafts: view.drafts.map(({ id, authorIds, closed }) => ({ id, authorIds, closed })),
    scope: 'anyone',
    fixed: [],
    forbidden: [],
    earlier: view.earlier.filter(listedOnly),
    seed: 0,
  };
  return measure(problem, pairs.filter(listedOnly));
}

/** The pairs after something is done by hand. */
export function afterActs(
  pairs: readonly Pair[],
  { add = [], remove = [] }: { readonly add?: readonly Pair[]; readonly remove?: readonly Pair[] },
): Pair[] {
  const gone = new Set(remove.map(pairKey));
  return [...pairs.filter((pair) => !gone.has(pairKey(pair))), ...add];
}
