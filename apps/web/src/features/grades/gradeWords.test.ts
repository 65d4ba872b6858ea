import type { GradeGroundsView } from '@salt-circle/contracts';
import { gradeOf, USUAL_GRADE_RULE, type GradeEvidence, type GradePart, type GradeRule } from '@salt-circle/core';
import { doneWords, roundingWords, ruleWords, sumWords } from './gradeWords.js';

const GROUNDS: GradeGroundsView = {
  reviews: 2,
  scores: [0.5, 0.75],
  interval: null,
  company: null,
  quality: { closeness: 0.9, staff: null, substance: null, helpfulness: null, mark: 0.5 },
  late: { percent: 0, points: 0 },
};
const PARTS: GradePart[] = [
  { part: 'notes-made', weight: 10 },
  { part: 'peer-score', weight: 30 },
  { part: 'reflection', weight: 10 },
];
const there = (got: number, of = 1) => ({ got, of, excused: false });

function grade(part: Partial<GradeEvidence> = {}, rule: GradeRule = USUAL_GRADE_RULE) {
  const parts = {
    'notes-made': there(3, 4),
    'peer-score': there(0.625),
    reflection: { got: null, of: 1, excused: true },
  };
  return gradeOf(PARTS, rule, { parts, lateLoses: 0, overrides: {}, override: null, ...part });
}

describe('a grade in words', () => {
  it('says of each part what was done, and how it counts', () => {
    const { lines } = grade();
    expect(
      lines.map((line) => [doneWords(line, GROUNDS, USUAL_GRADE_RULE), ruleWords(line, USUAL_GRADE_RULE)]),
    ).toEqual([
      ['3 of 4 notes asked for', 'in proportion'],
      ['62.5%, the mean from 2 reviews', ''],
      ['nothing was asked', ''],
    ]);
    const interval = { ...GROUNDS, interval: { low: 0.5, high: 0.7 } };
    const severe = { ...USUAL_GRADE_RULE, score: 'adjusted' as const };
    expect(doneWords(lines[1] as (typeof lines)[number], interval, severe)).toContain(
      'between 50% and 70% 95 times in 100',
    );
  });

  it('gives the sum so that it can be worked out again', () => {
    expect(sumWords(grade(), USUAL_GRADE_RULE)).toBe('(10 × 75 + 30 × 62.5) ÷ 40 = 65.63 percent.');
    expect(sumWords(grade({ lateLoses: 80 }), USUAL_GRADE_RULE)).toBe(
      '(10 × 75 + 30 × 62.5) ÷ 40 − 80 for being late = -14.38 percent, not below 0.',
    );
    expect(sumWords(grade({ parts: {} }), USUAL_GRADE_RULE)).toBe('Nothing counts yet, so there is no grade.');
    expect(roundingWords(USUAL_GRADE_RULE)).toBe('Rounded to 1 percent: nearest, ties up.');
    expect(roundingWords({ ...USUAL_GRADE_RULE, scale: { kind: 'points', of: 20 }, step: 0.5 })).toBe(
      'Rounded to 0.5 points of 20: nearest, ties up.',
    );
  });
});
