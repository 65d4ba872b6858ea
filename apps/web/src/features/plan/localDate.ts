import { TZDate } from '@date-fns/tz';

/** For an input of date and time: the instant as it reads in the time zone, `2026-03-12T23:59`, or empty. */
export function toLocal(iso: string | null, timeZone: string): string {
  if (iso === null) return '';
  const at = new TZDate(Date.parse(iso), timeZone);
  const two = (number: number) => String(number).padStart(2, '0');
  return `${String(at.getFullYear()).padStart(4, '0')}-${two(at.getMonth() + 1)}-${two(at.getDate())}T${two(at.getHours())}:${two(at.getMinutes())}`;
}

/** The instant of a reading of date and time in the time zone, or null when it is empty or not whole. */
export function fromLocal(local: string, timeZone: string): string | null {
  const match = /^(\d{4,6})-(\d\d)-(\d\d)T(\d\d):(\d\d)/.exec(local);
  if (match === null) return null;
  const [year, month, day, hour, minute] = match.slice(1).map(Number) as [number, number, number, number, number];
  const at = new TZDate(year, month - 1, day, hour, minute, timeZone).getTime();
  return Number.isNaN(at) ? null : new Date(at).toISOString();
}
