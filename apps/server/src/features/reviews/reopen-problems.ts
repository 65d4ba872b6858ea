import type { FieldProblem } from '@salt-circle/contracts';

export const PAST: FieldProblem = {
  path: 'until',
  code: 'past',
  sentence: 'This time has passed. Choose a later one, or none: then it is until the release.',
};

export const NO_REASON: FieldProblem = {
  path: 'reason',
  code: 'required',
  sentence: 'Say why: the reviewer reads it, and it stays on record.',
};
