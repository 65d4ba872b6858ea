import { MisuseError } from '../problem.js';
import { allocate } from './allocate.js';
import { pairKey } from './pairKey.js';
import type { Allocation, AllocationProblem, Pair, Watch } from './problem.js';

export interface PoolProblem extends Omit<AllocationProblem, 'fixed'> {
  /** What earlier rounds have given, all of it; it is kept. */
  readonly given: readonly Pair[];
  /**
   * Those who have handed in and wait for drafts to review, with the full nights they have waited. Others of the
   * reviewers have had their turn, and get nothing in this round.
   */
  readonly waiting: ReadonlyArray<{ readonly id: string; readonly nights: number }>;
  /** So few may be allocated among themselves: a whole number of 2 or more. Fewer wait for company. */
  readonly party: number;
  /** After so many nights nobody waits for company any longer: a whole number of 0 or more. */
  readonly patience: number;
}

export interface PoolRound {
  /** Only the pairs of this round. */
  readonly pairs: readonly Pair[];
  /** Those who wait on, wholly or for some of their reviews, and why. */
  readonly waiting: ReadonlyArray<{ readonly id: string; readonly reason: 'company' | 'nothing-to-review' }>;
  /** Of everything given so far; null when no round was held. */
  readonly allocation: Allocation | null;
}

/**
 * One night's round for a course that goes on without fixed dates: those who wait are allocated among themselves and to
 * the earlier drafts with the fewest reviews. A round is held when enough people wait to make a party, or somebody has
 * waited for as long as anybody should; then everybody who waits takes part. So nobody waits more nights than that, if
 * there is anything to review.
 *
 * @throws MisuseError as `allocate` does; for somebody waiting who is not among the reviewers or a number of nights that is
 * none; and for a party or patience out of its range
 */
export function poolRound(problem: PoolProblem, watch: Watch = () => {}): PoolRound {
  const { given, waiting, party, patience, ...rest } = problem;
  assertPool(problem);
  const ready = waiting.length >= party || waiting.some(({ nights }) => nights >= patience);
  if (waiting.length === 0 || !ready) {
    return { pairs: [], waiting: waiting.map(({ id }) => ({ id, reason: 'company' as const })), allocation: null };
  }
  const waits = new Set(waiting.map(({ id }) => id));
  const allocation = allocate(
    {
      ...rest,
      fixed: given,
      reviewers: rest.reviewers.map((one) => (waits.has(one.id) ? one : { ...one, capacity: 0 })),
    },
    watch,
  );
  const before = new Set(given.map(pairKey));
  const count = new Map<string, number>();
  for (const { reviewerId } of allocation.pairs) count.set(reviewerId, (count.get(reviewerId) ?? 0) + 1);
  return {
    pairs: allocation.pairs.filter((pair) => !before.has(pairKey(pair))),
    waiting: rest.reviewers
      .filter(({ id, capacity }) => waits.has(id) && (count.get(id) ?? 0) < capacity)
      .map(({ id }) => ({ id, reason: 'nothing-to-review' as const })),
    allocation,
  };
}

function assertPool({ reviewers, waiting, party, patience }: PoolProblem): void {
  const whole = (number: number, from: number) => Number.isInteger(number) && number >= from;
  if (!whole(party, 2)) throw new MisuseError('party-invalid', `A party of ${party} is not 2 or more.`, { party });
  if (!whole(patience, 0)) {
    throw new MisuseError('patience-invalid', `A patience of ${patience} nights is not 0 or more.`, { patience });
  }
  const known = new Set(reviewers.map(({ id }) => id));
  for (const { id, nights } of waiting) {
    if (!known.has(id))
      throw new MisuseError('reviewer-unknown', `${id} waits but is not among the reviewers.`, { id });
    if (!whole(nights, 0)) {
      throw new MisuseError('nights-invalid', `${nights} nights of ${id} is not a whole number of 0 or more.`, { id });
    }
  }
}
