import type { CourseCard, DatesView, ExchangeCard, NextChangeView } from '@salt-circle/contracts';
import { nextChange, type ExchangeDates } from '@salt-circle/core';
import type { Course } from '../courses/entities.js';
import { datesOf, factsOf, timelineOf, type CoursePlace } from './access.js';
import type { Exchange } from './entities.js';

export function iso(at: number): string {
  return new Date(at).toISOString();
}

export function isoOrNull(at: number | null): string | null {
  return at === null ? null : iso(at);
}

export function datesView(dates: ExchangeDates): DatesView {
  return {
    draftsOpen: isoOrNull(dates.draftsOpen),
    draftsDue: isoOrNull(dates.draftsDue),
    reviewsOpen: isoOrNull(dates.reviewsOpen),
    reviewsDue: isoOrNull(dates.reviewsDue),
    release: isoOrNull(dates.release),
  };
}

export function nextView(exchange: Exchange, now: number): NextChangeView | null {
  const next = nextChange(timelineOf(exchange), now);
  return next === null ? null : { date: next.date, at: iso(next.at) };
}

export function courseCard(course: Course, role: NonNullable<CoursePlace['viewer']['role']>): CourseCard {
  return { id: course.id, title: course.title, timeZone: course.timeZone, role };
}

export function exchangeCard(exchange: Exchange, now: number): ExchangeCard {
  return {
    id: exchange.id,
    title: exchange.title,
    published: exchange.publishedAt !== null,
    stage: factsOf(exchange, now).stage,
    dates: datesView(datesOf(exchange)),
    next: nextView(exchange, now),
  };
}
