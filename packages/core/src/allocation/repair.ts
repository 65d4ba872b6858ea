import { solveAll } from './allocate.js';
import { Board } from './board.js';
import { pairKey } from './pairKey.js';
import { keep } from './place.js';
import {
  assertAllocationProblem,
  type Allocation,
  type AllocationProblem,
  type DraftEntry,
  type Pair,
  type ReviewerEntry,
  type Watch,
} from './problem.js';

/** What has happened since the allocation was made. Anything not given has not changed. */
export interface AllocationChanges {
  /** Late hand-ins; or the same person or draft as before with other entries. */
  readonly reviewers?: readonly ReviewerEntry[];
  readonly drafts?: readonly DraftEntry[];
  /** Drop-outs: nothing more is asked of them. Reviews of theirs that are fixed stay. */
  readonly reviewersLeft?: readonly string[];
  /** Withdrawn: they get no more reviews. Fixed ones stay. */
  readonly draftsWithdrawn?: readonly string[];
  readonly forbidden?: readonly Pair[];
  /** Begun since: fixed from now on. */
  readonly begun?: readonly Pair[];
}

export type RemovalReason =
  | 'reviewer-left'
  | 'draft-withdrawn'
  | 'forbidden'
  /** The rules or numbers of the problem do not allow it any more. */
  | 'not-allowed'
  /** So that more reviews are placed, or more evenly. */
  | 'makes-room';

export type AdditionReason = 'new-reviewer' | 'new-draft' | 'replaces' | 'evens-out';

export interface Repair {
  readonly allocation: Allocation;
  readonly removed: ReadonlyArray<Pair & { readonly reason: RemovalReason }>;
  readonly added: ReadonlyArray<Pair & { readonly reason: AdditionReason }>;
}

/**
 * Mends an allocation after something has happened. No fixed pair is touched; then most reviews are placed, as evenly as
 * can be; then, of all the ways to do that, as few of the other pairs as possible are taken away; then come repeats,
 * mutual pairs and strengths. All but the last two are exact. That a late draft gets its share goes before the number
 * of pairs moved: leaving everything as it is would always move the fewest.
 *
 * @param problem as it was before
 * @param current what is allocated now, fixed pairs included
 * @throws MisuseError as `allocate` does, for the problem as it is after the changes
 */
export function repair(
  problem: AllocationProblem,
  current: readonly Pair[],
  changes: AllocationChanges,
  watch: Watch = () => {},
): Repair {
  const after = changed(problem, current, changes);
  assertAllocationProblem(after);
  const fixed = new Set(after.fixed.map(pairKey));
  const reviewers = new Set(after.reviewers.map(({ id }) => id));
  const drafts = new Set(after.drafts.map(({ id }) => id));
  const movable = current.filter(
    (pair) => !fixed.has(pairKey(pair)) && reviewers.has(pair.reviewerId) && drafts.has(pair.draftId),
  );
  // Keeping one pair is worth more than all repeats together.
  const reward = 1 + after.earlier.reduce((sum, { times }) => sum + times, 0);
  const costs = [
    ...after.earlier.map(({ reviewerId, draftId, times }) => ({ reviewerId, draftId, cost: times })),
    ...movable.map((pair) => ({ ...pair, cost: -reward })),
  ];
  const kept = new Set(keep(new Board(after, []), movable).map(pairKey));
  const allocation = solveAll({ problem: after, costs, kept: movable }, watch);
  return { allocation, ...difference(problem, after, current, kept, allocation.pairs, changes) };
}

