import {
  DATE_ORDER,
  endOf,
  opensAfter,
  resolveDates,
  type DateName,
  type ExchangeDates,
  type Instant,
  type ResolvedDates,
} from './dates.js';
import { withPersonalDates, type PersonalDates } from './personalDates.js';

export type Stage = 'planning' | 'drafting' | 'reviewing' | 'checking' | 'replying' | 'revising' | 'closed';

export interface TimelineState {
  readonly dates: ExchangeDates;
  /** When the exchange was published, or null while it is being planned. */
  readonly publishedAt: Instant | null;
  /** Drafts are allocated as they come in, so reviewing goes on beside drafting. */
  readonly rolling?: boolean;
}

/**
 * Where an exchange stands at `now`. Never stored: it follows from the dates alone.
 *
 * A stage begins exactly at its date; what is due lasts to the end of the minute that is named ({@link endOf}). `drafting` lasts until reviews
 * open, so that the gap between a due date and the opening belongs to drafting (nothing new may be
 * handed in then, see {@link mayHandIn}). After the release comes replying, then revising,
 * where they are planned; then it is closed.
 */
export function stageAt(state: TimelineState, now: Instant): Stage {
  const dates = resolveDates(state.dates);
  if (state.publishedAt === null || dates === null || now < dates.draftsOpen) return 'planning';
  if (now < reviewsOpenAt(dates)) return 'drafting';
  if (now < endOf(dates.reviewsDue)) return 'reviewing';
  if (now < releasedAt(dates)) return 'checking';
  if (lasts(dates.repliesDue, now)) return 'replying';
  return lasts(dates.revisionDue, now) ? 'revising' : 'closed';
}

/** What is due by `due` and not over; never what is not planned. */
function lasts(due: Instant | null, now: Instant): boolean {
  return due !== null && now < endOf(due);
}

/** Reviews open when the last minute of handing in is over. */
function reviewsOpenAt({ lateUntil, reviewsOpen }: ResolvedDates): Instant {
  return opensAfter(lateUntil, reviewsOpen);
}

/** Feedback is released when the last minute of reviewing is over. */
function releasedAt({ reviewsDue, release }: ResolvedDates): Instant {
  return opensAfter(reviewsDue, release);
}

/** What the dates allow one person at one moment. */
export interface Openings {
  /** A draft counts when handed in from its opening until the end of the late window, whose last minute counts. */
  readonly handIn: boolean;
  /** Handing in now counts as late. */
  readonly late: boolean;
  /** Reviews are submitted from their opening until the end of the minute in which they are due. */
  readonly review: boolean;
  /** The same for the review of the own draft, where it is due at a time of its own. */
  readonly selfReview: boolean;
  /** That time has passed: what waits for the self-review waits no longer. */
  readonly selfReviewOver: boolean;
  readonly released: boolean;
  /** Replies are planned and not over. They open with the feedback, which may open earlier or later for one author. */
  readonly replies: boolean;
  /** The same for a revision. */
  readonly revision: boolean;
}

const CLOSED: Openings = {
  handIn: false,
  late: false,
  review: false,
  selfReview: false,
  selfReviewOver: false,
  released: false,
  replies: false,
  revision: false,
};

/** @param own the person's own due times and excuse, or null for somebody without */
export function openingsAt(state: TimelineState, own: PersonalDates | null, now: Instant): Openings {
  const common = resolveDates(state.dates);
  if (state.publishedAt === null || common === null) return CLOSED;
  const dates = withPersonalDates(common, own);
  const excused = own?.excused === true;
  const released = now >= releasedAt(common);
  const handIn = !excused && now >= dates.draftsOpen && now < endOf(dates.lateUntil);
  const opened = !excused && now >= (state.rolling === true ? dates.draftsOpen : reviewsOpenAt(common));
  return {
    handIn,
    late: handIn && now >= endOf(dates.draftsDue),
    review: opened && now < endOf(dates.reviewsDue),
    selfReview: opened && now < endOf(dates.selfReviewDue),
    selfReviewOver: state.dates.selfReviewDue !== null && now >= endOf(dates.selfReviewDue),
    released,
    replies: lasts(dates.repliesDue, now),
    revision: !excused && lasts(dates.revisionDue, now),
  };
}

/** Whether drafts can be handed in by somebody without own times. */
export function mayHandIn(state: TimelineState, now: Instant): boolean {
  return openingsAt(state, null, now).handIn;
}

export function isReleased(state: TimelineState, now: Instant): boolean {
  return openingsAt(state, null, now).released;
}

export interface StageChange {
  readonly date: DateName;
  readonly at: Instant;
}

/**
 * The next date that changes anything, or null when none is left or the exchange is unpublished.
 * @param own the due times of one person, where the question is that person's
 */
export function nextChange(state: TimelineState, now: Instant, own: PersonalDates | null = null): StageChange | null {
  const common = resolveDates(state.dates);
  if (state.publishedAt === null || common === null) return null;
  const dates: Partial<Record<DateName, Instant | null>> & ResolvedDates = withPersonalDates(common, own);
  const effective = (date: DateName, at: Instant) => {
    if (date === 'reviewsOpen') return reviewsOpenAt(common);
    if (date === 'release') return releasedAt(common);
    return date === 'draftsOpen' ? at : endOf(at);
  };
  let next: StageChange | null = null;
  for (const date of DATE_ORDER) {
    // Without a time of its own it is due with the others.
    const at = date === 'selfReviewDue' && state.dates.selfReviewDue === null ? null : (dates[date] ?? null);
    // The first of several at the same time: “drafts due” says more than “reviews open”.
    if (at !== null && effective(date, at) > now && (next === null || at < next.at)) next = { date, at };
  }
  return next;
}

export interface Segment {
  readonly key: 'drafts' | 'reviews' | 'check' | 'replies' | 'revision' | 'after';
  readonly from: Instant;
  /** Null for a last segment that has no end. */
  readonly until: Instant | null;
}

/** The stretches of time the ruler draws, empty ones (no check, say) left out. */
export function segments(dates: ExchangeDates): Segment[] {
  const resolved = resolveDates(dates);
  if (resolved === null) return [];
  const answered = resolved.repliesDue ?? resolved.release;
  const revised = Math.max(resolved.revisionDue ?? answered, answered);
  const all: Segment[] = [
    { key: 'drafts', from: resolved.draftsOpen, until: resolved.reviewsOpen },
    { key: 'reviews', from: resolved.reviewsOpen, until: resolved.reviewsDue },
    { key: 'check', from: resolved.reviewsDue, until: resolved.release },
    { key: 'replies', from: resolved.release, until: answered },
    { key: 'revision', from: answered, until: revised },
    { key: 'after', from: revised, until: null },
  ];
  return all.filter((one) => one.until === null || one.until > one.from);
}
