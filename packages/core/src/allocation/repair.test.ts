import fc from 'fast-check';
import { allocate } from './allocate.js';
import type { AllocationProblem, Pair } from './problem.js';
import { seededRandom } from '../random/random.js';
import { repair, type AllocationChanges } from './repair.js';
import { allAllocations, isLess } from './testing/exhaustive.js';
import { everybody, mixedProblem, worth } from './testing/problems.js';

const key = ({ reviewerId, draftId }: Pair) => `${reviewerId} ${draftId}`;

describe('repair', () => {
  const before = everybody(24, 2);
  const current = allocate(before).pairs;

  it('changes nothing when nothing has happened', () => {
    expect(repair(before, current, {})).toMatchObject({ removed: [], added: [], allocation: { pairs: current } });
  });

  it('gives a late draft its share by moving as many pairs as it needs, and no more', () => {
    const late = {
      reviewers: [{ id: 'late', capacity: 2 }],
      drafts: [{ id: 'd-late', authorIds: ['late'] }],
    };
    const { allocation, removed, added } = repair(before, current, late);
    expect(allocation.quality).toMatchObject({ placed: { reached: 50 }, balance: { fewest: 2, most: 2 } });
    expect(removed.map(({ reason }) => reason)).toEqual(['makes-room', 'makes-room']);
    expect(added.map(({ reason }) => reason).sort()).toEqual([
      'new-draft',
      'new-draft',
      'new-reviewer',
      'new-reviewer',
    ]);
    // Whoever lost a pair got the late draft for it.
    expect(removed.map(({ reviewerId }) => reviewerId).sort()).toEqual(
      added
        .filter(({ draftId }) => draftId === 'd-late')
        .map(({ reviewerId }) => reviewerId)
        .sort(),
    );
  });

  it('after a drop-out, gives the reviewers of the one the drafts that the one had', () => {
    const gone: AllocationChanges = { reviewersLeft: ['p3'], draftsWithdrawn: ['d-p3'] };
    const { allocation, removed, added } = repair(before, current, gone);
    expect(allocation.quality).toMatchObject({ placed: { reached: 46 }, balance: { fewest: 2, most: 2 } });
    expect(removed.map(({ reason }) => reason).sort()).toEqual([
      'draft-withdrawn',
      'draft-withdrawn',
      'reviewer-left',
      'reviewer-left',
    ]);
    expect(added.map(({ reason }) => reason)).toEqual(['replaces', 'replaces']);
  });

  it('never touches what has been begun, not even of somebody who left, or when it is forbidden now', () => {
    const [first, second] = current.filter(({ reviewerId }) => reviewerId === 'p5');
    const changes: AllocationChanges = {
      reviewersLeft: ['p5'],
      forbidden: [first as Pair],
      begun: [first as Pair, second as Pair],
      draftsWithdrawn: [(second as Pair).draftId],
    };
    const { allocation } = repair(before, current, changes);
    expect(allocation.pairs).toEqual(expect.arrayContaining([first, second]));
    const forWithdrawn = allocation.pairs.filter(({ draftId }) => draftId === (second as Pair).draftId);
    expect(forWithdrawn).toEqual([second]);
  });

  it('takes away a pair forbidden since, and one that somebody is no longer asked for', () => {
    const pair = current[0] as Pair;
    const { removed, allocation } = repair(before, current, { forbidden: [pair] });
    expect(removed).toContainEqual({ ...pair, reason: 'forbidden' });
    expect(removed.length).toBeLessThanOrEqual(2);
    expect(allocation.quality.balance).toMatchObject({ fewest: 2, most: 2 });
    const fewer = repair(before, current, { reviewers: [{ id: 'p0', capacity: 1 }] });
    expect(fewer.removed).toMatchObject([{ reviewerId: 'p0', reason: 'not-allowed' }]);
  });

  it('moves the fewest pairs, as exhaustive search finds, then keeps to repeats and mutual pairs', () => {
    fc.assert(
      fc.property(fc.nat(1e9), (seed) => {
        const problem = mixedProblem(seed, { people: [2, 4], capacity: 2, groups: false });
        const random = seededRandom(seed);
        const now = allocate(problem).pairs;
        const fixed = new Set(problem.fixed.map(key));
        const begun = now.filter(() => random() < 0.2);
        const left = problem.reviewers.filter(() => random() < 0.2).map(({ id }) => id);
        const forbidden = now.filter((pair) => !fixed.has(key(pair)) && random() < 0.3);
        const late = { reviewers: [{ id: 'late', capacity: 1 }], drafts: [{ id: 'd-late', authorIds: ['late'] }] };
        const result = repair(problem, now, { ...late, begun, reviewersLeft: left, forbidden });
        const after = afterwards(problem, begun, left, forbidden, late);
        const moved = (pairs: readonly Pair[]) => {
          const given = new Set(pairs.map(key));
          return now.filter((pair) => !given.has(key(pair))).length;
        };
        let best: readonly number[] = [Infinity];
        for (const pairs of allAllocations(after)) {
          const [missing, squares, repeats] = worth(after, pairs);
          const value = [missing, squares, moved(pairs), repeats];
          if (isLess(value, best)) best = value;
        }
        const [missing, squares, repeats] = worth(after, result.allocation.pairs);
        expect([missing, squares, moved(result.allocation.pairs), repeats]).toEqual(best);
        expect(result.removed).toHaveLength(moved(result.allocation.pairs));
        expect(repair(problem, now, { ...late, begun, reviewersLeft: left, forbidden })).toEqual(result);
      }),
      { seed: 1962, numRuns: 150 },
    );
  });
});

/** The problem after the changes, put together once more. */
function afterwards(
  problem: AllocationProblem,
  begun: readonly Pair[],
  left: readonly string[],
  forbidden: readonly Pair[],
  late: Pick<AllocationProblem, 'reviewers' | 'drafts'>,
): AllocationProblem {
  const fixed = [...new Map([...problem.fixed, ...begun].map((pair) => [key(pair), pair])).values()];
  const isFixed = new Set(fixed.map(key));
  const stays = ({ id }: { id: string }) => !left.includes(id) || fixed.some(({ reviewerId }) => reviewerId === id);
  const reviewers = [...problem.reviewers.filter(stays), ...late.reviewers].map((one) =>
    left.includes(one.id) ? { ...one, capacity: 0 } : one,
  );
  const listed = ({ reviewerId }: Pair) => reviewers.some(({ id }) => id === reviewerId);
  return {
    ...problem,
    reviewers,
    drafts: [...problem.drafts, ...late.drafts],
    fixed,
    forbidden: [...problem.forbidden, ...forbidden].filter((pair) => listed(pair) && !isFixed.has(key(pair))),
    earlier: problem.earlier.filter(listed),
  };
}
