import { formatDistanceStrict } from 'date-fns';

/** When something was saved, by the clock of this browser: the time of day, to the second; of another day with its date. */
export function timeOfDay(at: number, now: number = at): string {
  const time = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit', second: '2-digit' }).format(at);
  const day = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short' });
  return day.format(at) === day.format(now) ? time : `${day.format(at)}, ${time}`;
}

/** "Thu 12 Mar, 23:59 EET"; with the year when it is not this one. */
export function exactly(at: number, timeZone: string, now: number): string {
  const year = (time: number) => new Intl.DateTimeFormat('en-GB', { timeZone, year: 'numeric' }).format(time);
  const parts = new Intl.DateTimeFormat('en-GB', {
    timeZone,
    weekday: 'short',
    day: 'numeric',
    month: 'short',
    hour: '2-digit',
    minute: '2-digit',
    hourCycle: 'h23',
    timeZoneName: 'short',
  }).formatToParts(at);
  const part = (type: Intl.DateTimeFormatPartTypes) => parts.find((one) => one.type === type)?.value ?? '';
  const yearWords = year(at) === year(now) ? '' : ` ${year(at)}`;
  return `${part('weekday')} ${part('day')} ${part('month')}${yearWords}, ${part('hour')}:${part('minute')} ${part('timeZoneName')}`;
}

/** "Thu 12 Mar" in a time zone. */
export function dayOf(at: number, timeZone: string): string {
  const parts = new Intl.DateTimeFormat('en-GB', {
    timeZone,
    weekday: 'short',
    day: 'numeric',
    month: 'short',
  }).formatToParts(at);
  const part = (type: Intl.DateTimeFormatPartTypes) => parts.find((one) => one.type === type)?.value ?? '';
  return `${part('weekday')} ${part('day')} ${part('month')}`;
}

/** "in 2 days", "3 hours ago". */
export function relatively(at: number, now: number): string {
  if (Math.abs(at - now) < 60_000) return 'now';
  // Rounded down: "in 2 days" must not turn out to be tomorrow night.
  return formatDistanceStrict(at, now, { addSuffix: true, roundingMethod: 'floor' });
}

/** "Thu 12 Mar, 23:59 EET (in 2 days)": behind "until" and "since". */
export function exactFirst(at: number, timeZone: string, now: number): string {
  return `${exactly(at, timeZone, now)} (${relatively(at, now)})`;
}

/** "in 2 days (Thu 12 Mar, 23:59 EET)". */
export function inWords(at: number, timeZone: string, now: number): string {
  return `${relatively(at, now)} (${exactly(at, timeZone, now)})`;
}
