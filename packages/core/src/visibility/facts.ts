import type { RatingsRule } from '../after/afterRule.js';
import type { Openings, Stage } from '../timeline/stage.js';

export type Role = 'instructor' | 'assistant' | 'student';

/**
 * Whose names are hidden. `both-ways`: authors and reviewers do not learn each other's; `reviewers-only`: authors
 * do not learn who reviewed them; `authors-only`: reviewers do not learn whose draft they read.
 */
export type NamesPolicy = 'both-ways' | 'reviewers-only' | 'authors-only' | 'open';

/** Off, to be submitted before the drafts of others open, together with them, or open once those have been submitted. */
export type SelfReview = 'off' | 'first' | 'with' | 'after';

/** When an author reads the feedback: with all others, before them, or not before an instructor says so. */
export type OwnFeedback = 'as-planned' | 'early' | 'held';

/** What the decision needs to know of an exchange at one moment, for the one who asks. */
export interface ExchangeFacts {
  readonly published: boolean;
  readonly stage: Stage;
  /** What the dates allow the one who asks, own due times included. */
  readonly may: Openings;
  readonly names: NamesPolicy;
  /** Hiding ends with the release of feedback. */
  readonly showNamesAtRelease: boolean;
  /** Drafts of others open only to those who have handed in their own. */
  readonly ownHandInFirst: boolean;
  readonly selfReview: SelfReview;
  /** Authors read each review as it is submitted, not all of them at release. */
  readonly feedbackEach: boolean;
  /** What a reviewer has submitted stays, unless an instructor reopens it. */
  readonly reviewsFinal: boolean;
  /** Drafts are allocated as they come in: reviews open with drafts, not after them. */
  readonly rolling: boolean;
  /** When the one who asks reads the own feedback. */
  readonly ownFeedback: OwnFeedback;
  /** The one who asks can see the own grade. */
  readonly gradesReleased: boolean;
  /** It holds one practice draft, and nothing else: see `practice.ts`. */
  readonly practice: boolean;
  /** The reviews of the one who asks wait until practice is behind them. */
  readonly practiceFirst: boolean;
  /** Authors say how each review helped, and who reads that. */
  readonly ratings: RatingsRule;
  /** Neither replies nor a revision are planned: what comes after the release has no end. */
  readonly noAfter: boolean;
  /** Authors are asked to think their feedback over. */
  readonly reflection: boolean;
  /** After release, reviewers read the other reviews of the drafts that they reviewed. */
  readonly othersReviews: boolean;
  /** Reviewers see the revision of a draft that they reviewed. */
  readonly revisionShown: boolean;
  /** Where revisions are reviewed once more, their reviewers read all the earlier feedback on them. */
  readonly earlierShown: boolean;
}

/** The one who asks. `role` is null for somebody without an active enrolment in the course. */
export interface Viewer {
  readonly role: Role | null;
  /** Somebody of the staff who looks with a student's eyes: sees what the student sees, and does nothing. */
  readonly readOnly?: boolean;
}

/** How a viewer who reviews stands to the review or draft in question. */
export interface Reviewing {
  readonly viewerHandedIn: boolean;
  /** The draft is the viewer's own. */
  readonly ofOwnDraft: boolean;
  /** The viewer has submitted the review of the own draft, where one is asked for. */
  readonly selfReviewed: boolean;
  /** The viewer has submitted every review of somebody else's draft, if there are any. */
  readonly othersReviewed: boolean;
}

/** How a viewer stands to a draft: what follows from being its author, its reviewer, or of the staff. */
export interface DraftRelation extends Reviewing {
  readonly allocatedToViewer: boolean;
}

/** Something that somebody wrote in a review. Withheld: staff keep it from the author. */
interface Written {
  /** The review that it belongs to: written by the viewer, of the viewer's own draft, submitted. */
  readonly byViewer: boolean;
  readonly submitted: boolean;
  readonly withheld: boolean;
}

