import { wordsBy } from '@salt-circle/core';
import type { DateName } from '@salt-circle/core';
import { say } from '../../words/courses.js';

export const DATE_WORDS: Readonly<Record<DateName, string>> = wordsBy(say, {
  draftsOpen: 'draftsOpenLabel',
  draftsDue: 'draftsDueLabel',
  lateUntil: 'lateUntil',
  reviewsOpen: 'reviewsOpenLabel',
  selfReviewDue: 'selfReviewsDueLabel',
  reviewsDue: 'reviewsDueLabel',
  checkUntil: 'checkUntilLabel',
  release: 'release',
  repliesDue: 'repliesDueLabel',
  revisionDue: 'revisionDue',
});
