import { DATE_ORDER, type DateName, type ExchangeDates, type Instant } from './dates.js';
import { dayNumber, plusDays } from './zone.js';

/** All dates so many calendar days later; the times of day stay, over changes of clocks as well. */
export function shiftDates(dates: ExchangeDates, days: number, timeZone: string): ExchangeDates {
  const shifted = DATE_ORDER.map((name) => {
    const at = dates[name];
    return [name, at === null ? null : plusDays(at, days, timeZone)] as const;
  });
  return Object.fromEntries(shifted) as Record<DateName, Instant | null>;
}

/**
 * How many days to shift so that the first date falls on the calendar day of `firstAt`, or, where weekdays
 * are to stay, on the same weekday nearest to it (the later one of two as near).
 * @returns 0 when no date is set
 */
export function daysToFirst(dates: ExchangeDates, firstAt: Instant, timeZone: string, keepWeekdays: boolean): number {
  const set = DATE_ORDER.map((name) => dates[name]).filter((at) => at !== null);
  if (set.length === 0) return 0;
  const days = dayNumber(firstAt, timeZone) - dayNumber(Math.min(...set), timeZone);
  return keepWeekdays ? Math.floor((days + 3.5) / 7) * 7 : days;
}

/** Days on which nothing should fall due, as calendar days `2026-12-24`, both ends included. */
export interface Holiday {
  readonly title: string;
  readonly from: string;
  readonly to: string;
}

export interface HolidayClash {
  readonly date: DateName;
  readonly at: Instant;
  readonly holiday: Holiday;
}

/** Dates that fall on a holiday of the course, in the order of the dates. */
export function holidayClashes(dates: ExchangeDates, holidays: readonly Holiday[], timeZone: string): HolidayClash[] {
  const clashes: HolidayClash[] = [];
  for (const date of DATE_ORDER) {
    const at = dates[date];
    if (at === null) continue;
    const day = new Date(dayNumber(at, timeZone) * 24 * 3_600_000).toISOString().slice(0, 10);
    const holiday = holidays.find(({ from, to }) => from <= day && day <= to);
    if (holiday !== undefined) clashes.push({ date, at, holiday });
  }
  return clashes;
}
