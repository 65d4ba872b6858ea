import { problem, type CoreProblem } from '../problem.js';
import { DATE_ORDER, OPTIONAL_DATES, type DateName, type ExchangeDates } from './dates.js';

export type DateProblemCode = 'date-missing' | 'date-order' | 'date-unreal';

/** Years outside this span are slips of the keyboard, such as 0206 for 2026. */
const EARLIEST = Date.UTC(2000, 0, 1);
const LATEST = Date.UTC(2100, 0, 1);

/** Drafting and reviewing need some length; all other dates may coincide with the date before. */
const MUST_BE_STRICTLY_LATER: ReadonlySet<DateName> = new Set<DateName>(['draftsDue', 'reviewsDue']);

/**
 * Says what is wrong with the dates of an exchange: each given date must come after
 * (for due dates) or not before (for opening and release) the nearest earlier given date.
 * One clash is reported once, at the later date of the two, with `facts.other` naming the earlier one.
 *
 * @param complete when true, blank dates that have no default are problems as well
 */
export function checkDates(dates: ExchangeDates, complete: boolean): CoreProblem<DateProblemCode>[] {
  const problems: CoreProblem<DateProblemCode>[] = [];
  let before: DateName | null = null;
  for (const name of DATE_ORDER) {
    const at = dates[name];
    if (at === null) {
      if (complete && !OPTIONAL_DATES.has(name)) problems.push(problem('date-missing', [name]));
      continue;
    }
    if (!Number.isFinite(at) || at < EARLIEST || at >= LATEST) {
      problems.push(problem('date-unreal', [name], { at }));
      continue;
    }
    // It may fall before or after the time when the other reviews are due.
    if (name === 'selfReviewDue') continue;
    if (before !== null) {
      const earlier = dates[before] as number;
      const clash = MUST_BE_STRICTLY_LATER.has(name) ? at <= earlier : at < earlier;
      if (clash) problems.push(problem('date-order', [name], { other: before, at, otherAt: earlier }));
    }
    before = name;
  }
  return [...problems, ...selfReviewClash(dates)];
}

/** A self-review is due after reviews have opened, and before everybody reads what was written. */
function selfReviewClash(dates: ExchangeDates): CoreProblem<DateProblemCode>[] {
  const at = dates.selfReviewDue;
  if (at === null) return [];
  const opens = (['reviewsOpen', 'lateUntil', 'draftsDue'] as const).find((name) => dates[name] !== null);
  const ends = (['release', 'checkUntil'] as const).find((name) => dates[name] !== null);
  if (opens !== undefined && at <= (dates[opens] as number))
    return [problem('date-order', ['selfReviewDue'], { other: opens, at, otherAt: dates[opens] as number })];
  if (ends !== undefined && at > (dates[ends] as number))
    return [problem('date-order', [ends], { other: 'selfReviewDue', at: dates[ends] as number, otherAt: at })];
  return [];
}
