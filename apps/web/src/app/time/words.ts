import { exactly, language } from '@salt-circle/core';
import { formatDistanceStrict, type FormatDistanceFn, type FormatDistanceToken } from 'date-fns';
import { say } from '../../words/app.js';

/** When something was saved, by the clock of this browser: the time of day, to the second; of another day with its date. */
export function timeOfDay(at: number, now: number = at): string {
  const tag = language();
  const time = new Intl.DateTimeFormat(tag, { hour: '2-digit', minute: '2-digit', second: '2-digit' }).format(at);
  const day = new Intl.DateTimeFormat(tag, { day: 'numeric', month: 'short' });
  return day.format(at) === day.format(now) ? time : say('dayAndTime', { day: day.format(at), time });
}

const UNITS: Partial<Record<FormatDistanceToken, Intl.RelativeTimeFormatUnit>> = {
  xSeconds: 'second',
  xMinutes: 'minute',
  xHours: 'hour',
  xDays: 'day',
  xMonths: 'month',
  xYears: 'year',
};

/** Says a distance in the language spoken; which unit it is in, and how many of them, is found by the package. */
const formatDistance: FormatDistanceFn = (token, count, options) => {
  const { comparison = 1 } = (options ?? {}) as { comparison?: number };
  const format = new Intl.RelativeTimeFormat(language(), { numeric: 'always' });
  return format.format(comparison < 0 ? -count : count, UNITS[token] ?? 'second');
};

/** "in 2 days", "3 hours ago". */
export function relatively(at: number, now: number): string {
  if (Math.abs(at - now) < 60_000) return say('nowWord');
  // Rounded down: "in 2 days" must not turn out to be tomorrow night.
  return formatDistanceStrict(at, now, { addSuffix: true, roundingMethod: 'floor', locale: { formatDistance } });
}

/** "Thu 12 Mar, 23:59 EET (in 2 days)": behind "until" and "since". */
export function exactFirst(at: number, timeZone: string, now: number): string {
  return say('exactFirst', { exact: exactly(at, timeZone, now), relative: relatively(at, now) });
}

/** "in 2 days (Thu 12 Mar, 23:59 EET)". */
export function inWords(at: number, timeZone: string, now: number): string {
  return say('inWords', { relative: relatively(at, now), exact: exactly(at, timeZone, now) });
}
