import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { MisuseError } from '../problem.js';
import { adjustScores, type Adjusted } from './adjustScores.js';
import { normalQuantile } from './normalQuantile.js';
import type { Rating } from './ratingDesign.js';
import { course, COURSES } from './testing/courses.js';

interface Values {
  readonly name: string;
  readonly seed: number | null;
  readonly items: readonly string[];
  readonly fixed: readonly number[];
  /** Of draft, reviewer, review, and the rest. */
  readonly variances: readonly number[];
  readonly drafts: readonly string[];
  readonly draftEffects: readonly number[];
  readonly draftErrors?: readonly number[];
  readonly reviewers: readonly string[];
  readonly reviewerEffects: readonly number[];
  readonly reviewerErrors?: readonly number[];
  readonly ratings?: ReadonlyArray<readonly [string, string, number]>;
}

// Made by scripts/lme4-values.R: estimates of lme4, and standard errors from the mixed model equations solved in full.
const stored = JSON.parse(readFileSync(join(__dirname, 'testing', 'lme4.json'), 'utf8')) as { sets: Values[] };
const penicillin = stored.sets.find(({ name }) => name === 'Penicillin') as Values;

function ratingsOf({ name, seed, ratings }: Values): readonly Rating[] {
  const plan = COURSES[name];
  if (plan !== undefined && seed !== null) return course(plan, seed).ratings;
  return (ratings ?? []).map(([reviewerId, draftId, score]) => ({ reviewerId, draftId, score }));
}

/** All numbers of an outcome. */
function numbers(value: unknown): number[] {
  if (typeof value === 'number') return [value];
  return typeof value === 'object' && value !== null ? Object.values(value).flatMap(numbers) : [];
}

/** To 1e-4 of the value, or of what the values are about. */
function near(
  found: ReadonlyMap<string, number>,
  ids: readonly string[],
  values: readonly number[],
  size: number,
): void {
  expect(ids.length).toBeGreaterThan(2);
  ids.forEach((id, index) => {
    const wanted = values[index] as number;
    expect(Math.abs((found.get(id) as number) - wanted)).toBeLessThan(1e-4 * Math.max(Math.abs(wanted), size));
  });
}

const by = <T extends { readonly id: string }>(rows: readonly T[], of: (row: T) => number) =>
  new Map(rows.map((row) => [row.id, of(row)]));

describe('scores with severity taken out', () => {
  it.each(stored.sets.map((one) => [one.name, one] as const))('agree with lme4: %s', (_, values) => {
    const found = adjustScores(ratingsOf(values));
    const { draft, reviewer, review, residual } = found.variances;
    [draft, reviewer, review, residual].forEach((value, index) => {
      const wanted = values.variances[index] as number;
      if (wanted < 1e-9) expect(value).toBe(0);
      else expect(Math.abs(value / wanted - 1)).toBeLessThan(1e-4);
    });
    expect(found.mean).toBeCloseTo(values.fixed.reduce((sum, value) => sum + value, 0) / values.fixed.length, 6);
    expect(found.items.map(({ id }) => id)).toEqual(values.items);
    found.items.forEach(({ effect }, index) => expect(effect).toBeCloseTo(values.fixed[index] as number, 6));
    near(
      by(found.drafts, (one) => one.adjusted - found.mean),
      values.drafts,
      values.draftEffects,
      Math.sqrt(draft),
    );
    near(
      by(found.reviewers, ({ severity }) => -severity),
      values.reviewers,
      values.reviewerEffects,
      Math.sqrt(reviewer) || 1e-9,
    );
    if (values.draftErrors !== undefined)
      near(
        by(found.drafts, ({ se }) => se),
        values.drafts,
        values.draftErrors,
        0,
      );
    if (values.reviewerErrors !== undefined)
      near(
        by(found.reviewers, ({ se }) => se),
        values.reviewers,
        values.reviewerErrors,
        1e-9,
      );
  });

  it('gives what is published of the Penicillin data', () => {
    // Bates, D. (2010), lme4: Mixed-effects modeling with R, 2.1: REML estimates as printed, to their last place.
    const { variances, mean } = adjustScores(ratingsOf(penicillin));
    expect(variances.draft).toBeCloseTo(0.7169, 4);
    expect(variances.reviewer).toBeCloseTo(3.731, 2);
    expect(variances.residual).toBeCloseTo(0.3024, 4);
    expect(mean).toBeCloseTo(22.9722, 4);
  });

  it('is the analysis of variance where all is balanced', () => {
    // Two-way crossed and balanced, one score each: method of moments and REML agree (common practice of textbooks).
    const scores = [
      [9, 2, 5, 8],
      [6, 1, 3, 2],
      [8, 4, 6, 8],
      [7, 1, 2, 6],
      [10, 5, 6, 9],
      [6, 2, 4, 7],
    ];
    const { variances } = adjustScores(
      scores.flatMap((row, draft) =>
        row.map((score, reviewer) => ({ draftId: `d${draft}`, reviewerId: `r${reviewer}`, score })),
      ),
    );
    // Mean squares of the ratings of Shrout and Fleiss (1979): targets 11.2417, judges 32.4861, rest 1.0194.
    expect(variances.draft).toBeCloseTo((11.241667 - 1.019444) / 4, 4);
    expect(variances.reviewer).toBeCloseTo((32.486111 - 1.019444) / 6, 4);
    expect(variances.residual).toBeCloseTo(1.019444, 4);
  });

  it('does not hang on the order of the ratings, nor on the scale', () => {
    const { ratings } = course({ ...(COURSES['a fifth missing'] as (typeof COURSES)[string]) }, 11);
    const found = adjustScores(ratings);
    const turned = adjustScores([...ratings].reverse());
    const wider = adjustScores(ratings.map((one) => ({ ...one, score: 20 * one.score + 3 })));
    const of = ({ drafts }: Adjusted) => by(drafts, ({ adjusted }) => adjusted);
    for (const [id, adjusted] of of(found)) {
      expect(of(turned).get(id)).toBeCloseTo(adjusted, 6);
      expect(of(wider).get(id)).toBeCloseTo(20 * adjusted + 3, 4);
    }
  });

  it('widens its intervals with the confidence asked for', () => {
    const { ratings } = course(COURSES['three items'] as (typeof COURSES)[string], 3);
    const [usual] = adjustScores(ratings).drafts;
    const [wide] = adjustScores(ratings, { confidence: 0.99 }).drafts;
    expect(wide?.se).toBe(usual?.se);
    // Quantiles of the normal distribution as tables have them: 1.959964 and 2.575829.
    expect(((usual?.high ?? 0) - (usual?.adjusted ?? 0)) / (usual?.se ?? 1)).toBeCloseTo(1.959964, 6);
    expect(((wide?.high ?? 0) - (wide?.adjusted ?? 0)) / (wide?.se ?? 1)).toBeCloseTo(2.575829, 6);
    expect([normalQuantile(0.5), normalQuantile(0.84134474606854293)].map((one) => one.toFixed(9))).toEqual([
      '0.000000000',
      '1.000000000',
    ]);
  });
});

