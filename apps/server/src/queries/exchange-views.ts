import type { CourseCard, DatesView, ExchangeCard, NextChangeView, PersonalDatesPart } from '@salt-circle/contracts';
import { DATE_ORDER, nextChange, type DateName, type ExchangeDates, type PersonalDates } from '@salt-circle/core';
import type { Course } from '../model/course.js';
import type { CourseContext } from '../permissions/access.js';
import type { Exchange } from '../model/exchange.js';
import { datesOf, factsOf, timelineOf } from '../permissions/exchange-facts.js';
import { iso, isoOrNull } from '../platform/wire/instants.js';

/** Dates for the wire: ISO 8601, null for a blank one. */
export function datesView(dates: ExchangeDates): DatesView {
  return Object.fromEntries(DATE_ORDER.map((name) => [name, isoOrNull(dates[name])])) as Record<
    DateName,
    string | null
  >;
}

/** Blank dates of the wire are null; of a template that was kept before there was such a date, they are not there at all. */
export function datesFrom(dates: Readonly<Record<DateName, string | null>>): ExchangeDates {
  const at = (text: string | null | undefined) => (text == null ? null : Date.parse(text));
  return Object.fromEntries(DATE_ORDER.map((name) => [name, at(dates[name])])) as Record<DateName, number | null>;
}

/**
 * Without a time for self-reviews where none are asked for: it stands on no page then, so it must clash with nothing.
 */
export function datesAsked(dates: ExchangeDates, { selfReview }: Pick<Exchange, 'selfReview'>): ExchangeDates {
  return selfReview === 'off' ? { ...dates, selfReviewDue: null } : dates;
}

/** The next date that changes something, for the wire; null when none is left. */
export function nextView(exchange: Exchange, now: number, own: PersonalDates | null = null): NextChangeView | null {
  const next = nextChange(timelineOf(exchange), now, own);
  return next === null ? null : { date: next.date, at: iso(next.at) };
}

/** A course as lists show it, to somebody in this role. */
export function courseCard(course: Course, role: NonNullable<CourseContext['viewer']['role']>): CourseCard {
  return { id: course.id, title: course.title, timeZone: course.timeZone, role };
}

/** An exchange as lists show it at `now` (milliseconds), with the own times of the one who asks. */
export function exchangeCard(exchange: Exchange, now: number, own: PersonalDates | null = null): ExchangeCard {
  return {
    id: exchange.id,
    title: exchange.title,
    published: exchange.publishedAt !== null,
    stage: factsOf(exchange, own, now).stage,
    dates: datesView(datesOf(exchange)),
    next: nextView(exchange, now, own),
  };
}

/** Own times for the wire: ISO 8601, null for what stays common. */
export function personalDatesPart({
  draftsDue,
  reviewsDue,
  repliesDue,
  revisionDue,
  excused,
}: PersonalDates): PersonalDatesPart {
  return {
    draftsDue: isoOrNull(draftsDue),
    reviewsDue: isoOrNull(reviewsDue),
    repliesDue: isoOrNull(repliesDue),
    revisionDue: isoOrNull(revisionDue),
    excused,
  };
}
