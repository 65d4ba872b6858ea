import type { DeskView } from '@salt-circle/contracts';
import { resolveDates, withPersonalDates } from '@salt-circle/core';
import type { ExchangeContext } from '../../permissions/access.js';
import { iso } from '../../platform/wire/instants.js';

/** What the desk says of the exchange. @param self of a review of the own draft, which can be due at a time of its own */
export function exchangeOnDesk(
  { exchange, course, facts, timeline, own }: ExchangeContext,
  self: boolean,
): Omit<DeskView['exchange'], 'attachments'> {
  // Blank only while it is planned, when the key of a practice draft is written.
  const common = resolveDates(timeline.dates);
  const dates = common === null ? null : withPersonalDates(common, own);
  return {
    id: exchange.id,
    title: exchange.title,
    courseId: course.id,
    courseTitle: course.title,
    timeZone: course.timeZone,
    guideHtml: exchange.guideHtml,
    briefHtml: exchange.briefHtml,
    reviewsDue: dates === null ? null : iso(self ? dates.selfReviewDue : dates.reviewsDue),
    stage: facts.stage,
  };
}
