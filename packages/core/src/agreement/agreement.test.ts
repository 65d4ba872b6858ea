import { sampleCorrelation, sampleRankCorrelation } from 'simple-statistics';
import { MisuseError } from '../problem.js';
import { seededRandom } from '../random/random.js';
import { blandAltman, pearson, spearman, type Pair } from './correlation.js';
import { intraclassCorrelation, ratingsNeeded, spearmanBrown } from './intraclassCorrelation.js';
import { krippendorffAlpha, type Unit } from './krippendorffAlpha.js';

describe('Krippendorff’s alpha', () => {
  // Krippendorff (2011), Computing Krippendorff's Alpha-Reliability, section D: four coders, twelve units, values missing.
  const coders: ReadonlyArray<ReadonlyArray<number | null>> = [
    [1, 2, 3, 3, 2, 1, 4, 1, 2, null, null, null],
    [1, 2, 3, 3, 2, 2, 4, 1, 2, 5, null, 3],
    [null, 3, 3, 3, 2, 3, 4, 2, 2, 5, 1, null],
    [1, 2, 3, 3, 2, 4, 4, 1, 2, 5, 1, null],
  ];
  const units: Unit[] = Array.from({ length: 12 }, (_, unit) => coders.map((coder) => coder[unit] ?? null));

  it.each([
    ['nominal', 0.743],
    ['ordinal', 0.815],
    ['interval', 0.849],
    ['ratio', 0.797],
  ] as const)('of the published data, %s: %f', (level, published) => {
    const found = krippendorffAlpha(units, level);
    expect(found.alpha).toBeCloseTo(published, 3);
    // The unit with one value tells nothing.
    expect([found.units, found.ratings]).toEqual([11, 40]);
    expect((found.interval?.low ?? 2) < (found.alpha ?? 0) && (found.alpha ?? 0) <= (found.interval?.high ?? 0)).toBe(
      true,
    );
  });

  it('is the same for the same seed, without any order of raters or units, and on any scale where only order counts', () => {
    expect(krippendorffAlpha(units, 'ordinal', { seed: 4 })).toEqual(krippendorffAlpha(units, 'ordinal', { seed: 4 }));
    const turned = [...units].reverse().map((unit) => [...unit].reverse());
    expect(krippendorffAlpha(turned, 'interval').alpha).toBeCloseTo(
      krippendorffAlpha(units, 'interval').alpha ?? 0,
      12,
    );
    const stretched = units.map((unit) => unit.map((value) => (value === null ? null : value ** 3)));
    expect(krippendorffAlpha(stretched, 'ordinal').alpha).toBeCloseTo(0.815, 3);
  });

  it('is 1 for the same throughout, about 0 for chance, and nothing where nothing can be compared', () => {
    const same = [1, 2, 3, 2].map((value) => [value, value, value]);
    expect(krippendorffAlpha(same, 'interval').alpha).toBe(1);
    const random = seededRandom(5);
    const chance = Array.from({ length: 800 }, () => [random(), random(), random()]);
    expect(Math.abs(krippendorffAlpha(chance, 'interval', { resamples: 0 }).alpha ?? 1)).toBeLessThan(0.05);
    for (const nothing of [
      [],
      [
        [1, null],
        [null, 2],
      ],
      [
        [3, 3],
        [3, 3],
      ],
    ]) {
      expect(krippendorffAlpha(nothing, 'interval')).toMatchObject({ alpha: null, interval: null });
    }
    expect(() => krippendorffAlpha([[1, NaN]], 'nominal')).toThrow(MisuseError);
    expect(() => krippendorffAlpha([[1, -1]], 'ratio')).toThrow(MisuseError);
  });
});

