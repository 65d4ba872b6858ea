import { ALLOWED, refuse, type Decision, type ExchangeFacts, type Subject, type Viewer } from './facts.js';

/**
 * The one rule of who sees what, when. `exchange` may be null only for the subject `course`.
 * Whatever the answer `unknown` covers must look exactly like something that does not exist.
 */
export function maySee(viewer: Viewer, exchange: ExchangeFacts | null, subject: Subject): Decision {
  if (viewer.role === null) return refuse('unknown');
  if (subject.kind === 'course') return ALLOWED;
  if (exchange === null) return refuse('unknown');
  if (viewer.role !== 'student') return staffMaySee(subject);
  if (!exchange.published) return refuse('unknown');
  switch (subject.kind) {
    case 'exchange':
    case 'own-draft':
      return ALLOWED;
    case 'workspace':
      return refuse('not-yours');
    case 'feedback':
      return exchange.released ? ALLOWED : refuse('not-released');
    case 'draft':
      if (!subject.allocatedToViewer) return refuse('unknown');
      return reviewerMayOpen(exchange, subject.viewerHandedIn);
    case 'review':
      if (subject.byViewer) return reviewerMayOpen(exchange, subject.viewerHandedIn);
      // A review under way, or one never submitted, is not told of: its existence says who works when.
      if (!subject.ofViewersDraft || !subject.submitted) return refuse('unknown');
      return exchange.released ? ALLOWED : refuse('unknown');
  }
}

/** Staff see all of their course but have no draft and no feedback of their own. */
function staffMaySee(subject: Subject): Decision {
  return subject.kind === 'own-draft' || subject.kind === 'feedback' ? refuse('not-yours') : ALLOWED;
}

/** From the opening of reviews on, for good, and only for those who handed in their own. */
function reviewerMayOpen(exchange: ExchangeFacts, viewerHandedIn: boolean): Decision {
  if (exchange.stage === 'planning' || exchange.stage === 'drafting') return refuse('not-open-yet');
  return viewerHandedIn ? ALLOWED : refuse('own-draft-first');
}
