import { language, sentences } from './say.js';

const say = sentences('core.times', {
  exact: '{weekday} {day} {month}, {time} {zone}',
  exactInYear: '{weekday} {day} {month} {year}, {time} {zone}',
  day: '{weekday} {day} {month}',
});

const FORMATS = new Map<string, Intl.DateTimeFormat>();

/** A formatter takes longer to make than to use, and boards want thousands of times. */
function partsOf(at: number, timeZone: string): (type: Intl.DateTimeFormatPartTypes) => string {
  const key = `${language()} ${timeZone}`;
  let format = FORMATS.get(key);
  if (format === undefined) {
    format = new Intl.DateTimeFormat(language(), {
      timeZone,
      weekday: 'short',
      day: 'numeric',
      month: 'short',
      year: 'numeric',
      hour: '2-digit',
      minute: '2-digit',
      hourCycle: 'h23',
      timeZoneName: 'short',
    });
    FORMATS.set(key, format);
  }
  const parts = format.formatToParts(at);
  return (type) => parts.find((part) => part.type === type)?.value ?? '';
}

/**
 * "Thu 12 Mar, 23:59 EET"; with the year when it is not this one.
 * @param at, now in milliseconds; without a `now`, as in what is read at any time, always with the year
 */
export function exactly(at: number, timeZone: string, now: number | null): string {
  const part = partsOf(at, timeZone);
  const slots = {
    weekday: part('weekday'),
    day: part('day'),
    month: part('month'),
    time: `${part('hour')}:${part('minute')}`,
    zone: part('timeZoneName'),
  };
  const year = part('year');
  return now !== null && year === partsOf(now, timeZone)('year')
    ? say('exact', slots)
    : say('exactInYear', { ...slots, year });
}

/** "Thu 12 Mar" in a time zone. */
export function dayOf(at: number, timeZone: string): string {
  const part = partsOf(at, timeZone);
  return say('day', { weekday: part('weekday'), day: part('day'), month: part('month') });
}
