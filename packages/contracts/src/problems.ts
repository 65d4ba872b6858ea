/** What every refused request answers with. */
export interface Problem {
  readonly code: ProblemCode;
  /** What happened. */
  readonly sentence: string;
  /** The way out. */
  readonly whatToDo: string;
  readonly fields: readonly FieldProblem[];
  /** For a conflict: what the server holds. */
  readonly current?: unknown;
}

export interface FieldProblem {
  /** Property names and indexes joined by dots, e.g. `dates.reviewsDue`, `items.2.title`. */
  readonly path: string;
  readonly code: string;
  readonly sentence: string;
}

export const PROBLEM_CODES = [
  'signed-out',
  'sign-in-wrong',
  'too-many-tries',
  'too-busy',
  'password-weak',
  'password-wrong',
  'password-needed',
  'address-taken',
  'place-there-already',
  'no-mail',
  'cross-site',
  'not-found',
  'not-yours',
  'not-open-yet',
  'own-draft-first',
  'self-review-first',
  'practice-first',
  'self-review-last',
  'read-only',
  'over',
  'not-released',
  'grade-not-released',
  'already-submitted',
  'already-published',
  'not-published',
  'invalid',
  'too-large',
  'not-json',
  'conflict',
  'form-frozen',
  'already-read',
  'plan-fixed',
  'needs-confirming',
  'file-unreadable',
  'import-wrong',
  'link-over',
  'plan-incomplete',
  'draft-empty',
  'draft-changed',
  'hand-in-incomplete',
  'names-found',
  'file-refused',
  'upload-unknown',
  'upload-unfinished',
  'too-many-files',
  'limit-reached',
  'store-full',
  'review-incomplete',
  'review-full',
  'allocation-changed',
  'allocation-begun',
  'too-few-drafts',
  'platform-wrong',
  'platform-silent',
  'unexpected',
] as const;

export type ProblemCode = (typeof PROBLEM_CODES)[number];
