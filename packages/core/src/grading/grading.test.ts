import type { GradePart, GradePartName } from '../setup/gradeParts.js';
import { gradeOf, rounded, shareOf, type GradeEvidence, type Override, type PartEvidence } from './gradeOf.js';
import { checkGradeRule, USUAL_GRADE_RULE, USUAL_PART_RULE, type GradeRule, type PartRule } from './gradeRule.js';
import { peerScore, weightedScore } from './peerScore.js';
import { shareOut } from './shareOut.js';
import { closenessToOthers, qualityOf, substanceOf } from './reviewingQuality.js';

const done = (got: number | null, of = 1): PartEvidence => ({ got, of, excused: false });
const EXCUSED: PartEvidence = { got: null, of: 1, excused: true };
const given = (value: number, computed: number | null, reason = 'Talked it over.'): Override => ({
  value,
  reason,
  computed,
});

type Parts = Partial<Record<GradePartName, number>>;
interface Case {
  readonly weights: Parts;
  readonly parts?: GradeEvidence['parts'];
  readonly rule?: Partial<GradeRule>;
  readonly late?: number;
  readonly overrides?: GradeEvidence['overrides'];
  readonly override?: Override;
}

function grade({ weights, parts = {}, rule = {}, late = 0, overrides = {}, override }: Case) {
  const list = Object.entries(weights).map(([part, weight]) => ({ part, weight }) as GradePart);
  const evidence = { parts, lateLoses: late, overrides, override: override ?? null };
  return gradeOf(list, { ...USUAL_GRADE_RULE, ...rule }, evidence);
}

const rule = (part: Partial<PartRule>): PartRule => ({ ...USUAL_PART_RULE, ...part });
const TENTH = { step: 0.1 };

