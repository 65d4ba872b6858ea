import { ALLOWED, refuse, type Act, type Decision, type ExchangeFacts, type Reviewing, type Viewer } from './facts.js';
import { practiceMayDo } from './practice.js';
import { beforeReviewing, feedbackIsOpen, isReleasedToAll, reviewerMayOpen } from './maySee.js';

/**
 * The one rule of who may do what, when. `exchange` is null only for what concerns the whole course.
 * Assistants look, allocate and plan nothing away: releasing and publishing stay with instructors.
 */
export function mayDo(viewer: Viewer, exchange: ExchangeFacts | null, act: Act): Decision {
  if (viewer.role === null) return refuse('unknown');
  if (viewer.readOnly === true) return refuse('read-only');
  if (act.kind === 'create-exchange' || act.kind === 'manage-course') {
    return viewer.role === 'instructor' ? ALLOWED : refuse('not-yours');
  }
  if (exchange === null) return refuse('unknown');
  if (exchange.practice) return practiceMayDo(viewer, exchange, act);
  if (viewer.role === 'student' && !exchange.published) return refuse('unknown');
  switch (act.kind) {
    case 'plan':
      return viewer.role === 'instructor' ? ALLOWED : refuse('not-yours');
    case 'publish':
      if (viewer.role !== 'instructor') return refuse('not-yours');
      return exchange.published ? refuse('already-published') : ALLOWED;
    case 'collect':
    case 'check':
    case 'grade':
    case 'allocate':
      if (viewer.role === 'student') return refuse('not-yours');
      return exchange.published ? ALLOWED : refuse('not-published');
    case 'release':
    case 'move-dates':
      if (viewer.role !== 'instructor') return refuse('not-yours');
      return exchange.published ? ALLOWED : refuse('not-published');
    case 'save-draft':
      return viewer.role === 'student' ? studentMaySaveDraft(exchange) : refuse('not-yours');
    case 'practise':
      return refuse('unknown');
    case 'hand-in':
      return viewer.role === 'student' ? studentMayHandIn(exchange) : refuse('not-yours');
    case 'read-grade':
      if (viewer.role !== 'student') return refuse('not-yours');
      return exchange.gradesReleased ? ALLOWED : refuse('grade-not-released');
    case 'read-feedback':
      if (viewer.role !== 'student') return refuse('not-yours');
      return feedbackIsOpen(exchange) ? ALLOWED : refuse('not-released');
    case 'write-review':
    case 'submit-review':
      if (!act.byViewer) return refuse(viewer.role === 'student' ? 'unknown' : 'not-yours');
      if (act.voice === true && viewer.role === 'student') return refuse('unknown');
      if (act.voice === true) return act.submitted ? refuse('already-submitted') : ALLOWED;
      // Staff who review as well have no draft to hand in first.
      return mayReview(
        exchange,
        viewer.role === 'student' ? act : { ...act, viewerHandedIn: true, selfReviewed: true, othersReviewed: true },
      );
    case 'review-as-staff':
      if (viewer.role === 'student') return refuse('not-yours');
      if (!exchange.published) return refuse('not-published');
      return beforeReviewing(exchange) ? refuse('not-open-yet') : ALLOWED;
    case 'reply':
      return mayReply(viewer, exchange, act);
    case 'rate':
      if (viewer.role !== 'student') return refuse('not-yours');
      if (exchange.ratings === 'off' || !act.ofOwnDraft || !act.submitted || act.withheld) return refuse('unknown');
      return feedbackIsOpen(exchange) ? ALLOWED : refuse('unknown');
    case 'decide':
      return authorMay(viewer, exchange, true);
    case 'reflect':
      if (viewer.role === 'student' && !exchange.reflection) return refuse('unknown');
      return authorMay(viewer, exchange, exchange.may.replies || exchange.may.revision || exchange.noAfter);
    case 'hand-in-revision':
      return authorMay(viewer, exchange, exchange.may.revision);
    case 'please-look':
      return mayAskToLook(viewer, exchange, act);
    case 'reopen-review':
      // Each of the staff has the own words; nobody else reopens them.
      if (act.voice === true) return act.byViewer && viewer.role !== 'student' ? ALLOWED : refuse('unknown');
      if (!act.byViewer) return staffMayReopen(viewer, exchange, act.submitted);
      if (exchange.reviewsFinal) return refuse('already-submitted');
      return maySubmit(exchange, act) ? ALLOWED : refuse(beforeReviewing(exchange) ? 'not-open-yet' : 'over');
  }
}

