import { allocate } from './allocate.js';
import { Reference, type Highs } from './testing/highs.js';
import { mixedProblem } from './testing/problems.js';
import { assertSound } from './testing/sound.js';

let highs: Highs;
beforeAll(async () => {
  const { default: load } = (await import('highs')) as unknown as { default: () => Promise<Highs> };
  highs = await load();
});

describe('allocate, beside a general-purpose solver', () => {
  const seeds = [...Array(200).keys()];
  const totals = { ours: 0, theirs: 0, compared: 0 };

  it.each(seeds)('places, balances and avoids repeats as well as can be: seed %i', (seed) => {
    const size = seed % 4 === 0 ? 40 : 16;
    const problem = mixedProblem(seed, { people: [3, size], capacity: 4, groups: seed % 5 === 0 });
    const result = allocate(problem);
    assertSound(problem, result);
    const { placed, balance, repeats, mutual } = result.quality;
    // Where there are none here, nobody can have fewer.
    const theirs = new Reference(highs, problem).solve(mutual.reached > 0);
    expect([-placed.reached, balance.squares, repeats.reached]).toEqual(theirs.slice(0, 3));
    if (theirs[3] === null) return;
    totals.ours += mutual.reached;
    totals.theirs += theirs[3];
    totals.compared += 1;
    expect(mutual.bound).toBeLessThanOrEqual(theirs[3]);
  });

  it('has at most a tenth more mutual pairs in all', () => {
    expect(totals.compared).toBeGreaterThan(40);
    expect(totals.ours).toBeLessThanOrEqual(1.1 * totals.theirs);
  });
});
