import fc from 'fast-check';
import { weightedKappa } from './weightedKappa.js';

/** As many pairs as a table of counts says, rows for the first rater. */
function pairsOf(table: readonly (readonly number[])[]): Array<readonly [number, number]> {
  return table.flatMap((row, a) =>
    row.flatMap((count, b) => Array.from({ length: count }, (): readonly [number, number] => [a, b])),
  );
}

describe('weighted kappa', () => {
  // Cohen (1968), table 1: 200 patients, two psychiatrists; personality disorder, neurosis, psychosis. From memory; the published
  // results are an unweighted kappa of .492 and a weighted one of .348.
  const PATIENTS = pairsOf([
    [88, 14, 18],
    [10, 40, 10],
    [2, 6, 12],
  ]);
  const WEIGHTS = [
    [0, 1, 3],
    [1, 0, 6],
    [3, 6, 0],
  ];

  it('is what Cohen (1968) published for his diagnoses', () => {
    expect(weightedKappa(PATIENTS, 3, (a, b) => WEIGHTS[a]?.[b] ?? 0)).toBeCloseTo(0.348, 3);
    expect(weightedKappa(PATIENTS, 3, (a, b) => (a === b ? 0 : 1))).toBeCloseTo(0.492, 3);
  });

  it('worked by hand: four drafts, three levels', () => {
    // Observed distance 1 + 0 + 0 + 1 = 2. By chance: first rates 0, 1, 2, 2, second 1, 1, 2, 1;
    // the sixteen distances are 1 1 2 1, 0 0 1 0, 1 1 0 1, 1 1 0 1: 12. Kappa = 1 - 2 * 4 / 12.
    expect(
      weightedKappa(
        [
          [0, 1],
          [1, 1],
          [2, 2],
          [2, 1],
        ],
        3,
      ),
    ).toBeCloseTo(1 / 3, 12);
  });

  it('is 1 for the same throughout, never more, and the same whoever is first', () => {
    const ratings = fc.array(fc.tuple(fc.nat(4), fc.nat(4)), { minLength: 1, maxLength: 30 });
    fc.assert(
      fc.property(ratings, (pairs) => {
        const value = weightedKappa(pairs, 5);
        const swapped = weightedKappa(
          pairs.map(([a, b]) => [b, a] as const),
          5,
        );
        const perfect = weightedKappa(
          pairs.map(([a]) => [a, a] as const),
          5,
        );
        expect(value ?? 0).toBeLessThanOrEqual(1);
        expect(swapped ?? 0).toBeCloseTo(value ?? 0, 10);
        expect([1, null]).toContain(perfect);
      }),
      { seed: 20261126 },
    );
  });

  it('is not a number where there is nothing to tell from chance, and refuses what is no category', () => {
    expect(weightedKappa([], 3)).toBeNull();
    expect(weightedKappa(pairsOf([[5]]), 3)).toBeNull();
    expect(() => weightedKappa([[0, 3]], 3)).toThrow('3 is not one of 3 categories');
  });
});
