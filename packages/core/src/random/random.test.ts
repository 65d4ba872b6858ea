import { seededRandom, shuffled } from './random.js';

describe('seededRandom', () => {
  it('gives the same numbers for the same seed, in [0, 1)', () => {
    const take = (seed: number) => Array.from({ length: 1000 }, seededRandom(seed));
    expect(take(7)).toEqual(take(7));
    expect(take(7)).not.toEqual(take(8));
    for (const number of take(7)) expect(number >= 0 && number < 1).toBe(true);
  });

  // Pearson's chi-square with 15 degrees of freedom: 30.58 is the 0.99 quantile (any statistics table).
  it('spreads evenly over sixteen classes', () => {
    const random = seededRandom(1962);
    const classes = new Array<number>(16).fill(0);
    const draws = 16_000;
    for (let draw = 0; draw < draws; draw += 1) {
      const at = Math.floor(random() * 16);
      classes[at] = (classes[at] as number) + 1;
    }
    const chiSquare = classes.reduce((sum, count) => sum + (count - draws / 16) ** 2 / (draws / 16), 0);
    expect(chiSquare).toBeLessThan(30.58);
  });
});

describe('shuffled', () => {
  it('keeps every element, and leaves the list it was given', () => {
    const list = ['a', 'b', 'c', 'd'];
    expect(shuffled(list, seededRandom(3)).toSorted()).toEqual(list);
    expect(list).toEqual(['a', 'b', 'c', 'd']);
    expect(shuffled([], seededRandom(3))).toEqual([]);
  });

  // With 5 degrees of freedom the 0.99 quantile of chi-square is 15.09.
  it('gives each of the six orders of three alike often', () => {
    const random = seededRandom(1962);
    const counts = new Map<string, number>();
    const rounds = 6000;
    for (let round = 0; round < rounds; round += 1) {
      const order = shuffled(['a', 'b', 'c'], random).join('');
      counts.set(order, (counts.get(order) ?? 0) + 1);
    }
    expect(counts.size).toBe(6);
    const chiSquare = [...counts.values()].reduce((sum, count) => sum + (count - rounds / 6) ** 2 / (rounds / 6), 0);
    expect(chiSquare).toBeLessThan(15.09);
  });
});
