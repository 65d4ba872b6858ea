import type { DateName } from '@salt-circle/core';

export const DATE_WORDS: Readonly<Record<DateName, string>> = {
  draftsOpen: 'Drafts open',
  draftsDue: 'Drafts due',
  lateUntil: 'Late until',
  reviewsOpen: 'Reviews open',
  selfReviewDue: 'Self-reviews due',
  reviewsDue: 'Reviews due',
  checkUntil: 'Check until',
  release: 'Release',
  repliesDue: 'Replies due',
  revisionDue: 'Revision due',
};
