import type { DeskView } from '@salt-circle/contracts';
import { resolveDates, withOwnTimes, type ResolvedDates } from '@salt-circle/core';
import type { Place } from '../../access/access.js';
import { iso } from '../../platform/wire/instants.js';

/** What the desk says of the exchange. @param self of a review of the own draft, which can be due at a time of its own */
export function exchangeOnDesk(
  { exchange, course, facts, timeline, own }: Place,
  self: boolean,
): Omit<DeskView['exchange'], 'attachments'> {
  // Of a published exchange no date that is needed is blank.
  const dates = withOwnTimes(resolveDates(timeline.dates) as ResolvedDates, own);
  return {
    id: exchange.id,
    title: exchange.title,
    courseId: course.id,
    courseTitle: course.title,
    timeZone: course.timeZone,
    guideHtml: exchange.guideHtml,
    briefHtml: exchange.briefHtml,
    reviewsDue: iso(self ? dates.selfReviewDue : dates.reviewsDue),
    stage: facts.stage,
  };
}