// Worked out by hand, as grades are in common practice; no published source.
describe('grades', () => {
  it.each<[string, Case, string | null]>([
    ['all of one part', { weights: { 'handing-in': 10 }, parts: { 'handing-in': done(1) } }, '100%'],
    ['nothing of it', { weights: { 'handing-in': 10 }, parts: { 'handing-in': done(0) } }, '0%'],
    ['two of three reviews', { weights: { 'reviews-done': 1 }, parts: { 'reviews-done': done(2, 3) } }, '67%'],
    ['… to a tenth', { weights: { 'reviews-done': 1 }, parts: { 'reviews-done': done(2, 3) }, rule: TENTH }, '66.7%'],
    [
      '… rounded down',
      { weights: { 'reviews-done': 1 }, parts: { 'reviews-done': done(2, 3) }, rule: { rounding: 'down' } },
      '66%',
    ],
    ['more notes than asked for', { weights: { 'notes-made': 1 }, parts: { 'notes-made': done(7, 4) } }, '100%'],
    [
      'three of four notes: 7.5 of 10',
      {
        weights: { 'notes-made': 1 },
        parts: { 'notes-made': done(3, 4) },
        rule: { scale: { kind: 'points', of: 10 }, step: 0.5 },
      },
      '7.5 of 10',
    ],
    [
      'excused from one of three reviews: two of two',
      { weights: { 'reviews-done': 1 }, parts: { 'reviews-done': done(2, 2) } },
      '100%',
    ],
    [
      'two parts, half each',
      {
        weights: { 'handing-in': 50, 'reviews-done': 50 },
        parts: { 'handing-in': done(1), 'reviews-done': done(1, 2) },
      },
      '75%',
    ],
    [
      'weights of any sum',
      { weights: { 'handing-in': 1, 'reviews-done': 3 }, parts: { 'handing-in': done(1), 'reviews-done': done(1, 2) } },
      '63%',
    ],
    [
      'five parts of unequal weights',
      {
        // 10 + 20·⅔ + 15·0.9 + 40·0.82 + 15·0.75 = 10 + 13.33 + 13.5 + 32.8 + 11.25 = 80.88
        weights: { 'handing-in': 10, 'reviews-done': 20, 'form-completed': 15, 'peer-score': 40, 'notes-made': 15 },
        parts: {
          'handing-in': done(1),
          'reviews-done': done(2, 3),
          'form-completed': done(9, 10),
          'peer-score': done(0.82),
          'notes-made': done(3, 4),
        },
        rule: TENTH,
      },
      '80.9%',
    ],
    [
      'one excused part leaves the sum',
      { weights: { 'handing-in': 40, reflection: 60 }, parts: { 'handing-in': done(1), reflection: EXCUSED } },
      '100%',
    ],
    ['all excused: no grade', { weights: { reflection: 60 }, parts: { reflection: EXCUSED } }, null],
    [
      'open parts leave it',
      {
        weights: { 'handing-in': 40, 'instructor-mark': 60 },
        parts: { 'handing-in': done(1), 'instructor-mark': done(null) },
      },
      '100%',
    ],
    [
      '… or are zero',
      {
        weights: { 'handing-in': 40, 'instructor-mark': 60 },
        parts: { 'handing-in': done(1) },
        rule: { missing: 'zero' },
      },
      '40%',
    ],
    [
      'an excused part is never zero',
      {
        weights: { 'handing-in': 40, reflection: 60 },
        parts: { 'handing-in': done(1), reflection: EXCUSED },
        rule: { missing: 'zero' },
      },
      '100%',
    ],
    ['no data at all', { weights: { 'instructor-mark': 1 } }, null],
    ['no parts', { weights: {} }, null],
    // 10 percentage points a started day, two days: 20; capped at 15.
    [
      'late by two started days with a cap',
      { weights: { 'peer-score': 1 }, parts: { 'peer-score': done(0.9) }, late: 15 },
      '75%',
    ],
    [
      'late loses no more than there is',
      { weights: { 'peer-score': 1 }, parts: { 'peer-score': done(0.1) }, late: 30 },
      '0%',
    ],
    [
      'late loses of the grade, not of a part',
      {
        weights: { 'handing-in': 50, 'peer-score': 50 },
        parts: { 'handing-in': done(1), 'peer-score': done(0.8) },
        late: 5,
      },
      '85%',
    ],
    [
      'all or nothing: not all',
      {
        weights: { 'reviews-done': 1 },
        parts: { 'reviews-done': done(2, 3) },
        rule: { parts: { 'reviews-done': rule({ how: 'all' }) } },
      },
      '0%',
    ],
    [
      'all or nothing: all',
      {
        weights: { 'reviews-done': 1 },
        parts: { 'reviews-done': done(3, 3) },
        rule: { parts: { 'reviews-done': rule({ how: 'all' }) } },
      },
      '100%',
    ],
    [
      'in steps: half for half, all from eight of ten on',
      {
        weights: { 'form-completed': 1 },
        parts: { 'form-completed': done(7, 10) },
        rule: {
          parts: {
            'form-completed': rule({
              how: 'steps',
              steps: [
                { from: 0.8, gives: 1 },
                { from: 0.5, gives: 0.5 },
              ],
            }),
          },
        },
      },
      '50%',
    ],
    [
      'below the lowest step',
      {
        weights: { 'form-completed': 1 },
        parts: { 'form-completed': done(4, 10) },
        rule: { parts: { 'form-completed': rule({ how: 'steps', steps: [{ from: 0.5, gives: 1 }] }) } },
      },
      '0%',
    ],
    [
      'on a step, exactly',
      {
        weights: { 'form-completed': 1 },
        parts: { 'form-completed': done(0.1 + 0.2, 1) },
        rule: { parts: { 'form-completed': rule({ how: 'steps', steps: [{ from: 0.3, gives: 1 }] }) } },
      },
      '100%',
    ],
    [
      'a part with a minimum, not reached',
      {
        weights: { 'notes-made': 1 },
        parts: { 'notes-made': done(1, 4) },
        rule: { parts: { 'notes-made': rule({ minimum: 0.5 }) } },
      },
      '0%',
    ],
    [
      'a part with a minimum, reached',
      {
        weights: { 'notes-made': 1 },
        parts: { 'notes-made': done(2, 4) },
        rule: { parts: { 'notes-made': rule({ minimum: 0.5 }) } },
      },
      '50%',
    ],
    [
      'a bonus of five on top',
      {
        weights: { 'peer-score': 100, reflection: 5 },
        parts: { 'peer-score': done(0.9), reflection: done(1) },
        rule: { parts: { reflection: rule({ bonus: true }) } },
      },
      '95%',
    ],
    [
      'a bonus, not earned, takes nothing',
      {
        weights: { 'peer-score': 100, reflection: 5 },
        parts: { 'peer-score': done(0.9), reflection: done(0) },
        rule: { parts: { reflection: rule({ bonus: true }) } },
      },
      '90%',
    ],
    [
      'a bonus up to the most',
      {
        weights: { 'peer-score': 100, reflection: 20 },
        parts: { 'peer-score': done(0.9), reflection: done(1) },
        rule: { parts: { reflection: rule({ bonus: true }) } },
      },
      '100%',
    ],
    [
      'a bonus beyond a hundred, where that is allowed',
      {
        weights: { 'peer-score': 100, reflection: 20 },
        parts: { 'peer-score': done(0.9), reflection: done(1) },
        rule: { most: 110, parts: { reflection: rule({ bonus: true }) } },
      },
      '110%',
    ],
    [
      'a bonus alone is no grade',
      {
        weights: { reflection: 5 },
        parts: { reflection: done(1) },
        rule: { parts: { reflection: rule({ bonus: true }) } },
      },
      null,
    ],
    [
      'a part overridden',
      {
        weights: { 'peer-score': 50, 'handing-in': 50 },
        parts: { 'peer-score': done(0.9), 'handing-in': done(1) },
        overrides: { 'peer-score': given(0.92, 0.9) },
      },
      '96%',
    ],
    [
      'an excused part overridden counts',
      {
        weights: { 'peer-score': 50, 'handing-in': 50 },
        parts: { 'peer-score': EXCUSED, 'handing-in': done(1) },
        overrides: { 'peer-score': given(0.5, null) },
      },
      '75%',
    ],
    [
      'the whole overridden',
      { weights: { 'peer-score': 1 }, parts: { 'peer-score': done(0.4) }, override: given(60, 40) },
      '60%',
    ],
    ['… and taken back', { weights: { 'peer-score': 1 }, parts: { 'peer-score': done(0.4) } }, '40%'],
    [
      'half points',
      {
        weights: { 'peer-score': 1 },
        parts: { 'peer-score': done(0.86) },
        rule: { scale: { kind: 'points', of: 20 }, step: 0.5 },
      },
      '17 of 20',
    ],
    [
      '… in the middle, up',
      {
        weights: { 'peer-score': 1 },
        parts: { 'peer-score': done(17.25, 20) },
        rule: { scale: { kind: 'points', of: 20 }, step: 0.5 },
      },
      '17.5 of 20',
    ],
    [
      '… in the middle, to the even one',
      {
        weights: { 'peer-score': 1 },
        parts: { 'peer-score': done(17.25, 20) },
        rule: { scale: { kind: 'points', of: 20 }, step: 0.5, rounding: 'half-even' },
      },
      '17 of 20',
    ],
    [
      '84.5 is half-way, whatever binary numbers make of it',
      { weights: { 'peer-score': 1 }, parts: { 'peer-score': done(0.845) } },
      '85%',
    ],
  ])('%s', (_, given, wanted) => {
    expect(grade(given).words).toBe(wanted);
  });

  const bands: GradeRule['scale'] = {
    kind: 'bands',
    bands: [
      { name: 'not yet', from: 0 },
      { name: 'sound', from: 50 },
      { name: 'strong', from: 80 },
    ],
  };
  it.each([
    [0, 'not yet'],
    [49.4, 'not yet'],
    // Rounded once, at the end, and then looked up.
    [49.5, 'sound'],
    [79.99, 'strong'],
    [100, 'strong'],
  ])('in bands of the course: %f is “%s”', (percent, name) => {
    expect(
      grade({ weights: { 'peer-score': 1 }, parts: { 'peer-score': done(percent, 100) }, rule: { scale: bands } })
        .words,
    ).toBe(name);
  });

  it('opens into lines that add up', () => {
    const found = grade({
      weights: { 'handing-in': 10, 'reviews-done': 30, 'peer-score': 40, reflection: 20, 'instructor-mark': 20 },
      parts: {
        'handing-in': done(1),
        'reviews-done': done(2, 3),
        'peer-score': done(0.8),
        reflection: EXCUSED,
        'instructor-mark': done(null),
      },
      late: 4,
      rule: { step: 0.01 },
    });
    expect(found.weights).toBe(80);
    expect(found.lines.map(({ part, state, brings }) => [part, state, brings])).toEqual([
      ['handing-in', 'counts', 12.5],
      ['reviews-done', 'counts', 25],
      ['peer-score', 'counts', 40],
      ['reflection', 'excused', 0],
      ['instructor-mark', 'open', 0],
    ]);
    const sum = found.lines.reduce((all, { brings }) => all + brings, 0);
    expect(found.percent).toBeCloseTo(sum - found.lateLoses, 12);
    expect([found.words, found.open]).toEqual(['73.5%', true]);
  });

  it('keeps what was worked out beside an override, and says when that has changed', () => {
    const at = (got: number) =>
      grade({
        weights: { 'peer-score': 1 },
        parts: { 'peer-score': done(got) },
        overrides: { 'peer-score': given(0.92, 0.9) },
      });
    expect(at(0.9).lines[0]).toMatchObject({ computed: 0.9, share: 0.92, changed: false });
    expect(at(0.7).lines[0]).toMatchObject({ computed: 0.7, share: 0.92, changed: true });
    const whole = (got: number) =>
      grade({ weights: { 'peer-score': 1 }, parts: { 'peer-score': done(got) }, override: given(60, 40) });
    expect([whole(0.4).changed, whole(0.5).changed, whole(0.5).computed, whole(0.5).percent]).toEqual([
      false,
      true,
      50,
      60,
    ]);
  });

  it('rounds to steps without what binary numbers add', () => {
    expect([
      rounded(0.1 + 0.2, 0.1, 'half-up'),
      rounded(2.5, 1, 'half-even'),
      rounded(3.5, 1, 'half-even'),
      rounded(2.999999999999, 1, 'down'),
    ]).toEqual([0.3, 2, 4, 3]);
    expect(shareOf(-1, USUAL_PART_RULE)).toBe(0);
  });
});

