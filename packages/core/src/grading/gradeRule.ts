import { problem, type CoreProblem } from '../problem.js';
import type { GradePart, GradePartName } from '../setup/gradeParts.js';

/** From a share of a part on (0 to 1, of what was asked for), this share of it is given. */
export interface GradeStep {
  readonly from: number;
  readonly gives: number;
}

/** How what somebody did becomes the share that is given for a part. */
export interface PartRule {
  /** `all`: the whole or nothing; `proportion`: as much as was done; `steps`: what the highest step reached gives. */
  readonly how: 'all' | 'proportion' | 'steps';
  readonly steps: readonly GradeStep[];
  /** Below this share of what was asked for, nothing is given; 0 for none. */
  readonly minimum: number;
  /** It is added on top, and takes nothing from anybody. */
  readonly bonus: boolean;
}

export interface GradeBand {
  readonly name: string;
  /** In percent, from which on it is given. */
  readonly from: number;
}

/** What a grade is said in. Bands are the course's own. */
export type GradeScale =
  | { readonly kind: 'percent' }
  | { readonly kind: 'points'; readonly of: number }
  | { readonly kind: 'bands'; readonly bands: readonly GradeBand[] };

/** `half-up`: to the nearer one, from the middle up; `half-even`: from the middle to the even one; `down`: never more than was earned. */
export const ROUNDINGS = ['half-up', 'half-even', 'down'] as const;
export type Rounding = (typeof ROUNDINGS)[number];

/** How scores of peers become one. `practice`: weighted by how near each reviewer came to the key in practice. */
export const SCORE_METHODS = ['mean', 'median', 'trimmed', 'practice', 'adjusted'] as const;
export type ScoreMethod = (typeof SCORE_METHODS)[number];

/** Columns of what says how well somebody reviews; `closeness` to the other reviewers of a draft, `staff` to the review by staff. */
export const QUALITY_COLUMNS = ['closeness', 'staff', 'substance', 'helpfulness', 'mark'] as const;
export type QualityColumn = (typeof QUALITY_COLUMNS)[number];

export interface GradeRule {
  /** By part; one that is not named goes by {@link USUAL_PART_RULE}. */
  readonly parts: Readonly<Partial<Record<GradePartName, PartRule>>>;
  readonly scale: GradeScale;
  /** The grade is rounded to a multiple of this, once, at the end: 1, 0.5, 0.1 or 0.01, in percent or points. */
  readonly step: number;
  readonly rounding: Rounding;
  /** What is not there when grades are worked out: nothing, or left out of the sum until it is. */
  readonly missing: 'zero' | 'open';
  /** In percent: what a grade can come to at most, bonus included. */
  readonly most: number;
  readonly score: ScoreMethod;
  /** Students are shown between what bounds an adjusted score lies, and in what company their draft was read. */
  readonly scoreTold: boolean;
  /** Of the quality of reviewing: by column, 0 or more. */
  readonly quality: Readonly<Record<QualityColumn, number>>;
}

export const USUAL_PART_RULE: PartRule = { how: 'proportion', steps: [], minimum: 0, bonus: false };

export const USUAL_GRADE_RULE: GradeRule = {
  parts: {},
  scale: { kind: 'percent' },
  step: 1,
  rounding: 'half-up',
  missing: 'open',
  most: 100,
  score: 'mean',
  scoreTold: false,
  quality: { closeness: 0, staff: 0, substance: 0, helpfulness: 0, mark: 1 },
};

export const GRADE_STEPS = [1, 0.5, 0.1, 0.01] as const;
export const MOST_PERCENT = 200;
const MOST_POINTS = 10_000;

export type GradeRuleProblemCode =
  'grade-bands' | 'grade-band-name' | 'grade-points' | 'grade-steps' | 'grade-most' | 'grade-nothing' | 'grade-quality';

/** @param parts with their weights: those that are no bonus must come to something */
export function checkGradeRule(rule: GradeRule, parts: readonly GradePart[]): CoreProblem<GradeRuleProblemCode>[] {
  const problems: CoreProblem<GradeRuleProblemCode>[] = [];
  const { scale } = rule;
  if (scale.kind === 'points' && !(scale.of > 0 && scale.of <= MOST_POINTS)) {
    problems.push(problem('grade-points', ['scale', 'of'], { most: MOST_POINTS }));
  }
  if (scale.kind === 'bands') {
    const sorted = [...scale.bands].sort((a, b) => a.from - b.from);
    // Without one from 0 on, somebody would have no grade; two from one bound would be two grades.
    const lowest = sorted[0]?.from === 0;
    const apart = sorted.every((band, index) => index === 0 || band.from > (sorted[index - 1] as GradeBand).from);
    if (!lowest || !apart || sorted.some(({ from }) => !(from >= 0 && from <= MOST_PERCENT))) {
      problems.push(problem('grade-bands', ['scale', 'bands'], { most: MOST_PERCENT }));
    }
    scale.bands.forEach(({ name }, index) => {
      if (name.trim() === '')
        problems.push(problem('grade-band-name', ['scale', 'bands', index, 'name'], { band: index + 1 }));
    });
  }
  if (!(rule.most >= 100 && rule.most <= MOST_PERCENT))
    problems.push(problem('grade-most', ['most'], { most: MOST_PERCENT }));
  for (const [part, { how, steps, minimum }] of Object.entries(rule.parts)) {
    const fine = steps.every(({ from, gives }) => from >= 0 && from <= 1 && gives >= 0 && gives <= 1);
    const needed = how === 'steps' && steps.length === 0;
    if (!fine || needed || !(minimum >= 0 && minimum <= 1))
      problems.push(problem('grade-steps', ['parts', part], { part }));
  }
  const sum = parts.reduce((all, { part, weight }) => (rule.parts[part]?.bonus === true ? all : all + weight), 0);
  if (parts.length > 0 && !(sum > 0)) problems.push(problem('grade-nothing', ['parts'], {}));
  const quality = QUALITY_COLUMNS.map((column) => rule.quality[column]);
  const counts =
    quality.every((weight) => weight >= 0 && Number.isFinite(weight)) && quality.some((weight) => weight > 0);
  if (!counts) problems.push(problem('grade-quality', ['quality'], {}));
  return problems;
}
