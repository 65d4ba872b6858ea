import { dayNumber, instantOf, localTime } from '../timeline/zone.js';
import { endOf, type Instant, type ResolvedDates } from '../timeline/dates.js';

/** When drafts are allocated without anybody asking for it. */
export type Schedule =
  | { readonly kind: 'command' }
  /** When drafts have fallen due: at the end of that minute. */
  | { readonly kind: 'at-due' }
  | { readonly kind: 'at'; readonly at: Instant }
  /** Every night at `NIGHTLY_HOUR` of the course's time zone, from the opening of drafts until reviews are due. */
  | { readonly kind: 'nightly' };

/** When rounds are held: an hour in which hardly anybody hands in, and nobody's clock is set forward or back. */
export const NIGHTLY_HOUR = 4;

/**
 * The run that is due: the last one planned for `now` or before, if it comes after the last one made. Several missed ones
 * are made up for by one.
 *
 * @param since the last run made, or when the schedule was set: nothing planned at that time or before is due
 */
export function dueRun(
  schedule: Schedule,
  dates: ResolvedDates,
  timeZone: string,
  since: Instant,
  now: Instant,
): Instant | null {
  const planned = lastPlanned(schedule, dates, timeZone, now);
  return planned !== null && planned > since ? planned : null;
}

function lastPlanned(schedule: Schedule, dates: ResolvedDates, timeZone: string, now: Instant): Instant | null {
  switch (schedule.kind) {
    case 'command':
      return null;
    case 'at-due':
      return endOf(dates.draftsDue) <= now ? endOf(dates.draftsDue) : null;
    case 'at':
      return schedule.at <= now ? schedule.at : null;
    case 'nightly': {
      const last = Math.min(now, dates.reviewsDue - 1);
      const night = nightAt(timeZone, last) <= last ? nightAt(timeZone, last) : nightAt(timeZone, last, -1);
      return night >= dates.draftsOpen ? night : null;
    }
  }
}

/** The next run after `now`, or null when there is none. */
export function nextRun(schedule: Schedule, dates: ResolvedDates, timeZone: string, now: Instant): Instant | null {
  switch (schedule.kind) {
    case 'command':
      return null;
    case 'at-due':
      return endOf(dates.draftsDue) > now ? dates.draftsDue : null;
    case 'at':
      return schedule.at > now ? schedule.at : null;
    case 'nightly': {
      const from = Math.max(now, dates.draftsOpen - 1);
      const night = nightAt(timeZone, from) > from ? nightAt(timeZone, from) : nightAt(timeZone, from, 1);
      return night < dates.reviewsDue ? night : null;
    }
  }
}

function nightAt(timeZone: string, at: Instant, days = 0): Instant {
  const { year, month, day } = localTime(at + days * 24 * 3_600_000, timeZone);
  return instantOf({ year, month, day, hour: NIGHTLY_HOUR, minute: 0 }, timeZone);
}

/** How many nightly rounds somebody who waits since then has seen go by, the one at `round` not counted. */
export function nightsWaited(since: Instant, round: Instant, timeZone: string): number {
  const first = nightAt(timeZone, since) > since ? nightAt(timeZone, since) : nightAt(timeZone, since, 1);
  return first >= round ? 0 : dayNumber(round, timeZone) - dayNumber(first, timeZone);
}
