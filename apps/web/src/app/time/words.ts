import { formatDistanceStrict } from 'date-fns';

/** Time of day of this browser, to the second: for saves, which happen here and now. */
export function timeOfDay(at: number): string {
  return new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit', second: '2-digit' }).format(at);
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

/** "in 2 days (Thu 12 Mar, 23:59 EET)". */
export function inWords(at: number, timeZone: string, now: number): string {
  return `${relatively(at, now)} (${exactly(at, timeZone, now)})`;
}