describe('in simulated courses', () => {
  const plan = { people: 60, reviewsEach: 3, items: 4, draft: 0.12, reviewer: 0.05, review: 0.04, residual: 0.1 };

  it('is nearer to the truth than the plain mean where a fifth is severe and a tenth careless', () => {
    let ofMeans = 0;
    let ofAdjusted = 0;
    for (let seed = 1; seed <= 40; seed += 1) {
      const { ratings, truth } = course({ ...plan, severe: 0.2, careless: 0.1 }, seed);
      const found = adjustScores(ratings);
      // Which drafts are better is what counts: both are taken about their mean, which severity moves for all alike.
      const middle = (of: (one: Adjusted['drafts'][number]) => number) =>
        found.drafts.reduce((sum, one) => sum + of(one), 0) / found.drafts.length;
      const worth = middle(({ id }) => truth.get(id) as number);
      const means = middle(({ mean }) => mean);
      const adjusted = middle((one) => one.adjusted);
      for (const one of found.drafts) {
        const real = (truth.get(one.id) as number) - worth;
        ofMeans += (one.mean - means - real) ** 2;
        ofAdjusted += (one.adjusted - adjusted - real) ** 2;
      }
    }
    expect(Math.sqrt(ofAdjusted / ofMeans)).toBeLessThan(0.8);
  });

  it('has the truth within 93 to 97 of 100 intervals', () => {
    let within = 0;
    let all = 0;
    for (let seed = 1; seed <= 60; seed += 1) {
      const { ratings, truth } = course(plan, 1000 + seed);
      for (const { id, low, high } of adjustScores(ratings).drafts) {
        const real = truth.get(id) as number;
        all += 1;
        within += low <= real && real <= high ? 1 : 0;
      }
    }
    expect(within / all).toBeGreaterThan(0.93);
    expect(within / all).toBeLessThan(0.97);
  });
});

