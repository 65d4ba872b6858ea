import { problem, type CoreProblem } from '../problem.js';
import { endOf, type Instant } from './dates.js';

/** What a late hand-in loses. */
export interface LateRule {
  /** More than 0, in `unit`. */
  readonly amount: number;
  /** Points of the form's maximum, or percentage points of the grade. */
  readonly unit: 'points' | 'percent';
  /** Lost once, or again for each day that has been started. */
  readonly per: 'once' | 'day';
  /** The most that can be lost, in `unit`; null for no cap. */
  readonly cap: number | null;
  /** Whole minutes after the due time in which nothing is lost. */
  readonly graceMinutes: number;
}

export interface Lateness {
  /** Milliseconds after the due time; 0 for a hand-in in time. */
  readonly by: number;
  /** Days of 24 hours that have been started since the due time, 0 within the grace period. */
  readonly startedDays: number;
  /** In the unit of the rule. */
  readonly loses: number;
}

const MINUTE = 60_000;
const DAY = 24 * 60 * MINUTE;
/** More than a month of grace is no grace. */
export const MAX_GRACE_MINUTES = 31 * 24 * 60;
export const MAX_LATE_AMOUNT = 1000;

/**
 * What handing in at `handedInAt` loses. A day is 24 hours from the end of the due time on, whatever the clocks do in
 * between; within the grace period (its last minute included, as with a due time) nothing is lost, after it the whole time
 * since the due time counts. Without a rule a late hand-in is late but loses nothing.
 */
export function lateness(rule: LateRule | null, due: Instant, handedInAt: Instant): Lateness {
  const inTime = handedInAt < endOf(due);
  const by = inTime ? 0 : handedInAt - due;
  const grace = (rule?.graceMinutes ?? 0) * MINUTE;
  const within = inTime || (grace > 0 && handedInAt < endOf(due + grace));
  const startedDays = within ? 0 : Math.floor((handedInAt - endOf(due)) / DAY) + 1;
  if (rule === null || startedDays === 0) return { by, startedDays, loses: 0 };
  const loses = rule.amount * (rule.per === 'day' ? startedDays : 1);
  return { by, startedDays, loses: Math.min(loses, rule.cap ?? Infinity) };
}

export type LateProblemCode = 'late-amount' | 'late-cap' | 'late-grace' | 'late-without-window';

/** @param hasWindow whether there is a time in which a hand-in can be late at all */
export function checkLateRule(rule: LateRule | null, hasWindow: boolean): CoreProblem<LateProblemCode>[] {
  if (rule === null) return [];
  const problems: CoreProblem<LateProblemCode>[] = [];
  const most = rule.unit === 'percent' ? 100 : MAX_LATE_AMOUNT;
  if (!(rule.amount > 0 && rule.amount <= most))
    problems.push(problem('late-amount', ['late', 'amount'], { max: most }));
  if (rule.cap !== null && !(rule.cap <= most && !(rule.cap < rule.amount))) {
    problems.push(problem('late-cap', ['late', 'cap'], { amount: rule.amount, max: most }));
  }
  if (!Number.isInteger(rule.graceMinutes) || rule.graceMinutes < 0 || rule.graceMinutes > MAX_GRACE_MINUTES) {
    problems.push(problem('late-grace', ['late', 'graceMinutes'], { max: MAX_GRACE_MINUTES }));
  }
  if (!hasWindow) problems.push(problem('late-without-window', ['late']));
  return problems;
}
