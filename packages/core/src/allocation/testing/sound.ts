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
  const reachable = reachableDrafts(problem, reviewerIds);
  expect([...draftIds].sort()).toEqual(reachable.sort());
  expect(asked).toBe(capacityOf(problem, reviewerIds));
  expect(possible).toBe(holds(problem, reviewerIds));
  expect(possible).toBeLessThan(asked);
}

function reachableDrafts(problem: AllocationProblem, reviewerIds: readonly string[]): string[] {
  const isFixed = (draftId: string) =>
    problem.fixed.some((pair) => pair.draftId === draftId && reviewerIds.includes(pair.reviewerId));
  return problem.drafts
    .filter(
      ({ id: draftId }) =>
        isFixed(draftId) || reviewerIds.some((reviewerId) => isAllowed(problem, { reviewerId, draftId })),
    )
    .map(({ id }) => id);
}

/** Reviews asked of these reviewers, or more where more are fixed. */
function capacityOf(problem: AllocationProblem, reviewerIds: readonly string[]): number {
  return problem.reviewers
    .filter(({ id }) => reviewerIds.includes(id))
    .map(({ id, capacity }) => Math.max(capacity, problem.fixed.filter(({ reviewerId }) => reviewerId === id).length))
    .reduce((sum, one) => sum + one, 0);
}

/** How many reviews of these reviewers all drafts together could hold, if nobody else took any but what is fixed. */
function holds(problem: AllocationProblem, reviewerIds: readonly string[]): number {
  return reachableDrafts(problem, reviewerIds).reduce((sum, draftId) => {
    const fixed = problem.fixed.filter((pair) => pair.draftId === draftId);
    const own = fixed.filter(({ reviewerId }) => reviewerIds.includes(reviewerId));
    const free = reviewerIds.filter(
      (reviewerId) =>
        !own.some((pair) => pair.reviewerId === reviewerId) && isAllowed(problem, { reviewerId, draftId }),
    ).length;
    const room = Math.max(0, (problem.maxPerDraft ?? Infinity) - fixed.length);
    return sum + own.length + Math.min(room, free);
  }, 0);
}

/** By trying them all: no part of the set lacks as many reviews as the whole. For small sets. */
export function assertSmallest(problem: AllocationProblem, { reviewerIds, asked, possible }: Shortfall): void {
  for (let parts = 1; parts < 2 ** reviewerIds.length - 1; parts += 1) {
    const part = reviewerIds.filter((_, at) => (parts >> at) % 2 === 1);
    expect(capacityOf(problem, part) - holds(problem, part)).toBeLessThan(asked - possible);
  }
}
