import {
  DATE_ORDER,
  openingsAt,
  stageAt,
  type DateName,
  type ExchangeDates,
  type ExchangeFacts,
  type OwnFeedback,
  type PersonalDates,
  type TimelineState,
} from '@salt-circle/core';
import type { Exchange, Participant } from '../model/exchange.js';

/** The dates of a row as the core wants them: milliseconds since 1970, null for a blank one. */
export function datesOf(exchange: Exchange): ExchangeDates {
  return Object.fromEntries(DATE_ORDER.map((name) => [name, exchange[name]])) as Record<DateName, number | null>;
}

/** What a stage follows from, of a row. */
export function timelineOf(exchange: Exchange): TimelineState {
  return { dates: datesOf(exchange), publishedAt: exchange.publishedAt, rolling: exchange.rolling };
}

/** What holds for the one who asks alone. */
type ForAsker = Pick<ExchangeFacts, 'practiceFirst' | 'ownFeedback' | 'gradesReleased'>;

/** When an author reads the own feedback, at `now` (milliseconds). */
export function ownFeedbackOf(
  { feedbackFrom, feedbackHeld }: Pick<Participant, 'feedbackFrom' | 'feedbackHeld'>,
  now: number,
): OwnFeedback {
  if (feedbackHeld !== null) return 'held';
  return feedbackFrom !== null && feedbackFrom <= now ? 'early' : 'as-planned';
}

/** Whether somebody sees the own grade at `now` (milliseconds): with all others, or before them. */
export function gradeIsReleased(
  { gradesRelease }: Pick<Exchange, 'gradesRelease'>,
  { gradeFrom }: Pick<Participant, 'gradeFrom'>,
  now: number,
): boolean {
  return [gradesRelease, gradeFrom].some((from) => from !== null && from <= now);
}

/**
 * What decisions about an exchange go by at one moment, for somebody with these own times.
 */
export function factsOf(
  exchange: Exchange,
  own: PersonalDates | null,
  now: number,
  { practiceFirst = false, ownFeedback = 'as-planned', gradesReleased = false }: Partial<ForAsker> = {},
): ExchangeFacts {
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
    practice: exchange.practiceOf !== null,
    practiceFirst,
    ownFeedback,
    gradesReleased,
    ratings: exchange.after.ratings,
    reflection: exchange.after.reflection !== null,
    othersReviews: exchange.after.othersReviews,
    revisionShown: exchange.after.revisionShown,
    earlierShown: exchange.earlierShown,
    noAfter: exchange.repliesDue === null && exchange.revisionDue === null,
  };
}
