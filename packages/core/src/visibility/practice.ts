import { ALLOWED, refuse, type Act, type Decision, type ExchangeFacts, type Subject, type Viewer } from './facts.js';

/**
 * Who sees what of a practice draft. It stands in an exchange of its own, whose author is whoever of the staff made it and whose
 * review by that author is the key. Everything that is not named here is nobody's.
 */
export function practiceMaySee(viewer: Viewer, exchange: ExchangeFacts, subject: Subject): Decision {
  if (viewer.role !== 'student') return ofStaff(subject);
  if (!exchange.published) return refuse('unknown');
  switch (subject.kind) {
    case 'exchange':
      return ALLOWED;
    case 'draft':
      return subject.allocatedToViewer ? open(exchange) : refuse('unknown');
    case 'part':
      return subject.allocatedToViewer && subject.current && !subject.saved ? open(exchange) : refuse('unknown');
    case 'review':
    case 'note':
    case 'answer':
    case 'attachment':
      // What others have tried is nobody's; the key is asked for by itself.
      return subject.byViewer ? open(exchange) : refuse('unknown');
    case 'practice-key':
      return subject.tried ? ALLOWED : refuse('unknown');
    case 'reviewing-life':
      return subject.byViewer ? ALLOWED : refuse('unknown');
    default:
      return refuse('unknown');
  }
}

/** A student's own try is told of by its closeness; the draft and its key are the staff's own work. */
function ofStaff(subject: Subject): Decision {
  switch (subject.kind) {
    case 'feedback':
    case 'workspace':
    case 'own-reviews':
      return refuse('unknown');
    default:
      return ALLOWED;
  }
}

/** Who may do what with a practice draft. */
export function practiceMayDo(viewer: Viewer, exchange: ExchangeFacts, act: Act): Decision {
  if (viewer.role === 'student') return studentMayPractise(exchange, act);
  if (viewer.role !== 'instructor') return refuse('not-yours');
  switch (act.kind) {
    case 'write-review':
    case 'submit-review':
      // The key, whoever of the instructors writes it.
      if (!act.byViewer) return refuse('not-yours');
      return act.submitted ? refuse('already-submitted') : ALLOWED;
    case 'reopen-review':
      return act.byViewer && act.submitted ? ALLOWED : refuse('not-yours');
    default:
      return refuse('unknown');
  }
}

function studentMayPractise(exchange: ExchangeFacts, act: Act): Decision {
  switch (act.kind) {
    case 'practise':
      return mayWrite(exchange);
    case 'write-review':
    case 'submit-review': {
      if (!act.byViewer) return refuse('unknown');
      return act.submitted ? refuse('already-submitted') : mayWrite(exchange);
    }
    case 'reopen-review':
      return refuse(act.byViewer ? 'already-submitted' : 'unknown');
    default:
      return refuse('unknown');
  }
}

function open({ stage }: ExchangeFacts): Decision {
  return stage === 'planning' ? refuse('not-open-yet') : ALLOWED;
}

/** From the opening of drafts until reviews are due. */
function mayWrite(exchange: ExchangeFacts): Decision {
  if (!exchange.published) return refuse('unknown');
  const opened = open(exchange);
  if (!opened.allowed) return opened;
  return exchange.may.review ? ALLOWED : refuse('over');
}
