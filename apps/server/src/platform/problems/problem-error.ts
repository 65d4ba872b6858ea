import type { FieldProblem, Problem, ProblemCode } from '@salt-circle/contracts';

const STATUS: Readonly<Record<ProblemCode, number>> = {
  'signed-out': 401,
  'sign-in-wrong': 401,
  'too-many-tries': 429,
  'too-busy': 503,
  'password-weak': 422,
  'password-wrong': 422,
  'password-needed': 403,
  'address-taken': 409,
  'place-there-already': 409,
  'no-mail': 409,
  'cross-site': 403,
  'not-found': 404,
  'not-yours': 403,
  'not-open-yet': 403,
  'own-draft-first': 403,
  'self-review-first': 403,
  'practice-first': 403,
  'self-review-last': 403,
  'read-only': 403,
  over: 403,
  'not-released': 403,
  'grade-not-released': 403,
  'already-submitted': 409,
  'already-published': 409,
  'not-published': 409,
  invalid: 422,
  'too-large': 413,
  'not-json': 400,
  conflict: 409,
  'form-frozen': 409,
  'already-read': 409,
  'plan-fixed': 409,
  'needs-confirming': 409,
  'file-unreadable': 422,
  'import-wrong': 422,
  'link-over': 410,
  'plan-incomplete': 422,
  'draft-empty': 422,
  'draft-changed': 409,
  'hand-in-incomplete': 422,
  'names-found': 409,
  'file-refused': 422,
  'upload-unknown': 404,
  'upload-unfinished': 409,
  'too-many-files': 409,
  'limit-reached': 409,
  'store-full': 507,
  'review-incomplete': 422,
  'review-full': 409,
  'allocation-changed': 409,
  'allocation-begun': 409,
  'too-few-drafts': 409,
  'platform-wrong': 422,
  'platform-silent': 502,
  unexpected: 500,
};

/** A refusal that is part of the design: answered as a {@link Problem}, never logged as a fault. */
export class ProblemError extends Error {
  readonly problem: Problem;
  readonly status: number;

  constructor(problem: Omit<Problem, 'fields'> & { readonly fields?: readonly FieldProblem[] }) {
    super(problem.sentence);
    this.name = 'ProblemError';
    this.problem = { ...problem, fields: problem.fields ?? [] };
    this.status = STATUS[problem.code];
  }
}
