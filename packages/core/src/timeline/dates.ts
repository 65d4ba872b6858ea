/** Milliseconds since 1970-01-01T00:00Z. */
export type Instant = number;

const MINUTE = 60_000;

/**
 * When a due time is over. It lasts to the end of the minute that it names: 23:59 means until 23:59:59.999. A time that is not
 * on a whole minute was set by "close now", and is over at once.
 */
export function endOf(due: Instant): Instant {
  return due % MINUTE === 0 ? due + MINUTE : due;
}

/** When what opens at `opening` opens in fact: in the minute in which something is due before it, at the end of that minute. */
export function opensAfter(due: Instant, opening: Instant): Instant {
  return opening >= due && opening < endOf(due) ? endOf(due) : opening;
}

/** In the order in which they must fall, but for `selfReviewDue`, which may fall anywhere from the opening of reviews to the release. */
export const DATE_ORDER = [
  'draftsOpen',
  'draftsDue',
  'lateUntil',
  'reviewsOpen',
  'selfReviewDue',
  'reviewsDue',
  'checkUntil',
  'release',
  'repliesDue',
  'revisionDue',
] as const;

export type DateName = (typeof DATE_ORDER)[number];

/**
 * The dates of an exchange. A blank (null) date takes its default: `reviewsOpen` is the end of the late
 * window, or `draftsDue` without one; `selfReviewDue` is `reviewsDue`; `release` is `checkUntil`, or `reviewsDue` without a check. A blank
 * `lateUntil`, `checkUntil`, `repliesDue` or `revisionDue` means that there is no such stage.
 */
export type ExchangeDates = Readonly<Record<DateName, Instant | null>>;

/** The dates that something goes by, with every blank replaced by its default. */
export interface ResolvedDates {
  readonly draftsOpen: Instant;
  readonly draftsDue: Instant;
  /** The end of the late window; `draftsDue` when there is none. */
  readonly lateUntil: Instant;
  readonly reviewsOpen: Instant;
  /** Of the review of the own draft, where one is asked for; `reviewsDue` when it has no time of its own. */
  readonly selfReviewDue: Instant;
  readonly reviewsDue: Instant;
  readonly release: Instant;
  /** Until when authors and reviewers answer each other; null without replies. */
  readonly repliesDue: Instant | null;
  /** Until when a revision is handed in; null without one. */
  readonly revisionDue: Instant | null;
}

/** Dates that may be left blank. */
export const OPTIONAL_DATES: ReadonlySet<DateName> = new Set<DateName>([
  'lateUntil',
  'reviewsOpen',
  'selfReviewDue',
  'checkUntil',
  'release',
  'repliesDue',
  'revisionDue',
]);

export const NO_DATES: ExchangeDates = {
  draftsOpen: null,
  draftsDue: null,
  lateUntil: null,
  reviewsOpen: null,
  selfReviewDue: null,
  reviewsDue: null,
  checkUntil: null,
  release: null,
  repliesDue: null,
  revisionDue: null,
};

/** @returns null while a date that has no default is blank. */
export function resolveDates(dates: ExchangeDates): ResolvedDates | null {
  const { draftsOpen, draftsDue, reviewsDue } = dates;
  if (draftsOpen === null || draftsDue === null || reviewsDue === null) return null;
  return {
    draftsOpen,
    draftsDue,
    lateUntil: dates.lateUntil ?? draftsDue,
    reviewsOpen: dates.reviewsOpen ?? dates.lateUntil ?? draftsDue,
    selfReviewDue: dates.selfReviewDue ?? reviewsDue,
    reviewsDue,
    release: dates.release ?? dates.checkUntil ?? reviewsDue,
    repliesDue: dates.repliesDue,
    revisionDue: dates.revisionDue,
  };
}
