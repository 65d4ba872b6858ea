import { allocate } from '../allocate.js';
import type { Allocation, AllocationProblem, Shortfall } from '../problem.js';
import { measure } from '../quality.js';
import { isAllowed, worth } from './problems.js';

/** All that must hold for any allocation, whatever the problem. */
export function assertSound(problem: AllocationProblem, result: Allocation): void {
  const key = ({ reviewerId, draftId }: { reviewerId: string; draftId: string }) => `${reviewerId} ${draftId}`;
  const fixed = new Set(problem.fixed.map(key));
  const pairs = new Set(result.pairs.map(key));
  expect(pairs.size).toBe(result.pairs.length);
  expect([...fixed].filter((pair) => !pairs.has(pair))).toEqual([]);
  expect(result.pairs.filter((pair) => !fixed.has(key(pair)) && !isAllowed(problem, pair))).toEqual([]);
  for (const { id, capacity } of problem.reviewers) {
    const count = result.pairs.filter(({ reviewerId }) => reviewerId === id).length;
    const fixedCount = problem.fixed.filter(({ reviewerId }) => reviewerId === id).length;
    expect(count).toBeLessThanOrEqual(Math.max(capacity, fixedCount));
    // Whoever got fewer than asked is told of.
    if (count < capacity) expect(result.shortfalls.some(({ reviewerIds }) => reviewerIds.includes(id))).toBe(true);
  }
  for (const { id } of problem.drafts) {
    const count = result.pairs.filter(({ draftId }) => draftId === id).length;
    const fixedCount = problem.fixed.filter(({ draftId }) => draftId === id).length;
    expect(count).toBeLessThanOrEqual(Math.max(problem.maxPerDraft ?? Infinity, fixedCount));
  }
  for (const shortfall of result.shortfalls) assertHall(problem, shortfall);
  assertQuality(problem, result);
  expect(JSON.parse(JSON.stringify(result))).toEqual(result);
  expect(allocate(problem)).toEqual(result);
}

function assertQuality(problem: AllocationProblem, { pairs, quality }: Allocation): void {
  const [missing, squares, repeats, mutual] = worth(problem, pairs);
  expect([quality.placed.reached, quality.placed.best]).toEqual([-missing, -missing]);
  expect([quality.balance.squares, quality.balance.best]).toEqual([squares, squares]);
  expect([quality.repeats.reached, quality.repeats.best]).toEqual([repeats, repeats]);
  expect(quality.mutual.reached).toBe(mutual);
  expect(quality.mutual.bound).toBeLessThanOrEqual(mutual);
  if (quality.mix !== null) expect(quality.mix.weakest).toBeLessThanOrEqual(quality.mix.bound + 1e-9);
  expect(measure(problem, pairs)).toMatchObject({
    reviews: pairs.length,
    squares,
    repeats,
    mutualPairs: mutual,
    weakest: quality.mix?.weakest ?? null,
  });
}

/**
 * Hall's condition, for several reviews each (P. Hall, J. London Math. Soc. 10, 1935; as a minimum cut in Ford and
 * Fulkerson, Flows in Networks, 1962, chapter II): the drafts that these reviewers may review hold fewer of their reviews
 * than asked.
 */
function assertHall(problem: AllocationProblem, { reviewerIds, draftIds, asked, possible }: Shortfall): void {
  const set = new Set(reviewerIds);
  const fixedOf = (draftId: string, inSet: boolean) =>
    problem.fixed.filter((pair) => pair.draftId === draftId && set.has(pair.reviewerId) === inSet).length;
  const reachable = problem.drafts.filter(
    (draft) =>
      fixedOf(draft.id, true) > 0 ||
      reviewerIds.some((reviewerId) => isAllowed(problem, { reviewerId, draftId: draft.id })),
  );
  expect([...draftIds].sort()).toEqual(reachable.map(({ id }) => id).sort());
  const capacity = problem.reviewers
    .filter(({ id }) => set.has(id))
    .map(({ id, capacity: one }) => Math.max(one, problem.fixed.filter(({ reviewerId }) => reviewerId === id).length))
    .reduce((sum, one) => sum + one, 0);
  const holds = reachable.reduce((sum, { id: draftId }) => {
    const isFixed = (reviewerId: string) =>
      problem.fixed.some((pair) => pair.reviewerId === reviewerId && pair.draftId === draftId);
    const free = reviewerIds.filter(
      (reviewerId) => !isFixed(reviewerId) && isAllowed(problem, { reviewerId, draftId }),
    ).length;
    const own = fixedOf(draftId, true);
    const room = Math.max(0, (problem.maxPerDraft ?? Infinity) - own - fixedOf(draftId, false));
    return sum + own + Math.min(room, free);
  }, 0);
  expect(asked).toBe(capacity);
  expect(possible).toBe(holds);
  expect(possible).toBeLessThan(asked);
}
