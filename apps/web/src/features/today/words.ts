import { counted } from '@salt-circle/core';
import type { TodayItem, WaitingItem } from '@salt-circle/contracts';

interface NeedWords {
  readonly what: string;
  readonly verb: string;
  readonly to: string;
  /** Before the due time. */
  readonly urgent: string;
}

/** A need in words, with the one verb and where it leads. */
export function needWords({ kind, exchangeId, reviewId, done, of }: TodayItem): NeedWords {
  const at = (page: string) => `/exchanges/${exchangeId}/${page}`;
  switch (kind) {
    case 'hand-in':
      return { what: 'Your draft is not handed in', verb: 'Hand in', to: at('draft'), urgent: 'due' };
    case 'hand-in-again':
      return {
        what: 'You changed your draft after handing in; the earlier version counts',
        verb: 'Look at it',
        to: at('draft'),
        urgent: 'due',
      };
    case 'practise':
      return {
        what: `Practice comes before reviewing; ${done} of ${of} done`,
        verb: 'Practise',
        to: at('practice'),
        urgent: 'reviews due',
      };
    case 'write-review':
      return { what: `Review ${done} of ${of}`, verb: 'Review', to: `/reviews/${reviewId}`, urgent: 'due' };
    case 'submit-again':
      return {
        what: `Review ${done} of ${of} is submitted; what you changed since counts once you submit it again`,
        verb: 'Look at it',
        to: `/reviews/${reviewId}`,
        urgent: 'due',
      };
    case 'draft-missed':
      return {
        what: 'You handed in no draft, and none is taken any more; ask your instructor if you need more time',
        verb: 'See your draft',
        to: at('draft'),
        urgent: 'drafts were due',
      };
    case 'reviews-missed':
      return {
        what: `${done} of your ${of} reviews ${counted(done, 'was', 'were')} not submitted; what you wrote is kept`,
        verb: 'See them',
        to: at('reviews'),
        urgent: 'reviews were due',
      };
    case 'read-feedback':
      return {
        what: `Feedback from ${counted(done, '1 reviewer', '# reviewers')} is here`,
        verb: 'Read',
        to: at('feedback'),
        urgent: '',
      };
    case 'revise':
      return { what: 'Revise your draft and hand it in', verb: 'Revise', to: at('revise'), urgent: 'revision due' };
    case 'reflect':
      return { what: 'Think your feedback over', verb: 'Write', to: at('reflection'), urgent: 'due' };
    case 'finish-plan':
      return {
        what: 'This exchange is still being planned',
        verb: 'Plan',
        to: at('plan'),
        urgent: 'drafts are to open',
      };
    case 'allocate':
      return {
        what: `${counted(done, '1 draft waits', '# drafts wait')} to be allocated`,
        verb: 'Allocate',
        to: at('allocation'),
        urgent: 'reviews open',
      };
    case 'mend-allocation':
      return {
        what: `Something has happened since drafts were allocated (${counted(done, '1 case', '# cases')})`,
        verb: 'See the repair',
        to: at('allocation'),
        urgent: 'reviews due',
      };
    case 'look-at-allocation':
      return {
        what: 'The planned allocation was not applied: not everybody could be placed',
        verb: 'Look at it',
        to: at('allocation'),
        urgent: 'reviews open',
      };
    case 'remind-drafts':
      return {
        what: `${of - done} of ${of} students have not handed in`,
        verb: 'See who',
        to: at('drafts'),
        urgent: 'drafts due',
      };
    case 'watch-reviews':
      return {
        what: `${of - done} of ${of} reviews are not submitted`,
        verb: 'See which',
        to: at('reviews'),
        urgent: 'reviews due',
      };
    case 'release':
      return {
        what: `${counted(done, '1 review waits', '# reviews wait')} for your check`,
        verb: 'Check',
        to: at('check'),
        urgent: 'released',
      };
  }
}

const REVIEWS_DUE: Readonly<Record<WaitingItem['standing'], string>> = {
  'on-time': 'all you were asked is done; reviews are due',
  'missed-reviews': 'your reviews are not all submitted; they are due',
  'nothing-to-review': 'no draft was allocated to you; reviews are due',
  'missed-draft': 'you handed in no draft; reviews of the others are due',
};

export function waitWords({ next, role, standing }: WaitingItem): string {
  const staff = role !== 'student';
  switch (next.date) {
    case 'draftsOpen':
      return 'drafts open';
    case 'draftsDue':
      return staff ? 'drafts are due' : 'handed in; you can replace your draft until it is due';
    case 'lateUntil':
      return 'late drafts are taken until';
    case 'reviewsOpen':
      return 'reviewing opens';
    case 'selfReviewDue':
      return staff ? 'self-reviews are due' : 'the review of your own draft is due';
    case 'reviewsDue':
      return staff ? 'reviews are due' : REVIEWS_DUE[standing];
    case 'release':
      return 'feedback is released';
    case 'checkUntil':
      return 'reviews are checked until';
    case 'repliesDue':
      return 'answers are taken until';
    case 'revisionDue':
      return staff ? 'revisions are due' : 'a revision is due';
  }
}

/** Whether the words end with "until", which only an exact time can follow. */
export function isUntil({ next }: WaitingItem): boolean {
  return next.date === 'lateUntil' || next.date === 'checkUntil' || next.date === 'repliesDue';
}
