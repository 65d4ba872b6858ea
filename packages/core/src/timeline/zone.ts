import { tzOffset } from '@date-fns/tz';
import type { Instant } from './dates.js';

/** A reading of calendar and clock: month 1 to 12, hour 0 to 23. */
export interface LocalTime {
  readonly year: number;
  readonly month: number;
  readonly day: number;
  readonly hour: number;
  readonly minute: number;
}

/**
 * The one name by which the machine knows a time zone, for names with aliases ("Asia/Kolkata", "Asia/Calcutta") and in
 * whatever case; null for what is no zone. Bare offsets ("+02:00") are none: they know no summer.
 */
export function zoneName(name: string): string | null {
  if (!/^[A-Za-z]/.test(name)) return null;
  try {
    return new Intl.DateTimeFormat('en-US', { timeZone: name }).resolvedOptions().timeZone;
  } catch (error) {
    if (error instanceof RangeError) return null;
    throw error;
  }
}

/**
 * What calendar and clock show at an instant, by the IANA data of the machine.
 * @throws RangeError for a time zone that does not exist
 */
export function localTime(at: Instant, timeZone: string): LocalTime {
  // Read as if it were UTC, so that neither the machine's own zone nor its clock changes come in.
  const shown = new Date(at + offsetAt(at, timeZone));
  return {
    year: shown.getUTCFullYear(),
    month: shown.getUTCMonth() + 1,
    day: shown.getUTCDate(),
    hour: shown.getUTCHours(),
    minute: shown.getUTCMinutes(),
  };
}

const MINUTE = 60_000;
const DAY = 24 * 60 * MINUTE;

function asIfUtc({ year, month, day, hour, minute }: LocalTime): number {
  return Date.UTC(year, month - 1, day, hour, minute);
}

/** Milliseconds that local clocks are ahead of UTC. @throws RangeError for a time zone that does not exist */
function offsetAt(at: Instant, timeZone: string): number {
  const minutes = tzOffset(timeZone, new Date(at));
  if (Number.isNaN(minutes)) throw new RangeError(`There is no time zone “${timeZone}”.`);
  return minutes * MINUTE;
}

/**
 * All instants at which clocks in the zone show this reading, earliest first: one in the usual case, none
 * in the hour that clocks skip in spring, two in the hour that they go through twice in autumn.
 */
export function instantsOf(local: LocalTime, timeZone: string): Instant[] {
  const guess = asIfUtc(local);
  // No zone changes its clocks twice within two days, so these are all offsets that can come into question.
  const offsets = new Set([offsetAt(guess - DAY, timeZone), offsetAt(guess + DAY, timeZone)]);
  return [...offsets]
    .map((offset) => guess - offset)
    .filter((at) => asIfUtc(localTime(at, timeZone)) === guess)
    .sort((a, b) => a - b);
}

/** The first instant of the reading; for a skipped one, as much later as clocks were put forward. */
export function instantOf(local: LocalTime, timeZone: string): Instant {
  const [first] = instantsOf(local, timeZone);
  if (first !== undefined) return first;
  const guess = asIfUtc(local);
  return guess - offsetAt(guess - DAY, timeZone);
}

/** Days since 1970-01-01 of the calendar day on which an instant falls. */
export function dayNumber(at: Instant, timeZone: string): number {
  const { year, month, day } = localTime(at, timeZone);
  return Date.UTC(year, month - 1, day) / DAY;
}

/** The same time of day, so many calendar days later (or earlier, for a negative number). */
export function plusDays(at: Instant, days: number, timeZone: string): Instant {
  const local = localTime(at, timeZone);
  const moved = new Date(Date.UTC(local.year, local.month - 1, local.day + days));
  const reading = { ...local, year: moved.getUTCFullYear(), month: moved.getUTCMonth() + 1, day: moved.getUTCDate() };
  // Seconds and below are kept: 23:59:59 stays what it is.
  return instantOf(reading, timeZone) + (at - Math.floor(at / MINUTE) * MINUTE);
}
