import type { Stage } from '../timeline/stage.js';

export type Role = 'instructor' | 'assistant' | 'student';

/** `hidden both ways`: authors and reviewers do not learn each other's names. */
export type NamesPolicy = 'both-ways' | 'open';

/** What the decision needs to know of an exchange at one moment. */
export interface ExchangeFacts {
  readonly published: boolean;
  readonly stage: Stage;
  readonly mayHandIn: boolean;
  readonly released: boolean;
  readonly names: NamesPolicy;
}

/** The one who asks. `role` is null for somebody without an active enrolment in the course. */
export interface Viewer {
  readonly role: Role | null;
}

/** What an exchange consists of, as far as seeing it goes; `mine` are relations of the viewer to it. */
export type Subject =
  | { readonly kind: 'course' }
  | { readonly kind: 'exchange' }
  /** Settings, figures, everybody's progress, the record. */
  | { readonly kind: 'workspace' }
  /** The viewer's own draft, saved or handed in. */
  | { readonly kind: 'own-draft' }
  /** Somebody else's handed-in draft. */
  | { readonly kind: 'draft'; readonly allocatedToViewer: boolean; readonly viewerHandedIn: boolean }
  | {
      readonly kind: 'review';
      readonly byViewer: boolean;
      readonly ofViewersDraft: boolean;
      readonly viewerHandedIn: boolean;
      readonly submitted: boolean;
    }
  /** All that an author gets about the own draft. */
  | { readonly kind: 'feedback' };

/** What can be done, apart from looking. */
export type Act =
  | { readonly kind: 'create-exchange' }
  | { readonly kind: 'plan' }
  | { readonly kind: 'publish' }
  | { readonly kind: 'allocate' }
  | { readonly kind: 'release' }
  | { readonly kind: 'save-draft' }
  | { readonly kind: 'hand-in' }
  /** Saving what is typed; `submit-review` is what makes it count. */
  | {
      readonly kind: 'write-review' | 'submit-review';
      readonly byViewer: boolean;
      readonly viewerHandedIn: boolean;
      readonly submitted: boolean;
    }
  | { readonly kind: 'reopen-review'; readonly byViewer: boolean; readonly submitted: boolean };

export type Refusal =
  /** Not to be told that it exists. */
  | 'unknown'
  /** Known, but not for this role. */
  | 'not-yours'
  | 'not-open-yet'
  | 'own-draft-first'
  | 'over'
  | 'not-released'
  | 'already-submitted'
  | 'already-published'
  | 'not-published';

export type Decision = { readonly allowed: true } | { readonly allowed: false; readonly refusal: Refusal };

export const ALLOWED: Decision = { allowed: true };

export function refuse(refusal: Refusal): Decision {
  return { allowed: false, refusal };
}
