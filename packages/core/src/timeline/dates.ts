/** Milliseconds since 1970-01-01T00:00Z. */
export type Instant = number;

/**
 * The dates of an exchange. A blank (null) date takes its default:
 * `reviewsOpen` is `draftsDue`, `release` is `reviewsDue`.
 */
export interface ExchangeDates {
  readonly draftsOpen: Instant | null;
  readonly draftsDue: Instant | null;
  readonly reviewsOpen: Instant | null;
  readonly reviewsDue: Instant | null;
  readonly release: Instant | null;
}

export type DateName = keyof ExchangeDates;

/** The dates with every blank replaced by its default. */
export interface ResolvedDates {
  readonly draftsOpen: Instant;
  readonly draftsDue: Instant;
  readonly reviewsOpen: Instant;
  readonly reviewsDue: Instant;
  readonly release: Instant;
}

/** In the order in which they must fall. */
export const DATE_ORDER: readonly DateName[] = ['draftsOpen', 'draftsDue', 'reviewsOpen', 'reviewsDue', 'release'];

/** Dates that may be left blank. */
export const OPTIONAL_DATES: ReadonlySet<DateName> = new Set<DateName>(['reviewsOpen', 'release']);

/** @returns null while a date that has no default is blank. */
export function resolveDates(dates: ExchangeDates): ResolvedDates | null {
  const { draftsOpen, draftsDue, reviewsDue } = dates;
  if (draftsOpen === null || draftsDue === null || reviewsDue === null) return null;
  return {
    draftsOpen,
    draftsDue,
    reviewsOpen: dates.reviewsOpen ?? draftsDue,
    reviewsDue,
    release: dates.release ?? reviewsDue,
  };
}