describe('rules of grades', () => {
  const check = (part: Partial<GradeRule>, parts: readonly GradePart[] = [{ part: 'peer-score', weight: 1 }]) =>
    checkGradeRule({ ...USUAL_GRADE_RULE, ...part }, parts).map(({ code }) => code);

  it.each<[string, Partial<GradeRule>, string[]]>([
    ['the usual one', {}, []],
    ['points of nothing', { scale: { kind: 'points', of: 0 } }, ['grade-points']],
    ['bands without a lowest', { scale: { kind: 'bands', bands: [{ name: 'A', from: 50 }] } }, ['grade-bands']],
    [
      'two bands from one bound',
      {
        scale: {
          kind: 'bands',
          bands: [
            { name: 'B', from: 0 },
            { name: 'A', from: 0 },
          ],
        },
      },
      ['grade-bands'],
    ],
    ['no bands', { scale: { kind: 'bands', bands: [] } }, ['grade-bands']],
    ['a band without a name', { scale: { kind: 'bands', bands: [{ name: ' ', from: 0 }] } }, ['grade-band-name']],
    ['less than all at most', { most: 90 }, ['grade-most']],
    ['steps without any', { parts: { reflection: rule({ how: 'steps' }) } }, ['grade-steps']],
    [
      'a step that gives more than all',
      { parts: { reflection: rule({ how: 'steps', steps: [{ from: 0, gives: 2 }] }) } },
      ['grade-steps'],
    ],
    ['parts that are all bonus', { parts: { 'peer-score': rule({ bonus: true }) } }, ['grade-nothing']],
    [
      'quality of nothing',
      { quality: { closeness: 0, staff: 0, substance: 0, helpfulness: 0, mark: 0 } },
      ['grade-quality'],
    ],
  ])('%s', (_, part, codes) => {
    expect(check(part)).toEqual(codes);
  });
});

