import fc from 'fast-check';
import { allocate } from './allocate.js';
import type { Allocation, AllocationProblem } from './problem.js';

/** Everybody hands in one draft and is asked for as many reviews. */
function everybody(count: number, reviews: number, seed = 1): AllocationProblem {
  const ids = [...Array(count).keys()].map((index) => `p${index}`);
  return {
    reviewers: ids.map((id) => ({ id, capacity: reviews })),
    drafts: ids.map((id) => ({ id: `d-${id}`, authorIds: [id] })),
    seed,
  };
}

/** All that must hold for any allocation. */
function assertSound(problem: AllocationProblem, result: Allocation): void {
  const drafts = new Map(problem.drafts.map((draft) => [draft.id, draft]));
  const given = new Map<string, number>();
  const received = new Map(problem.drafts.map(({ id }) => [id, 0]));
  for (const { reviewerId, draftId } of result.pairs) {
    expect(drafts.get(draftId)?.authorIds).not.toContain(reviewerId);
    given.set(reviewerId, (given.get(reviewerId) ?? 0) + 1);
    received.set(draftId, (received.get(draftId) ?? 0) + 1);
  }
  expect(new Set(result.pairs.map((pair) => JSON.stringify(pair))).size).toBe(result.pairs.length);
  for (const { id, capacity } of problem.reviewers) {
    const eligible = problem.drafts.filter(({ authorIds }) => !authorIds.includes(id)).length;
    const count = given.get(id) ?? 0;
    expect(count).toBe(Math.min(capacity, eligible));
    const shortfall = result.shortfalls.find(({ reviewerId }) => reviewerId === id);
    expect(shortfall).toEqual(
      count < capacity ? { reviewerId: id, asked: capacity, placed: count, eligible } : undefined,
    );
  }
  const loads = [...received.values()];
  expect(result.quality.placed).toBe(result.pairs.length);
  expect([result.quality.fewestPerDraft, result.quality.mostPerDraft]).toEqual(
    loads.length === 0 ? [0, 0] : [Math.min(...loads), Math.max(...loads)],
  );
  expect(JSON.parse(JSON.stringify(result))).toEqual(result);
  expect(allocate(problem)).toEqual(result);
}

function squares(problem: AllocationProblem, pairs: Allocation['pairs']): number {
  return problem.drafts.reduce((sum, { id }) => sum + pairs.filter(({ draftId }) => draftId === id).length ** 2, 0);
}

/** The least sum of squares over all ways to place every review: tries them all. */
function leastSquares(problem: AllocationProblem): number {
  const choices = problem.reviewers.map(({ id, capacity }) => {
    const eligible = problem.drafts
      .map((draft, index) => (draft.authorIds.includes(id) ? -1 : index))
      .filter((index) => index >= 0);
    return subsets(eligible, Math.min(capacity, eligible.length));
  });
  const loads = problem.drafts.map(() => 0);
  const visit = (reviewer: number): number => {
    const options = choices[reviewer];
    if (options === undefined) return loads.reduce((sum, load) => sum + load ** 2, 0);
    let best = Infinity;
    for (const option of options) {
      for (const draft of option) loads[draft] = (loads[draft] as number) + 1;
      best = Math.min(best, visit(reviewer + 1));
      for (const draft of option) loads[draft] = (loads[draft] as number) - 1;
    }
    return best;
  };
  return visit(0);
}

function subsets(list: readonly number[], size: number): number[][] {
  if (size === 0) return [[]];
  return list.flatMap((first, index) => subsets(list.slice(index + 1), size - 1).map((rest) => [first, ...rest]));
}

