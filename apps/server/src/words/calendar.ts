import { sentences } from '@salt-circle/core';

export const say = sentences('server.calendar', {
  draftDue: 'draft due',
  reviewOfYourOwnDraft: 'review of your own draft due',
  reviewsDue: 'reviews due',
  repliesDue: 'replies due',
  revisionDue: 'revision due',
  draftsDue: 'drafts due',
  lateDraftsUntil: 'late drafts until',
  reviewsOpen: 'reviews open',
  selfReviewsDue: 'self-reviews due',
  releaseOfFeedback: 'release of feedback',
  revisionsDue: 'revisions due',
  saltCircle: 'Salt Circle',
  dueTimes: 'Due times',
});
