import {
  DATE_ORDER,
  openingsAt,
  stageAt,
  type DateName,
  type ExchangeDates,
  type ExchangeFacts,
  type OwnTimes,
  type TimelineState,
} from '@salt-circle/core';
import type { Exchange } from '../model/exchange.js';

/** The dates of a row as the core wants them: milliseconds since 1970, null for a blank one. */
export function datesOf(exchange: Exchange): ExchangeDates {
  return Object.fromEntries(DATE_ORDER.map((name) => [name, exchange[name]])) as Record<DateName, number | null>;
}

/** What a stage follows from, of a row. */
export function timelineOf(exchange: Exchange): TimelineState {
  return { dates: datesOf(exchange), publishedAt: exchange.publishedAt, rolling: exchange.rolling };
}

/** What decisions about an exchange go by at one moment, for somebody with these own times. */
export function factsOf(exchange: Exchange, own: OwnTimes | null, now: number): ExchangeFacts {
  const timeline = timelineOf(exchange);
  return {
    published: exchange.publishedAt !== null,
    stage: stageAt(timeline, now),
    may: openingsAt(timeline, own, now),
    names: exchange.names,
    showNamesAtRelease: exchange.showNamesAtRelease,
    ownHandInFirst: exchange.ownHandInFirst,
    selfReview: exchange.selfReview,
    feedbackEach: exchange.feedbackEach,
    reviewsFinal: exchange.reviewsFinal,
    rolling: exchange.rolling,
  };
}