function changed(problem: AllocationProblem, current: readonly Pair[], changes: AllocationChanges): AllocationProblem {
  const left = new Set(changes.reviewersLeft);
  const withdrawn = new Set(changes.draftsWithdrawn);
  const given = new Set(current.map(pairKey));
  const fixed = merged(
    problem.fixed,
    (changes.begun ?? []).filter((pair) => given.has(pairKey(pair))),
    pairKey,
  );
  const fixedReviewers = new Set(fixed.map(({ reviewerId }) => reviewerId));
  const fixedDrafts = new Set(fixed.map(({ draftId }) => draftId));
  const reviewers = merged(problem.reviewers, changes.reviewers ?? [], ({ id }) => id)
    .filter(({ id }) => !left.has(id) || fixedReviewers.has(id))
    .map((one) => (left.has(one.id) ? { ...one, capacity: 0 } : one));
  const drafts = merged(problem.drafts, changes.drafts ?? [], ({ id }) => id)
    .filter(({ id }) => !withdrawn.has(id) || fixedDrafts.has(id))
    .map((one) => (withdrawn.has(one.id) ? { ...one, closed: true } : one));
  const reviewerIds = new Set(reviewers.map(({ id }) => id));
  const draftIds = new Set(drafts.map(({ id }) => id));
  const listed = ({ reviewerId, draftId }: Pair) => reviewerIds.has(reviewerId) && draftIds.has(draftId);
  const isFixed = lookup(fixed);
  const isNew = lookup(changes.forbidden ?? []);
  const before = problem.forbidden.filter((pair) => !isNew(pair));
  return {
    ...problem,
    reviewers,
    drafts,
    fixed,
    // What has been begun goes on, even if it has been forbidden since.
    forbidden: [...before, ...(changes.forbidden ?? [])].filter((pair) => listed(pair) && !isFixed(pair)),
    earlier: problem.earlier.filter(listed),
  };
}

/** Whether a pair is among these; for lists so long that a key for every pair asked about would cost too much. */
function lookup(pairs: readonly Pair[]): (pair: Pair) => boolean {
  const byReviewer = new Map<string, Set<string>>();
  for (const { reviewerId, draftId } of pairs) {
    const drafts = byReviewer.get(reviewerId);
    if (drafts === undefined) byReviewer.set(reviewerId, new Set([draftId]));
    else drafts.add(draftId);
  }
  return ({ reviewerId, draftId }) => byReviewer.get(reviewerId)?.has(draftId) === true;
}

/** Later entries take the place of earlier ones with the same key. */
function merged<T>(before: readonly T[], after: readonly T[], keyOf: (one: T) => string): T[] {
  return [...new Map([...before, ...after].map((one) => [keyOf(one), one])).values()];
}

function difference(
  before: AllocationProblem,
  after: AllocationProblem,
  current: readonly Pair[],
  kept: ReadonlySet<string>,
  pairs: readonly Pair[],
  changes: AllocationChanges,
): Pick<Repair, 'removed' | 'added'> {
  const now = new Set(pairs.map(pairKey));
  const then = new Set(current.map(pairKey));
  const left = new Set(changes.reviewersLeft);
  const withdrawn = new Set(changes.draftsWithdrawn);
  const gone = current.filter((pair) => !now.has(pairKey(pair)));
  const forbidden = lookup(after.forbidden.filter(lookup(gone)));
  const removed = gone.map(({ reviewerId, draftId }) => {
    const pair = { reviewerId, draftId };
    if (left.has(reviewerId)) return { ...pair, reason: 'reviewer-left' as const };
    if (withdrawn.has(draftId)) return { ...pair, reason: 'draft-withdrawn' as const };
    if (forbidden(pair)) return { ...pair, reason: 'forbidden' as const };
    return { ...pair, reason: kept.has(pairKey(pair)) ? ('makes-room' as const) : ('not-allowed' as const) };
  });
  const loose = new Set(removed.map(({ reviewerId }) => reviewerId));
  const oldReviewers = new Set(before.reviewers.map(({ id }) => id));
  const oldDrafts = new Set(before.drafts.map(({ id }) => id));
  const added = pairs
    .filter((pair) => !then.has(pairKey(pair)))
    .map((pair) => {
      if (!oldReviewers.has(pair.reviewerId)) return { ...pair, reason: 'new-reviewer' as const };
      if (!oldDrafts.has(pair.draftId)) return { ...pair, reason: 'new-draft' as const };
      return { ...pair, reason: loose.has(pair.reviewerId) ? ('replaces' as const) : ('evens-out' as const) };
    });
  return { removed, added };
}
