import type { AllocationProblem, Pair } from '../problem.js';
import { isAllowed, worth } from './problems.js';

type Worth = readonly [number, number, number, number];

/** All allocations within capacity and maximum, one after the other. For very small problems. */
export function* allAllocations(problem: AllocationProblem): Generator<Pair[]> {
  const isFixed = (pair: Pair) =>
    problem.fixed.some(({ reviewerId, draftId }) => reviewerId === pair.reviewerId && draftId === pair.draftId);
  const free = problem.reviewers
    .flatMap(({ id: reviewerId }) => problem.drafts.map(({ id: draftId }) => ({ reviewerId, draftId })))
    .filter((pair) => !isFixed(pair) && isAllowed(problem, pair));
  const capacity = new Map(problem.reviewers.map(({ id, capacity: one }) => [id, one]));
  const chosen: Pair[] = [...problem.fixed];
  const count = (of: (pair: Pair) => boolean) => chosen.filter(of).length;
  const visit = function* (at: number): Generator<Pair[]> {
    const pair = free[at];
    if (pair === undefined) {
      yield [...chosen];
      return;
    }
    yield* visit(at + 1);
    if (count(({ reviewerId }) => reviewerId === pair.reviewerId) >= (capacity.get(pair.reviewerId) as number)) return;
    if (count(({ draftId }) => draftId === pair.draftId) >= (problem.maxPerDraft ?? Infinity)) return;
    chosen.push(pair);
    yield* visit(at + 1);
    chosen.pop();
  };
  yield* visit(0);
}

/** The best there is, by trying all of them. */
export function bestWorth(problem: AllocationProblem): Worth {
  let best: Worth = [Infinity, Infinity, Infinity, Infinity];
  for (const pairs of allAllocations(problem)) {
    const value = worth(problem, pairs);
    if (isLess(value, best)) best = value;
  }
  return best;
}

export function isLess(a: readonly number[], b: readonly number[]): boolean {
  const at = a.findIndex((value, index) => value !== b[index]);
  return at >= 0 && (a[at] as number) < (b[at] as number);
}