describe('intraclass correlation', () => {
  // Shrout and Fleiss (1979), tables 2 and 4: six targets, four judges.
  const rows = [
    [9, 2, 5, 8],
    [6, 1, 3, 2],
    [8, 4, 6, 8],
    [7, 1, 2, 6],
    [10, 5, 6, 9],
    [6, 2, 4, 7],
  ];

  it('has the six forms as published', () => {
    const { oneWay, twoWayRandom, twoWayMixed } = intraclassCorrelation(rows);
    const found = [oneWay, twoWayRandom, twoWayMixed].flatMap(({ single, average }) => [single, average]);
    expect(found.map((value) => value?.toFixed(2))).toEqual(['0.17', '0.44', '0.29', '0.62', '0.71', '0.91']);
    // The mean of all is what Spearman and Brown say of one.
    expect(twoWayMixed.average).toBeCloseTo(spearmanBrown(twoWayMixed.single ?? 0, 4), 12);
    expect(oneWay.average).toBeCloseTo(spearmanBrown(oneWay.single ?? 0, 4), 12);
  });

  it('is nothing where nobody differs, and throws for what cannot be', () => {
    expect(
      intraclassCorrelation([
        [2, 2],
        [2, 2],
      ]).oneWay,
    ).toEqual({ single: null, average: null });
    for (const wrong of [
      [],
      [[1, 2]],
      [[1], [2]],
      [[1, 2], [1]],
      [
        [1, 2],
        [1, NaN],
      ],
    ]) {
      expect(() => intraclassCorrelation(wrong)).toThrow(MisuseError);
    }
  });

  it('says how many ratings are needed', () => {
    // By hand: of 0.4, three give 1.2 / 1.8; for 0.8 it takes 0.48 / 0.08 = 6.
    expect(spearmanBrown(0.4, 3)).toBeCloseTo(2 / 3, 12);
    expect(ratingsNeeded(0.4, 0.8)).toBeCloseTo(6, 12);
    expect([ratingsNeeded(0, 0.8), ratingsNeeded(1, 0.8), ratingsNeeded(-0.2, 0.8)]).toEqual([null, null, null]);
  });
});

describe('correlations', () => {
  it('agree with a general-purpose package, ties included', () => {
    const random = seededRandom(9);
    for (let size = 3; size < 40; size += 1) {
      const pairs = Array.from({ length: size }, (): Pair => [Math.floor(random() * 9), Math.floor(random() * 6)]);
      const [first, second] = [pairs.map(([a]) => a), pairs.map(([, b]) => b)];
      if (new Set(first).size === 1 || new Set(second).size === 1) continue;
      expect(pearson(pairs)).toBeCloseTo(sampleCorrelation(first, second), 10);
      // The package gives equal values ranks of their own: only without any can the two be compared.
      const apart = pairs.map(([a, b], index): Pair => [a + index / 1000, b + ((index * 7) % size) / 1000]);
      const ranked = sampleRankCorrelation(
        apart.map(([a]) => a),
        apart.map(([, b]) => b),
      );
      expect(spearman(apart)).toBeCloseTo(ranked, 10);
    }
    // By hand: ranks 1.5, 1.5, 3, 4 against 1, 2, 3, 4.
    expect(
      spearman([
        [1, 1],
        [1, 2],
        [2, 3],
        [3, 4],
      ]),
    ).toBeCloseTo(4.5 / Math.sqrt(4.5 * 5), 12);
    expect([
      pearson([]),
      pearson([[1, 2]]),
      pearson([
        [1, 2],
        [1, 3],
      ]),
    ]).toEqual([null, null, null]);
  });

  it('has the limits of agreement as published', () => {
    // Bland and Altman (1986), table 1: peak flow of 17 people, first readings with a large and a mini meter; values from memory.
    const large = [494, 395, 516, 434, 476, 557, 413, 442, 650, 433, 417, 656, 267, 478, 178, 423, 427];
    const mini = [512, 430, 520, 428, 500, 600, 364, 380, 658, 445, 432, 626, 260, 477, 259, 350, 451];
    const found = blandAltman(large.map((value, index) => [value, mini[index] as number]));
    expect(found?.difference).toBeCloseTo(-2.1, 1);
    expect(found?.deviation).toBeCloseTo(38.8, 1);
    expect(found?.low).toBeCloseTo(-79.7, 0);
    expect(found?.high).toBeCloseTo(75.5, 0);
    expect(pearson(large.map((value, index) => [value, mini[index] as number]))).toBeCloseTo(0.94, 2);
    expect(blandAltman([[1, 2]])).toBeNull();
  });
});