describe('allocate', () => {
  it.each([
    [2, 1],
    [3, 2],
    [24, 2],
    [24, 5],
    [25, 3],
    [300, 3],
  ])('gives each of %i people %i reviews, and as many to every draft', (count, reviews) => {
    const problem = everybody(count, reviews);
    const result = allocate(problem);
    assertSound(problem, result);
    expect(result.quality).toMatchObject({
      asked: count * reviews,
      placed: count * reviews,
      fewestPerDraft: reviews,
      mostPerDraft: reviews,
    });
  });

  // Common practice: two people with one review each review each other; in a group of three each reviews the two others.
  it('has only one way for two, and only one for three with two reviews each', () => {
    expect(allocate(everybody(2, 1)).pairs).toHaveLength(2);
    expect(allocate(everybody(2, 1)).quality.mutualPairs).toBe(1);
    const three = allocate(everybody(3, 2)).pairs.map(({ reviewerId, draftId }) => `${reviewerId} ${draftId}`);
    expect(three.sort()).toEqual(['p0 d-p1', 'p0 d-p2', 'p1 d-p0', 'p1 d-p2', 'p2 d-p0', 'p2 d-p1']);
  });

  it('avoids mutual pairs where there is plenty of room', () => {
    for (const seed of [1, 2, 3, 4, 5])
      expect(allocate(everybody(40, 2, seed)).quality.mutualPairs).toBeLessThanOrEqual(2);
  });

  it('says who gets fewer when there are too few drafts', () => {
    const result = allocate(everybody(4, 5));
    expect(result.quality).toMatchObject({ asked: 20, placed: 12 });
    expect(result.shortfalls).toHaveLength(4);
    expect(result.shortfalls[0]).toMatchObject({ asked: 5, placed: 3, eligible: 3 });
  });

  it('places nothing, and says so, without drafts', () => {
    const result = allocate({ reviewers: [{ id: 'a', capacity: 2 }], drafts: [], seed: 1 });
    expect(result).toMatchObject({
      pairs: [],
      shortfalls: [{ reviewerId: 'a', placed: 0 }],
      quality: { fewestPerDraft: 0, mostPerDraft: 0 },
    });
    expect(allocate({ reviewers: [], drafts: [], seed: 1 }).pairs).toEqual([]);
  });

  it('gives other pairs for other seeds', () => {
    expect(allocate(everybody(24, 2, 1)).pairs).not.toEqual(allocate(everybody(24, 2, 2)).pairs);
  });

  const small = fc
    .record({ people: fc.integer({ min: 1, max: 5 }), drafts: fc.integer({ min: 1, max: 4 }), seed: fc.nat(1e6) })
    .chain(({ people, drafts, seed }) =>
      fc.record({
        capacities: fc.array(fc.integer({ min: 0, max: 3 }), { minLength: people, maxLength: people }),
        authors: fc.array(fc.subarray([...Array(people).keys()]), { minLength: drafts, maxLength: drafts }),
        seed: fc.constant(seed),
      }),
    )
    .map(({ capacities, authors, seed }): AllocationProblem => ({
      reviewers: capacities.map((capacity, index) => ({ id: `p${index}`, capacity })),
      drafts: authors.map((list, index) => ({ id: `d${index}`, authorIds: list.map((author) => `p${author}`) })),
      seed,
    }));

  it('is sound and as balanced as exhaustive search finds, on small problems of every shape', () => {
    fc.assert(
      fc.property(small, (problem) => {
        const result = allocate(problem);
        assertSound(problem, result);
        expect(squares(problem, result.pairs)).toBe(leastSquares(problem));
      }),
      { seed: 1962, numRuns: 200 },
    );
  });

  it.each([
    [
      'a reviewer twice',
      {
        ...everybody(2, 1),
        reviewers: [
          { id: 'a', capacity: 1 },
          { id: 'a', capacity: 1 },
        ],
      },
      'reviewer-duplicate',
    ],
    [
      'a draft twice',
      {
        ...everybody(2, 1),
        drafts: [
          { id: 'd', authorIds: [] },
          { id: 'd', authorIds: [] },
        ],
      },
      'draft-duplicate',
    ],
    ['half a review', { ...everybody(2, 1), reviewers: [{ id: 'a', capacity: 0.5 }] }, 'capacity-invalid'],
    ['fewer than none', { ...everybody(2, 1), reviewers: [{ id: 'a', capacity: -1 }] }, 'capacity-invalid'],
    ['no seed', { ...everybody(2, 1), seed: NaN }, 'seed-invalid'],
  ])('throws for %s', (_, problem, code) => {
    expect(() => allocate(problem)).toThrow(expect.objectContaining({ name: 'MisuseError', code }));
  });
});
