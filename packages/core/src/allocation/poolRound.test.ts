import { poolRound, type PoolProblem } from './poolRound.js';
import type { Pair } from './problem.js';
import { seededRandom } from '../random/random.js';
import { everybody } from './testing/problems.js';

/** Some people hand in each night; all who wait are taken up in the nightly round. */
function season(arrivals: readonly number[], rules: Pick<PoolProblem, 'party' | 'patience'>, reviews = 2) {
  const total = arrivals.reduce((sum, count) => sum + count, 0);
  const { reviewers, drafts } = everybody(total, reviews);
  const given: Pair[] = [];
  const since = new Map<string, number>();
  const waited = new Map<string, number>();
  let arrived = 0;
  arrivals.forEach((count, night) => {
    for (const { id } of reviewers.slice(arrived, arrived + count)) since.set(id, night);
    arrived += count;
    const round = poolRound({
      ...everybody(0, 1, night),
      ...rules,
      reviewers: reviewers.slice(0, arrived),
      drafts: drafts.slice(0, arrived),
      given,
      waiting: [...since].map(([id, from]) => ({ id, nights: night - from })),
    });
    given.push(...round.pairs);
    const on = new Set(round.waiting.map(({ id }) => id));
    for (const [id, from] of since) {
      if (on.has(id)) continue;
      waited.set(id, night - from);
      since.delete(id);
    }
  });
  return { given, waited, waiting: [...since.keys()] };
}

describe('poolRound', () => {
  it('waits for company, and says so', () => {
    const { given, waiting } = season([1, 1], { party: 3, patience: 5 });
    expect(given).toEqual([]);
    expect(waiting).toEqual(['p0', 'p1']);
  });

  it('allocates a party among themselves', () => {
    const { given, waiting } = season([1, 1, 1], { party: 3, patience: 5 });
    expect(given).toHaveLength(6);
    expect(waiting).toEqual([]);
  });

  it('gives whoever comes later the earlier drafts with the fewest reviews', () => {
    const { given } = season([3, 1, 0, 1], { party: 3, patience: 2 });
    const loads = [0, 1, 2, 3, 4].map((at) => given.filter(({ draftId }) => draftId === `d-p${at}`).length);
    // The two who wait from the second and fourth night on are taken up together; their drafts come first.
    expect(loads.reduce((sum, load) => sum + load, 0)).toBe(10);
    expect(Math.max(...loads) - Math.min(...loads)).toBeLessThanOrEqual(2);
  });

  it('lets nobody wait longer than set, if anybody is there', () => {
    for (const seed of [1, 2, 3, 4, 5]) {
      const random = seededRandom(seed);
      const arrivals = [4, ...Array.from({ length: 40 }, () => Math.floor(random() * 2.4))];
      const { waited, waiting, given } = season([...arrivals, 0, 0, 0], { party: 4, patience: 3 });
      expect(Math.max(...waited.values())).toBeLessThanOrEqual(3);
      expect(waiting).toEqual([]);
      expect(new Set(given.map(({ reviewerId, draftId }) => `${reviewerId} ${draftId}`)).size).toBe(given.length);
    }
  });

  it('cannot pair somebody with nobody', () => {
    const round = poolRound({
      ...everybody(1, 2),
      given: [],
      waiting: [{ id: 'p0', nights: 9 }],
      party: 2,
      patience: 1,
    });
    expect(round).toMatchObject({ pairs: [], waiting: [{ id: 'p0', reason: 'nothing-to-review' }] });
  });

  it.each([
    [{ party: 1 }, 'party-invalid'],
    [{ patience: -1 }, 'patience-invalid'],
    [{ waiting: [{ id: 'x', nights: 0 }] }, 'reviewer-unknown'],
    [{ waiting: [{ id: 'p0', nights: 0.5 }] }, 'nights-invalid'],
  ])('throws for %j', (wrong, code) => {
    const problem: PoolProblem = { ...everybody(2, 1), given: [], waiting: [], party: 2, patience: 1, ...wrong };
    expect(() => poolRound(problem)).toThrow(expect.objectContaining({ name: 'MisuseError', code }));
  });
});
