import {
  ALLOWED,
  refuse,
  type Decision,
  type ExchangeFacts,
  type Reviewing,
  type Subject,
  type Viewer,
} from './facts.js';
import { practiceMaySee } from './practice.js';

/**
 * The one rule of who sees what, when. `exchange` may be null only for what concerns the whole course.
 * Whatever the answer `unknown` covers must look exactly like something that does not exist.
 */
export function maySee(viewer: Viewer, exchange: ExchangeFacts | null, subject: Subject): Decision {
  if (viewer.role === null) return refuse('unknown');
  if (subject.kind === 'course') return ALLOWED;
  if (subject.kind === 'people') return viewer.role === 'student' ? refuse('not-yours') : ALLOWED;
  if (exchange === null) return refuse('unknown');
  if (exchange.practice) return practiceMaySee(viewer, exchange, subject);
  if (viewer.role !== 'student') return staffMaySee(subject);
  if (!exchange.published) return refuse('unknown');
  switch (subject.kind) {
    case 'exchange':
    case 'own-draft':
      return ALLOWED;
    case 'workspace':
      return refuse('not-yours');
    case 'own-grade':
      return exchange.gradesReleased ? ALLOWED : refuse('grade-not-released');
    case 'feedback':
      return feedbackIsOpen(exchange) ? ALLOWED : refuse('not-released');
    case 'draft':
      if (!subject.allocatedToViewer) return refuse('unknown');
      return reviewerMayOpen(exchange, subject);
    case 'own-reviews':
      return reviewerMayOpen(exchange, { ...subject, ofOwnDraft: true, selfReviewed: true, othersReviewed: true });
    case 'review':
    case 'note':
    case 'answer':
    case 'attachment':
    case 'thread':
      if (subject.byViewer) return reviewerMayOpen(exchange, subject);
      // A review under way, or one never submitted, is not told of: its existence says who works when.
      if (!subject.ofOwnDraft || !subject.submitted || subject.withheld) return refuse('unknown');
      return feedbackIsOpen(exchange) ? ALLOWED : refuse('unknown');
    case 'part':
      if (subject.ofOwnDraft) return ALLOWED;
      if (!subject.allocatedToViewer || subject.saved || !subject.current) return refuse('unknown');
      return reviewerMayOpen(exchange, subject);
    case 'original':
    case 'versions':
      return subject.ofOwnDraft ? ALLOWED : refuse('unknown');
    case 'other-review':
      if (!exchange.othersReviews || !subject.reviewed || !subject.submitted || subject.withheld)
        return refuse('unknown');
      return isReleasedToAll(exchange) ? ALLOWED : refuse('unknown');
    case 'earlier-review':
      if (!subject.byViewer || !subject.submitted) return refuse('unknown');
      if (!subject.own && (subject.withheld || !exchange.earlierShown)) return refuse('unknown');
      return reviewerMayOpen(exchange, subject);
    case 'rating':
      if (subject.ofOwnDraft) return ALLOWED;
      return subject.byViewer && ratingIsShown(exchange) ? ALLOWED : refuse('unknown');
    case 'decisions':
    case 'reflection':
      return subject.ofOwnDraft ? ALLOWED : refuse('unknown');
    case 'revision':
      if (subject.ofOwnDraft) return ALLOWED;
      if (!subject.allocatedToViewer || !exchange.revisionShown || !exchange.may.released) return refuse('unknown');
      return reviewerMayOpen(exchange, subject);
    case 'reviewing-life':
      return subject.byViewer ? ALLOWED : refuse('unknown');
    case 'form-workings':
      return refuse('not-yours');
    case 'practice-key':
      return refuse('unknown');
  }
}

/** Staff see all of their course but have no draft and no feedback of their own; what is only saved is its author's. */
function staffMaySee(subject: Subject): Decision {
  if (subject.kind === 'own-draft' || subject.kind === 'feedback' || subject.kind === 'own-grade')
    return refuse('not-yours');
  return subject.kind === 'part' && subject.saved ? refuse('unknown') : ALLOWED;
}

/**
 * As what somebody reads a draft: its author and staff get what was handed in, as it came; a reviewer gets reading
 * copies under neutral names, with what was hidden left out.
 */
export type Reader = 'author' | 'staff' | 'reviewer';

export function readerOf(viewer: Viewer, { ofOwnDraft }: Pick<Reviewing, 'ofOwnDraft'>): Reader {
  if (viewer.role !== 'student') return 'staff';
  return ofOwnDraft ? 'author' : 'reviewer';
}

/** Whether reviewers read how their reviews helped: at once, or when nothing of it can move what is still being written. */
function ratingIsShown({ ratings, may }: ExchangeFacts): boolean {
  return ratings === 'at-once' || (ratings === 'at-end' && may.released && !may.replies && !may.revision);
}

/** Whether the one who asks can read the own feedback. */
export function feedbackIsOpen(exchange: Released & Pick<ExchangeFacts, 'ownFeedback'>): boolean {
  return exchange.ownFeedback === 'as-planned' ? isReleasedToAll(exchange) : exchange.ownFeedback === 'early';
}

type Released = Pick<ExchangeFacts, 'may' | 'feedbackEach' | 'stage' | 'rolling'>;

/** From the release on; review by review, from the opening of reviews on. */
export function isReleasedToAll(exchange: Released): boolean {
  return exchange.may.released || (exchange.feedbackEach && !beforeReviewing(exchange));
}

export function beforeReviewing({ stage, rolling }: Pick<ExchangeFacts, 'stage' | 'rolling'>): boolean {
  return stage === 'planning' || (stage === 'drafting' && !rolling);
}

/** From the opening of reviews on, for good, and in the order that the exchange asks for. */
export function reviewerMayOpen(exchange: ExchangeFacts, viewer: Reviewing): Decision {
  if (beforeReviewing(exchange)) return refuse('not-open-yet');
  if (exchange.ownHandInFirst && !viewer.viewerHandedIn) return refuse('own-draft-first');
  if (exchange.practiceFirst) return refuse('practice-first');
  const selfFirst = exchange.selfReview === 'first' && viewer.viewerHandedIn;
  const waits = selfFirst && !viewer.ofOwnDraft && !viewer.selfReviewed;
  // Who has missed it can still review the others.
  if (waits && !exchange.may.selfReviewOver) return refuse('self-review-first');
  const selfLast = exchange.selfReview === 'after' && viewer.ofOwnDraft && !viewer.othersReviewed;
  return selfLast ? refuse('self-review-last') : ALLOWED;
}