/** What an author does with the own feedback, while it lasts. */
function authorMay(viewer: Viewer, exchange: ExchangeFacts, lasts: boolean): Decision {
  if (viewer.role !== 'student') return refuse('not-yours');
  if (!feedbackIsOpen(exchange)) return refuse('not-released');
  return lasts ? ALLOWED : refuse('over');
}

/**
 * Authors answer what they read, and reviewers what they are answered, or what all authors read by now; until replies are due. Staff answer
 * whatever was submitted, at any time.
 */
function mayReply(viewer: Viewer, exchange: ExchangeFacts, act: Extract<Act, { kind: 'reply' }>): Decision {
  if (!act.submitted) return refuse('unknown');
  if (viewer.role !== 'student') return ALLOWED;
  const author = act.ofOwnDraft && !act.byViewer;
  if (author && (act.withheld || !feedbackIsOpen(exchange))) return refuse('unknown');
  if (!author && !act.byViewer) return refuse('unknown');
  if (act.byViewer && !act.begun && !isReleasedToAll(exchange)) return refuse('not-released');
  return exchange.may.replies ? ALLOWED : refuse('over');
}

/** Of what somebody wrote and submitted, or reads as its author. */
function mayAskToLook(viewer: Viewer, exchange: ExchangeFacts, act: Extract<Act, { kind: 'please-look' }>): Decision {
  if (viewer.role !== 'student') return refuse('not-yours');
  if (!act.submitted) return refuse('unknown');
  if (act.byViewer) return ALLOWED;
  return act.ofOwnDraft && !act.withheld && feedbackIsOpen(exchange) ? ALLOWED : refuse('unknown');
}

/** Before its author reads it: afterwards it would be another review than the one that was answered. */
function staffMayReopen(viewer: Viewer, exchange: ExchangeFacts, submitted: boolean): Decision {
  if (viewer.role === 'student') return refuse('unknown');
  if (viewer.role !== 'instructor' || !submitted) return refuse('not-yours');
  return isReleasedToAll(exchange) ? refuse('over') : ALLOWED;
}

/** What was being typed when the due time passed is still saved: it is kept, but does not count. */
function studentMaySaveDraft(exchange: ExchangeFacts): Decision {
  return exchange.stage === 'planning' ? refuse('not-open-yet') : ALLOWED;
}

function studentMayHandIn(exchange: ExchangeFacts): Decision {
  if (exchange.may.handIn) return ALLOWED;
  return refuse(exchange.stage === 'planning' ? 'not-open-yet' : 'over');
}

function maySubmit({ may }: ExchangeFacts, { ofOwnDraft }: Pick<Reviewing, 'ofOwnDraft'>): boolean {
  return ofOwnDraft ? may.selfReview : may.review;
}

type ReviewAct = Extract<Act, { kind: 'write-review' | 'submit-review' }>;

/** What was being typed when reviews fell due is still saved until release; submitting it is over. */
function mayReview(exchange: ExchangeFacts, act: ReviewAct): Decision {
  const open = reviewerMayOpen(exchange, act);
  if (!open.allowed) return open;
  if (act.submitted) return refuse('already-submitted');
  if (maySubmit(exchange, act)) return ALLOWED;
  if (act.reopenedByStaff === true && !isReleasedToAll(exchange)) return ALLOWED;
  return act.kind === 'write-review' && !exchange.may.released ? ALLOWED : refuse('over');
}
