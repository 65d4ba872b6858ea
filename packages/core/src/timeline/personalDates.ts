import type { Instant, ResolvedDates } from './dates.js';

export const PERSONAL_DATES = ['draftsDue', 'reviewsDue', 'repliesDue', 'revisionDue'] as const;

export type PersonalDateName = (typeof PERSONAL_DATES)[number];

/** What one student or group has instead of the common due times; null keeps the common one. */
export interface PersonalDates extends Readonly<Record<PersonalDateName, Instant | null>> {
  /** Nothing is asked of an excused person, and nothing counts as missing. */
  readonly excused: boolean;
}

/**
 * The due times that hold for one person. An own due time of drafts is the end of the hand-in for that
 * person unless the common late window is longer; openings and release stay common.
 */
export function withPersonalDates(dates: ResolvedDates, own: PersonalDates | null): ResolvedDates {
  if (own === null) return dates;
  const draftsDue = own.draftsDue ?? dates.draftsDue;
  return {
    ...dates,
    draftsDue,
    lateUntil: Math.max(dates.lateUntil, draftsDue),
    // More time for reviews is more time for the own one as well; it is never less.
    selfReviewDue: Math.max(dates.selfReviewDue, own.reviewsDue ?? dates.selfReviewDue),
    reviewsDue: own.reviewsDue ?? dates.reviewsDue,
    repliesDue: own.repliesDue ?? dates.repliesDue,
    revisionDue: own.revisionDue ?? dates.revisionDue,
  };
}

/** The nearer rule wins: what is set for the person, then what is set for the person's group. */
export function mergePersonalDates(person: PersonalDates | null, group: PersonalDates | null): PersonalDates | null {
  if (person === null || group === null) return person ?? group;
  return {
    draftsDue: person.draftsDue ?? group.draftsDue,
    reviewsDue: person.reviewsDue ?? group.reviewsDue,
    repliesDue: person.repliesDue ?? group.repliesDue,
    revisionDue: person.revisionDue ?? group.revisionDue,
    excused: person.excused || group.excused,
  };
}
