import { say } from '../words/defaults.js';
import type { Grade } from '../grading/gradeOf.js';
import type { GradeRule } from '../grading/gradeRule.js';
import type { GradePartName } from '../setup/gradeParts.js';
import { fieldsOf, textOf, type Fields } from './reading.js';

/** Every column of a platform's gradebook counts to so many: grades are passed on in percent. */
export const COLUMN_MAXIMUM = 100;

/** What the gradebook of a platform is told of somebody. `excused` and `open` have no score. */
export interface LtiScore {
  readonly state: 'graded' | 'excused' | 'open';
  /** 0 or more, mostly up to {@link COLUMN_MAXIMUM}; null without a grade. */
  readonly value: number | null;
  /** In words, for the person. */
  readonly comment: string;
}

/**
 * The body of a score (Assignment and Grade Services 2.0, section 3.4.8). Without `scoreGiven` a platform keeps no number.
 * @param at milliseconds; a later one counts more than an earlier one, so each is to be later than the last of that person
 */
export function scoreBody(user: string, { state, value, comment }: LtiScore, at: number): Fields {
  const graded = state === 'graded' && value !== null;
  return {
    userId: user,
    timestamp: new Date(at).toISOString(),
    comment,
    ...(graded && { scoreGiven: value, scoreMaximum: COLUMN_MAXIMUM }),
    activityProgress: state === 'excused' ? 'Initialized' : graded ? 'Completed' : 'Submitted',
    gradingProgress: graded ? 'FullyGraded' : state === 'excused' ? 'NotReady' : 'Pending',
  };
}

/** Hundredths: platforms round, and what differs by less is the same. */
export function sameScore(a: number | null, b: number | null): boolean {
  if (a === null || b === null) return a === b;
  return Math.abs(a - b) < 0.005;
}

/**
 * What a gradebook holds, by the person's id at the platform, on a scale up to {@link COLUMN_MAXIMUM} (Assignment and Grade Services 2.0,
 * section 3.3.5).
 * @returns null for what is no list of results
 */
export function readResults(page: unknown): ReadonlyMap<string, number | null> | null {
  if (!Array.isArray(page)) return null;
  return new Map(
    page.flatMap((one): Array<readonly [string, number | null]> => {
      const fields = fieldsOf(one);
      const user = textOf(fields?.['userId'], 255);
      if (fields === null || user === null) return [];
      const [score, maximum] = [fields['resultScore'], fields['resultMaximum'] ?? COLUMN_MAXIMUM];
      if (typeof score !== 'number' || !Number.isFinite(score)) return [[user, null]];
      if (typeof maximum !== 'number' || !(maximum > 0)) return [[user, null]];
      // Platforms keep shares: what a division leaves behind is nobody's change.
      return [[user, Math.round((score / maximum) * COLUMN_MAXIMUM * 1e6) / 1e6]];
    }),
  );
}

/**
 * What a grade is in a gradebook: as it is said, rounded, in percent; or why there is none.
 * @param part of a single part, its share, which nobody rounds
 */
export function scoreOfGrade(grade: Grade, { scale }: Pick<GradeRule, 'scale'>, part?: GradePartName): LtiScore {
  if (part !== undefined) {
    const line = grade.lines.find((one) => one.part === part);
    if (line === undefined || line.state === 'open' || (line.share === null && line.state === 'counts')) return open();
    if (line.state === 'excused') return excused();
    const value = hundredths((line.share ?? 0) * COLUMN_MAXIMUM);
    return { state: 'graded', value, comment: `${value}%` };
  }
  if (grade.value === null) {
    const nothingAsked = grade.lines.length > 0 && grade.lines.every(({ state }) => state === 'excused');
    return nothingAsked ? excused() : open();
  }
  const value = scale.kind === 'points' ? (grade.value / scale.of) * COLUMN_MAXIMUM : grade.value;
  return { state: 'graded', value: hundredths(value), comment: grade.words ?? '' };
}

const excused = (): LtiScore => ({ state: 'excused', value: null, comment: say('excused') });
const open = (): LtiScore => ({ state: 'open', value: null, comment: say('notGraded') });

function hundredths(value: number): number {
  return Math.round(value * 100) / 100;
}
