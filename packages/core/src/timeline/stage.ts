import { resolveDates, type ExchangeDates, type Instant, type DateName } from './dates.js';

export type Stage = 'planning' | 'drafting' | 'reviewing' | 'checking' | 'replying' | 'revising' | 'closed';

export interface TimelineState {
  readonly dates: ExchangeDates;
  /** When the exchange was published, or null while it is being planned. */
  readonly publishedAt: Instant | null;
}

/**
 * Where an exchange stands at `now`. Never stored: it follows from the dates alone.
 *
 * Boundaries are half-open: a stage begins exactly at its date. `drafting` lasts until reviews
 * open, so that the gap between a due date and the opening belongs to drafting (nothing new may be
 * handed in then, see {@link mayHandIn}). Without replies and revision, release closes the exchange.
 */
export function stageAt(state: TimelineState, now: Instant): Stage {
  const dates = resolveDates(state.dates);
  if (state.publishedAt === null || dates === null || now < dates.draftsOpen) return 'planning';
  if (now < dates.reviewsOpen) return 'drafting';
  if (now < dates.reviewsDue) return 'reviewing';
  if (now < dates.release) return 'checking';
  return 'closed';
}

/** A draft counts when handed in from its opening until, but not at, the due instant. */
export function mayHandIn(state: TimelineState, now: Instant): boolean {
  const dates = resolveDates(state.dates);
  return state.publishedAt !== null && dates !== null && now >= dates.draftsOpen && now < dates.draftsDue;
}

export function isReleased(state: TimelineState, now: Instant): boolean {
  const dates = resolveDates(state.dates);
  return state.publishedAt !== null && dates !== null && now >= dates.release;
}

export interface StageChange {
  readonly date: DateName;
  readonly at: Instant;
}

/** The next date that changes anything, or null when none is left or the exchange is unpublished. */
export function nextChange(state: TimelineState, now: Instant): StageChange | null {
  const dates = resolveDates(state.dates);
  if (state.publishedAt === null || dates === null) return null;
  const order = ['draftsOpen', 'draftsDue', 'reviewsOpen', 'reviewsDue', 'release'] as const;
  for (const date of order) if (dates[date] > now) return { date, at: dates[date] };
  return null;
}

export interface Segment {
  readonly key: 'drafts' | 'reviews' | 'check' | 'after';
  readonly from: Instant;
  /** Null for the last segment, which has no end. */
  readonly until: Instant | null;
}

/** The stretches of time the ruler draws, empty ones (no check, say) left out. */
export function segments(dates: ExchangeDates): Segment[] {
  const resolved = resolveDates(dates);
  if (resolved === null) return [];
  const all: Segment[] = [
    { key: 'drafts', from: resolved.draftsOpen, until: resolved.reviewsOpen },
    { key: 'reviews', from: resolved.reviewsOpen, until: resolved.reviewsDue },
    { key: 'check', from: resolved.reviewsDue, until: resolved.release },
    { key: 'after', from: resolved.release, until: null },
  ];
  return all.filter((one) => one.until === null || one.until > one.from);
}