describe('what is too little, or not fit, to adjust', () => {
  const rating = (reviewerId: string, draftId: string, score: number, itemId?: string): Rating => ({
    ...{ reviewerId, draftId, score },
    ...(itemId !== undefined && { itemId }),
  });
  const grid = (pairs: ReadonlyArray<readonly [string, string, number]>) =>
    pairs.map(([r, d, score]) => rating(r, d, score));

  it.each<[string, readonly Rating[], NonNullable<Adjusted['problem']>]>([
    ['no rating at all', [], { code: 'too-few', drafts: 0, reviewers: 0, ratings: 0 }],
    ['one review in all', [rating('a', 'x', 0.7)], { code: 'too-few', drafts: 1, reviewers: 1, ratings: 1 }],
    [
      'one reviewer',
      grid([
        ['a', 'x', 0.7],
        ['a', 'y', 0.5],
        ['a', 'z', 0.9],
      ]),
      { code: 'too-few', drafts: 3, reviewers: 1, ratings: 3 },
    ],
    [
      'one draft',
      grid([
        ['a', 'x', 0.7],
        ['b', 'x', 0.5],
        ['c', 'x', 0.9],
      ]),
      { code: 'too-few', drafts: 1, reviewers: 3, ratings: 3 },
    ],
    [
      'all scores equal',
      grid([
        ['a', 'x', 0.1],
        ['b', 'x', 0.1],
        ['a', 'y', 0.1],
        ['b', 'y', 0.1],
      ]),
      { code: 'no-spread' },
    ],
    [
      'each draft read once',
      grid([
        ['a', 'x', 0.7],
        ['a', 'y', 0.5],
        ['b', 'z', 0.9],
        ['b', 'w', 0.2],
      ]),
      { code: 'one-review-each', drafts: 4 },
    ],
  ])('gives the plain means: %s', (_, ratings, problem) => {
    const found = adjustScores(ratings);
    expect(found.problem).toEqual(problem);
    expect(numbers(found).every(Number.isFinite)).toBe(true);
    for (const { mean, adjusted, low, high } of found.drafts) {
      expect(adjusted).toBe(mean);
      expect(low <= mean && mean <= high).toBe(true);
    }
    expect(found.reviewers.every(({ severity }) => severity === 0)).toBe(true);
  });

  it('calls nobody severe where every reviewer reads one draft, and shrinks towards the mean', () => {
    const found = adjustScores(
      grid([
        ['a', 'x', 0.7],
        ['b', 'x', 0.75],
        ['c', 'y', 0.5],
        ['d', 'y', 0.4],
        ['e', 'z', 0.9],
        ['f', 'z', 0.8],
      ]),
    );
    expect(found.problem).toEqual({ code: 'one-draft-each', reviewers: 6 });
    expect(found.reviewers.every(({ severity }) => severity === 0)).toBe(true);
    const [first] = found.drafts;
    expect(first?.adjusted).toBeLessThan(first?.mean ?? 0);
    expect(first?.adjusted).toBeGreaterThan(found.mean);
  });

  it('says that a class falls into parts', () => {
    const island = (name: string, shift: number) =>
      grid(
        [0, 1, 2].flatMap((r) =>
          [0, 1, 2, 3].map(
            (d) => [`${name}r${r}`, `${name}d${d}`, shift + d * 0.1 + r * 0.03 + ((d * r) % 3) * 0.02] as const,
          ),
        ),
      );
    const more = island('c', 0.4).filter(({ draftId }) => draftId !== 'cd0');
    const found = adjustScores([...more, ...island('b', 0.6), ...island('a', 0.2)]);
    expect(found.problem).toEqual({ code: 'not-connected', drafts: [4, 4, 3] });
    expect(numbers(found).every(Number.isFinite)).toBe(true);
  });

  it('stays finite where a reviewer gives the top everywhere, where nothing is left over, and where items differ alone', () => {
    const top = course(COURSES['three items'] as (typeof COURSES)[string], 5).ratings.map((one) =>
      one.reviewerId === 'r0' ? { ...one, score: 1 } : one,
    );
    const exact = [0, 1, 2, 3].flatMap((d) => [0, 1, 2].map((r) => rating(`r${r}`, `d${d}`, 0.2 * d + 0.1 * r)));
    const items = [0, 1, 2].flatMap((d) =>
      [0, 1].flatMap((r) => ['i', 'j'].map((item) => rating(`r${r}`, `d${d}`, item === 'i' ? 0.3 : 0.6, item))),
    );
    for (const ratings of [top, exact, items]) expect(numbers(adjustScores(ratings)).every(Number.isFinite)).toBe(true);
    expect(adjustScores(items)).toMatchObject({ mean: expect.closeTo(0.45, 12), problem: { code: 'no-spread' } });
    // All of it is drafts and reviewers.
    for (const { mean, adjusted } of adjustScores(exact).drafts) expect(adjusted).toBeCloseTo(mean, 3);
  });

  it.each<[string, readonly Rating[], object]>([
    ['rating-twice', [rating('a', 'x', 1), rating('a', 'x', 1)], { reviewerId: 'a', draftId: 'x' }],
    ['rating-not-finite', [rating('a', 'x', NaN)], { reviewerId: 'a', draftId: 'x' }],
    ['rating-not-finite', [rating('a', 'x', 1), rating('b', 'y', Infinity)], { reviewerId: 'b', score: Infinity }],
    ['rating-items-mixed', [rating('a', 'x', 1), rating('a', 'x', 1, 'i')], { itemId: 'i' }],
  ])('throws %s', (code, ratings, fields) => {
    try {
      adjustScores(ratings);
    } catch (error) {
      expect(error).toBeInstanceOf(MisuseError);
      expect(error).toMatchObject({ code, fields });
      return;
    }
    throw new Error('nothing was thrown');
  });

  it('throws for a confidence that is none', () => {
    for (const confidence of [0, 1, NaN, -1]) expect(() => adjustScores([], { confidence })).toThrow(MisuseError);
  });
});
