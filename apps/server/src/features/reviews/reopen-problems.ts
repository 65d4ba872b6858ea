import type { FieldProblem } from '@salt-circle/contracts';
import { say } from '../../words/reviews.js';

export const PAST: FieldProblem = {
  path: 'until',
  code: 'past',
  get sentence() {
    return say('thisTimeHasPassedChoose');
  },
};

export const NO_REASON: FieldProblem = {
  path: 'reason',
  code: 'required',
  get sentence() {
    return say('sayWhyReviewerReadsIt');
  },
};