describe('what grades are made from', () => {
  it('makes one score of several', () => {
    expect(peerScore([0.6, 0.9, 0.75], 'mean')).toBeCloseTo(0.75, 12);
    expect([peerScore([0.6, 0.9, 0.7], 'median'), peerScore([0.6, 0.9], 'median')]).toEqual([0.7, 0.75]);
    expect(peerScore([0, 0.5, 0.6, 0.7, 1], 'trimmed')).toBeCloseTo(0.6, 12);
    expect(peerScore([0, 0.6, 0.6, 1], 'trimmed')).toBeCloseTo(0.55, 12);
    expect(peerScore([], 'mean')).toBeNull();
    const given = (...pairs: Array<readonly [score: number, weight: number | null]>) =>
      weightedScore(pairs.map(([score, weight]) => ({ score, weight })));
    // (1 × 0.9 + 0 × 0.3) / 1.2
    expect(given([1, 0.9], [0, 0.3])).toBeCloseTo(0.75, 12);
    // Who has not practised counts as the others do on average: 0.45.
    expect(given([1, 0.9], [0.4, 0], [0, null])).toBeCloseTo(0.9 / 1.35, 12);
    expect([given([1, 0], [0.5, 0]), given([1, null], [0.5, null]), given()]).toEqual([0.75, 0.75, null]);
  });

  it('holds a reviewer against the others, without the own score', () => {
    expect(
      closenessToOthers([
        { own: 0.9, others: [0.5, 0.7] },
        { own: 0.4, others: [0.4] },
      ]),
    ).toBeCloseTo(0.85, 12);
    expect(closenessToOthers([{ own: 0.9, others: [] }])).toBeNull();
  });

  it('says how substantial reviews are, and weighs the columns that there are', () => {
    expect(
      substanceOf([
        { words: 200, notes: 5, directed: 3 },
        { words: 0, notes: 0, directed: 0 },
      ]),
    ).toBeCloseTo(0.5, 12);
    expect(substanceOf([])).toBeNull();
    const weights = { closeness: 1, staff: 0, substance: 1, helpfulness: 2, mark: 0 };
    expect(qualityOf({ closeness: 0.8, staff: 0.1, substance: 0.4, helpfulness: null, mark: 1 }, weights)).toBeCloseTo(
      0.6,
      12,
    );
    expect(
      qualityOf({ closeness: null, staff: null, substance: null, helpfulness: null, mark: 1 }, weights),
    ).toBeNull();
  });
});

describe('sharing out', () => {
  const people = ['a', 'b', 'c', 'd', 'e'].map((id) => ({ id, section: id < 'd' ? '1' : '2' }));
  const counts = (shared: ReadonlyMap<string, string>) =>
    Object.fromEntries(['x', 'y', 'z'].map((one) => [one, [...shared.values()].filter((to) => to === one).length]));

  it('goes in turn, or by whole sections to whoever has least', () => {
    expect(counts(shareOut(people, ['x', 'y'], 'evenly'))).toEqual({ x: 3, y: 2, z: 0 });
    const bySection = shareOut(people, ['x', 'y', 'z'], 'sections');
    expect([...bySection]).toEqual([
      ['a', 'x'],
      ['b', 'x'],
      ['c', 'x'],
      ['d', 'y'],
      ['e', 'y'],
    ]);
    const alone = shareOut(
      people.map(({ id }) => ({ id, section: null })),
      ['x', 'y'],
      'sections',
    );
    expect(counts(alone)).toEqual({ x: 5, y: 0, z: 0 });
    expect(shareOut([], ['x'], 'evenly').size).toBe(0);
    expect(() => shareOut(people, [], 'evenly')).toThrow('nobody to share out to');
  });
});
