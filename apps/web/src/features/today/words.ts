import type { ReactNode } from 'react';
import type { TodayItem, WaitingItem } from '@salt-circle/contracts';
import { say } from '../../words/today.js';

type UrgentWords =
  | 'due'
  | 'reviewsDue'
  | 'draftsWereDue'
  | 'reviewsWereDue'
  | 'revisionDue'
  | 'draftsAreToOpen'
  | 'reviewsOpen'
  | 'draftsDue'
  | 'released';

interface NeedWords {
  readonly what: string;
  readonly verb: string;
  readonly to: string;
  /** What is said of the due time. */
  readonly urgent: UrgentWords;
}

/** A need in words, with the one verb and where it leads. */
export function needWords({ kind, exchangeId, reviewId, done, of }: TodayItem): NeedWords {
  const at = (page: string) => `/exchanges/${exchangeId}/${page}`;
  switch (kind) {
    case 'hand-in':
      return { what: say('yourDraftIsNotHanded'), verb: say('handIn'), to: at('draft'), urgent: 'due' };
    case 'hand-in-again':
      return {
        what: say('youChangedYourDraftAfter'),
        verb: say('lookAtIt'),
        to: at('draft'),
        urgent: 'due',
      };
    case 'practise':
      return {
        what: say('practiceComesBeforeReviewingOf', { done, of }),
        verb: say('practise'),
        to: at('practice'),
        urgent: 'reviewsDue',
      };
    case 'write-review':
      return {
        what: say('reviewOf', { done, of }),
        verb: say('review'),
        to: `/reviews/${reviewId}`,
        urgent: 'due',
      };
    case 'submit-again':
      return {
        what: say('reviewOfIsSubmittedWhat', { done, of }),
        verb: say('lookAtIt'),
        to: `/reviews/${reviewId}`,
        urgent: 'due',
      };
    case 'draft-missed':
      return {
        what: say('youHandedInNoDraft'),
        verb: say('seeYourDraft'),
        to: at('draft'),
        urgent: 'draftsWereDue',
      };
    case 'reviews-missed':
      return {
        what: say('ofYourReviewsWereNot', { done, of }),
        verb: say('seeThem'),
        to: at('review'),
        urgent: 'reviewsWereDue',
      };
    case 'read-feedback':
      return {
        what: say('feedbackFromReviewersIsHere', { done }),
        verb: say('read'),
        to: at('feedback'),
        urgent: 'due',
      };
    case 'revise':
      return { what: say('reviseYourDraftAndHand'), verb: say('revise'), to: at('revise'), urgent: 'revisionDue' };
    case 'reflect':
      return { what: say('thinkYourFeedbackOver'), verb: say('write'), to: at('reflection'), urgent: 'due' };
    case 'finish-plan':
      return {
        what: say('thisExchangeIsStillBeing'),
        verb: say('plan'),
        to: at('plan'),
        urgent: 'draftsAreToOpen',
      };
    case 'allocate':
      return {
        what: say('draftsWaitToBeAllocated', { done }),
        verb: say('allocate'),
        to: at('allocation'),
        urgent: 'reviewsOpen',
      };
    case 'mend-allocation':
      return {
        what: say('somethingHasHappenedSinceDrafts', { done }),
        verb: say('seeRepair'),
        to: at('allocation'),
        urgent: 'reviewsDue',
      };
    case 'look-at-allocation':
      return {
        what: say('plannedAllocationWasNotApplied'),
        verb: say('lookAtIt'),
        to: at('allocation'),
        urgent: 'reviewsOpen',
      };
    case 'remind-drafts':
      return {
        what: say('ofStudentsHaveNotHanded', { of: of - done, of2: of }),
        verb: say('seeWho'),
        to: at('drafts'),
        urgent: 'draftsDue',
      };
    case 'watch-reviews':
      return {
        what: say('ofReviewsAreNotSubmitted', { of: of - done, of2: of }),
        verb: say('seeWhich'),
        to: at('reviews'),
        urgent: 'reviewsDue',
      };
    case 'release':
      return {
        what: say('reviewsWaitForYourCheck', { done }),
        verb: say('check'),
        to: at('check'),
        urgent: 'released',
      };
  }
}

const REVIEWS_DUE = {
  'on-time': 'allYouWereAskedIs',
  'missed-reviews': 'yourReviewsAreNotAll',
  'nothing-to-review': 'noDraftWasAllocatedTo',
  'missed-draft': 'youHandedInNoDraftReviews',
} as const satisfies Record<WaitingItem['standing'], string>;

/** What comes next in a course, and when; as somebody sees it who waits for it. */
export function waitWords({ next, role, standing, courseTitle: course }: WaitingItem, when: ReactNode): ReactNode {
  const staff = role !== 'student';
  switch (next.date) {
    case 'draftsOpen':
      return say('draftsOpen', { course, when });
    case 'draftsDue':
      return say(staff ? 'draftsAreDue' : 'handedInYouCanReplace', { course, when });
    case 'lateUntil':
      return say('lateDraftsAreTakenUntil', { course, when });
    case 'reviewsOpen':
      return say('reviewingOpens', { course, when });
    case 'selfReviewDue':
      return say(staff ? 'selfReviewsAreDue' : 'reviewOfYourOwnDraft', { course, when });
    case 'reviewsDue':
      return say(staff ? 'reviewsAreDue' : REVIEWS_DUE[standing], { course, when });
    case 'release':
      return say('feedbackIsReleased', { course, when });
    case 'checkUntil':
      return say('reviewsAreCheckedUntil', { course, when });
    case 'repliesDue':
      return say('answersAreTakenUntil', { course, when });
    case 'revisionDue':
      return say(staff ? 'revisionsAreDue' : 'revisionIsDue', { course, when });
  }
}

/** Whether it goes on until then, which is said with the exact time first. */
export function isUntil({ next }: WaitingItem): boolean {
  return next.date === 'lateUntil' || next.date === 'checkUntil' || next.date === 'repliesDue';
}
