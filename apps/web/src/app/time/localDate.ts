import { instantsOf, instantOf, localTime, type LocalTime } from '@salt-circle/core';

const two = (number: number) => String(number).padStart(2, '0');

function written({ year, month, day, hour, minute }: LocalTime): string {
  return `${String(year).padStart(4, '0')}-${two(month)}-${two(day)}T${two(hour)}:${two(minute)}`;
}

/** For an input of date and time: the instant as it reads in the time zone, `2026-03-12T23:59`, or empty. */
export function toLocal(iso: string | null, timeZone: string): string {
  return iso === null ? '' : written(localTime(Date.parse(iso), timeZone));
}

/** What a reading of date and time in a time zone can mean. */
export type Reading =
  | { readonly kind: 'empty' }
  | { readonly kind: 'once'; readonly iso: string }
  /** In the hour that clocks go through twice: the earlier and the later instant. */
  | { readonly kind: 'twice'; readonly isos: readonly [string, string] }
  /** In the hour that clocks skip; `next` is the reading as much later as they are put forward. */
  | { readonly kind: 'never'; readonly next: string };

export function readLocal(local: string, timeZone: string): Reading {
  const match = /^(\d{4,6})-(\d\d)-(\d\d)T(\d\d):(\d\d)/.exec(local);
  if (match === null) return { kind: 'empty' };
  const [year, month, day, hour, minute] = match.slice(1).map(Number) as [number, number, number, number, number];
  const reading = { year, month, day, hour, minute };
  const [first, second] = instantsOf(reading, timeZone).map((at) => new Date(at).toISOString());
  if (first !== undefined && second !== undefined) return { kind: 'twice', isos: [first, second] };
  if (first !== undefined) return { kind: 'once', iso: first };
  return { kind: 'never', next: written(localTime(instantOf(reading, timeZone), timeZone)) };
}