/** What an exchange consists of, as far as viewAs it goes. */
export type Subject =
  | { readonly kind: 'course' }
  /** Names and addresses of everybody in the course, and its library. */
  | { readonly kind: 'people' }
  | { readonly kind: 'exchange' }
  /** Settings, figures, everybody's progress, the record. */
  | { readonly kind: 'workspace' }
  /** The viewer's own draft, saved or handed in. */
  | { readonly kind: 'own-draft' }
  /** Somebody else's handed-in draft. */
  | ({ readonly kind: 'draft' } & DraftRelation)
  /**
   * A part of a draft. `saved`: only saved, not of a version. `current`: of the version that the viewer reviews, or,
   * for other viewers, of the one that counts.
   */
  | ({ readonly kind: 'part'; readonly saved: boolean; readonly current: boolean } & DraftRelation)
  /** A file as it was handed in, byte for byte, with all that it says of itself; and the versions there have been. */
  | ({ readonly kind: 'original' | 'versions' } & DraftRelation)
  /** The list of the viewer's own reviews, before any one of them is opened. */
  | { readonly kind: 'own-reviews'; readonly viewerHandedIn: boolean }
  | ({ readonly kind: 'review' } & Written & Reviewing)
  /** A note, an answer (the overall comment is one), something attached to either. */
  | ({ readonly kind: 'note' | 'answer' | 'attachment' } & Written & Reviewing)
  /** What author, reviewer and staff answered to a review, or to something in it. */
  | ({ readonly kind: 'thread' } & Written & Reviewing)
  /** A review by somebody else, of a draft that the viewer reviewed as well. `reviewed`: the viewer has submitted the own one. */
  | {
      readonly kind: 'other-review';
      readonly reviewed: boolean;
      readonly submitted: boolean;
      readonly withheld: boolean;
    }
  /**
   * A review of what became the draft in question, of the exchange before. `byViewer`: the viewer reviews the draft now;
   * `own`: the viewer wrote the earlier review.
   */
  | ({
      readonly kind: 'earlier-review';
      readonly byViewer: boolean;
      readonly own: boolean;
      readonly submitted: boolean;
      readonly withheld: boolean;
    } & Reviewing)
  /** How a review helped, in words of its author. */
  | { readonly kind: 'rating'; readonly byViewer: boolean; readonly ofOwnDraft: boolean }
  /** What authors decided about the remarks on their draft, and what they have thought over. */
  | { readonly kind: 'decisions' | 'reflection'; readonly ofOwnDraft: boolean }
  /** What was handed in after feedback. */
  | ({ readonly kind: 'revision' } & DraftRelation)
  /** When a review was submitted, and what else its reviewer has to write. */
  | { readonly kind: 'reviewing-life'; readonly byViewer: boolean }
  /** Why a form can no longer change, and what is wrong with it. */
  | { readonly kind: 'form-workings' }
  /** The viewer's own grade, with its arithmetic. */
  | { readonly kind: 'own-grade' }
  /** All that an author gets about the own draft. */
  | { readonly kind: 'feedback' }
  /** The key of a practice draft. `tried`: the viewer has submitted a try, and is not at work on another. */
  | { readonly kind: 'practice-key'; readonly tried: boolean };

/** What can be done, apart from looking. */
export type Act =
  | { readonly kind: 'create-exchange' }
  /** People, groups, library and settings of the course. */
  | { readonly kind: 'manage-course' }
  | { readonly kind: 'plan' }
  | { readonly kind: 'publish' }
  | { readonly kind: 'allocate' }
  /** Saying that a review has been looked at, and keeping something of it from its author. */
  | { readonly kind: 'check' }
  | { readonly kind: 'release' }
  /** Marking, and giving something else than what is worked out. */
  | { readonly kind: 'grade' }
  /** Any date of a published exchange, for everybody. */
  | { readonly kind: 'move-dates' }
  /** Own due times, excuses, reminders, and handing in for a student. */
  | { readonly kind: 'collect' }
  /** Beginning a try of a practice draft. */
  | { readonly kind: 'practise' }
  | { readonly kind: 'save-draft' }
  | { readonly kind: 'hand-in' }
  /** Marking one's grade as read. */
  | { readonly kind: 'read-grade' }
  /** Marking one's feedback as read. */
  | { readonly kind: 'read-feedback' }
  /** Saving what is typed; `submit-review` is what makes it count. */
  | ({
      readonly kind: 'write-review' | 'submit-review';
      readonly byViewer: boolean;
      readonly submitted: boolean;
      /** Somebody of the staff writes it under the own name: it goes by no due time. */
      readonly voice?: boolean;
      /** An instructor has reopened it, so it can be submitted until feedback is read, whatever was due. */
      readonly reopenedByStaff?: boolean;
    } & Reviewing)
  /** Asking the instructor to look at a review that one wrote, or got. */
  | {
      readonly kind: 'please-look';
      readonly byViewer: boolean;
      readonly ofOwnDraft: boolean;
      readonly submitted: boolean;
      readonly withheld: boolean;
    }
  /** Answering a review, or something in it. `begun`: somebody has before, so that there is something to answer. */
  | {
      readonly kind: 'reply';
      readonly byViewer: boolean;
      readonly ofOwnDraft: boolean;
      readonly submitted: boolean;
      readonly withheld: boolean;
      readonly begun: boolean;
    }
  /** Saying how a review of the own draft helped. */
  | { readonly kind: 'rate'; readonly ofOwnDraft: boolean; readonly submitted: boolean; readonly withheld: boolean }
  /** Deciding about remarks on the own draft, and adopting what they propose. */
  | { readonly kind: 'decide' }
  | { readonly kind: 'reflect' }
  | { readonly kind: 'hand-in-revision' }
  | ({
      readonly kind: 'reopen-review';
      readonly byViewer: boolean;
      readonly submitted: boolean;
      readonly voice?: boolean;
    } & Pick<Reviewing, 'ofOwnDraft'>)
  /** Beginning a review of a handed-in draft under the own name, beside those that are allocated. */
  | { readonly kind: 'review-as-staff' };

export const REFUSALS = [
  /** Not to be told that it exists. */
  'unknown',
  /** Known, but not for this role. */
  'not-yours',
  'not-open-yet',
  'own-draft-first',
  'self-review-first',
  'self-review-last',
  'practice-first',
  /** Seen with a student's eyes: nothing can be done. */
  'read-only',
  'over',
  'not-released',
  'grade-not-released',
  'already-submitted',
  'already-published',
  'not-published',
] as const;
export type Refusal = (typeof REFUSALS)[number];

export type Decision = { readonly allowed: true } | { readonly allowed: false; readonly refusal: Refusal };

export const ALLOWED: Decision = { allowed: true };

export function refuse(refusal: Refusal): Decision {
  return { allowed: false, refusal };
}
