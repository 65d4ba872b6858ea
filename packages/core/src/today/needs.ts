import type { Instant, ResolvedDates } from '../timeline/dates.js';
import { endOf, resolveDates } from '../timeline/dates.js';
import { stageAt, type Stage, type TimelineState } from '../timeline/stage.js';

/** What somebody is to do in an exchange, or has missed in it. */
export type NeedKind =
  | 'hand-in'
  | 'hand-in-again'
  | 'draft-missed'
  | 'practise'
  | 'write-review'
  | 'submit-again'
  | 'reviews-missed'
  | 'read-feedback'
  | 'revise'
  | 'reflect'
  | 'finish-plan'
  | 'allocate'
  | 'remind-drafts'
  | 'watch-reviews'
  | 'release';

export interface Need {
  readonly kind: NeedKind;
  /** When it must be done by, or had to be. */
  readonly due: Instant | null;
  readonly reviewId?: string;
  /** Of a count, so many of so many. */
  readonly done?: number;
  readonly of?: number;
}

/** How somebody who has nothing to do now stands, for the words beside what comes next. */
export type StudentStatus = 'on-time' | 'missed-draft' | 'missed-reviews' | 'nothing-to-review';

export interface OwnReview {
  readonly id: string;
  /** Of the own draft. */
  readonly self: boolean;
  readonly submitted: boolean;
  /** Submitted, and being changed since. */
  readonly changing: boolean;
  /** An instructor asked for changes: it can be submitted until feedback is read. */
  readonly reopenedByStaff?: boolean;
  /** Until when, where the instructor said so. */
  readonly reopenUntil?: Instant | null;
}

export interface StudentSituation {
  readonly stage: Stage;
  /** With the person's own due times. */
  readonly dates: ResolvedDates;
  readonly excused: boolean;
  readonly mayHandIn: boolean;
  readonly mayReview: boolean;
  /** The review of the own draft can be submitted. */
  readonly maySelfReview: boolean;
  readonly released: boolean;
  readonly handedIn: boolean;
  readonly changedSinceHandIn: boolean;
  /** Drafts of others stay closed to those who have handed in none. */
  readonly ownHandInFirst: boolean;
  /** Practice drafts to be tried before any review, and how many of them are behind the person; null where there is nothing to try. */
  readonly practice: { readonly done: number; readonly of: number } | null;
  /** In the order in which they are to be written; as far as the person may know of them. */
  readonly reviews: readonly OwnReview[];
  /** Reviews of the own draft that can be read. */
  readonly received: number;
  readonly feedbackRead: boolean;
  /** Reviews are read one by one, before all of them are released. */
  readonly feedbackEach: boolean;
  /** A revision can be handed in, and none has been. */
  readonly toRevise: boolean;
  /** A reflection is asked for and can be handed in, and none has been. */
  readonly toReflect: boolean;
}

/** Feedback that nobody has read stays on the list this long, in milliseconds. */
const NEWS = 14 * 24 * 3_600_000;

/**
 * Whether an exchange asks nothing of anybody any more, and has nothing that is news: it has been closed, and its feedback was
 * released two weeks ago and more. For people without own due times.
 */
export function isOver(state: TimelineState, now: Instant): boolean {
  const dates = resolveDates(state.dates);
  return dates !== null && stageAt(state, now) === 'closed' && now - dates.release >= NEWS;
}

/** What is to be done by one student, the most pressing first. Nothing is asked of an excused one. */
export function studentNeeds(at: StudentSituation, now: Instant): Need[] {
  if (at.excused || at.stage === 'planning') return [];
  return [
    ...draftNeeds(at, now),
    ...practiceNeeds(at),
    ...reviewNeeds(at),
    ...feedbackNeeds(at, now),
    ...afterNeeds(at),
  ];
}

function draftNeeds(
  { mayHandIn, handedIn, changedSinceHandIn, dates, released }: StudentSituation,
  now: Instant,
): Need[] {
  const due = now < endOf(dates.draftsDue) ? dates.draftsDue : dates.lateUntil;
  if (mayHandIn && !handedIn) return [{ kind: 'hand-in', due }];
  if (mayHandIn && changedSinceHandIn) return [{ kind: 'hand-in-again', due }];
  return handedIn || mayHandIn || released ? [] : [{ kind: 'draft-missed', due: dates.lateUntil }];
}

function practiceNeeds({ practice, dates }: StudentSituation): Need[] {
  return practice === null || practice.done >= practice.of
    ? []
    : [{ kind: 'practise', due: dates.reviewsDue, done: practice.done, of: practice.of }];
}

