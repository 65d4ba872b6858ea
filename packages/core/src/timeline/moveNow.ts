import { DATE_ORDER, endOf, type DateName, type ExchangeDates, type Instant } from './dates.js';

const CLOSES: ReadonlySet<DateName> = new Set<DateName>([
  'draftsDue',
  'lateUntil',
  'selfReviewDue',
  'reviewsDue',
  'checkUntil',
]);

/**
 * The dates with one of them moved to this moment, for “open now” and “close now”. What must come before it
 * is pulled to the same moment when it still lies ahead, and closing drafts ends the late window as well.
 * Whether the outcome makes sense (reviews due before they open, say) is for `checkDates` to find.
 */
export function moveNow(dates: ExchangeDates, name: DateName, now: Instant): ExchangeDates {
  // On a whole minute a due time would last to the end of it.
  const at = endOf(now) > now && CLOSES.has(name) ? now - 1 : now;
  const moved: Record<DateName, Instant | null> = { ...dates, [name]: at };
  for (const earlier of DATE_ORDER.slice(0, DATE_ORDER.indexOf(name))) {
    // Closing the others leaves it as it is; the release ends it.
    if (earlier === 'selfReviewDue' && name === 'reviewsDue') continue;
    const other = moved[earlier];
    if (other !== null && other > at) moved[earlier] = at;
  }
  if (name === 'draftsDue') moved.lateUntil = null;
  // A blank opening of reviews follows the due date of drafts; closing drafts early must not open reviews early.
  if (name === 'draftsDue' && dates.reviewsOpen === null) moved.reviewsOpen = dates.lateUntil ?? dates.draftsDue;
  return moved;
}