function reviewNeeds(at: StudentSituation): Need[] {
  const { stage, handedIn, ownHandInFirst, reviews, dates, released } = at;
  if (ownHandInFirst && !handedIn) return [];
  const open = ({ self }: OwnReview) => (self ? at.maySelfReview : at.mayReview);
  const due = ({ self, reopenedByStaff, reopenUntil }: OwnReview) => {
    if (reopenedByStaff === true) return reopenUntil ?? dates.release;
    return self ? dates.selfReviewDue : dates.reviewsDue;
  };
  const toWrite = reviews.flatMap((review, index): Need[] =>
    !(open(review) || (review.reopenedByStaff === true && !released)) || (review.submitted && !review.changing)
      ? []
      : [
          {
            kind: review.changing ? 'submit-again' : 'write-review',
            due: due(review),
            reviewId: review.id,
            done: index + 1,
            of: reviews.length,
          },
        ],
  );
  const missed = reviews.filter((review) => !review.submitted && !open(review));
  const over = stage === 'checking' || stage === 'reviewing' || (afterRelease(stage) && !released);
  const [first] = missed;
  if (!over || first === undefined) return toWrite;
  return [...toWrite, { kind: 'reviews-missed', due: due(first), done: missed.length, of: reviews.length }];
}

function feedbackNeeds(
  { released, received, feedbackRead, feedbackEach, dates }: StudentSituation,
  now: Instant,
): Need[] {
  const open = released ? now - dates.release < NEWS : feedbackEach;
  const news = open && received > 0 && !feedbackRead;
  return news ? [{ kind: 'read-feedback', due: null, done: received }] : [];
}

/** Where there was feedback, what its author makes of it. */
function afterNeeds({ toRevise, toReflect, received, dates }: StudentSituation): Need[] {
  if (received === 0) return [];
  const due = dates.revisionDue ?? dates.repliesDue;
  return [
    ...(toRevise ? [{ kind: 'revise' as const, due: dates.revisionDue }] : []),
    ...(toReflect ? [{ kind: 'reflect' as const, due }] : []),
  ];
}

function afterRelease(stage: Stage): boolean {
  return stage === 'replying' || stage === 'revising' || stage === 'closed';
}

/** How a student stands who has nothing to do now. */
export function studentStatus({ handedIn, excused, mayHandIn, reviews, stage }: StudentSituation): StudentStatus {
  if (excused || stage === 'planning') return 'on-time';
  if (!handedIn && !mayHandIn) return 'missed-draft';
  if (stage !== 'reviewing' && stage !== 'checking') return 'on-time';
  if (reviews.length === 0) return 'nothing-to-review';
  return reviews.every(({ submitted }) => submitted) ? 'on-time' : 'missed-reviews';
}

export interface StaffSituation {
  readonly stage: Stage;
  readonly published: boolean;
  /** Null while dates are missing. */
  readonly dates: ResolvedDates | null;
  readonly mayHandIn: boolean;
  readonly students: number;
  readonly handedIn: number;
  readonly allocated: number;
  readonly submitted: number;
  /** Drafts are allocated as they come in, by the night. */
  readonly rolling: boolean;
}

/** Missing hand-ins and reviews become the instructor's concern this long before the due time, in milliseconds. */
const SOON = 3 * 24 * 3_600_000;

/** What is stuck, not what exists. */
export function staffNeeds(at: StaffSituation, now: Instant): Need[] {
  const { stage, published, dates, students, handedIn, allocated, submitted } = at;
  if (!published || dates === null) return [{ kind: 'finish-plan', due: dates?.draftsOpen ?? null }];
  const needs: Need[] = [];
  const before = stage === 'drafting' || stage === 'reviewing';
  if (at.mayHandIn && handedIn < students && dates.draftsDue - now <= SOON)
    needs.push({ kind: 'remind-drafts', due: dates.draftsDue, done: handedIn, of: students });
  if (now >= endOf(dates.draftsDue) && allocated === 0 && before && !at.rolling)
    needs.push({ kind: 'allocate', due: dates.reviewsOpen, done: handedIn, of: students });
  // Until they are checked: what is missing then does not come by itself.
  const missing = submitted < allocated && (stage === 'checking' || stage === 'reviewing');
  if (missing && dates.reviewsDue - now <= SOON)
    needs.push({ kind: 'watch-reviews', due: dates.reviewsDue, done: submitted, of: allocated });
  if (stage === 'checking' && submitted > 0)
    needs.push({ kind: 'release', due: dates.release, done: submitted, of: allocated });
  return needs;
}
