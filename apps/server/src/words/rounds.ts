import { sentences } from '@salt-circle/core';

export const say = sentences('server.rounds', {
  reviewer: 'Reviewer {index}',
  yourRevisionIsReviewedOnce: '{course}: your revision is reviewed once more, in “{exchange}”',
  whatYouHandedInAs:
    'What you handed in as a revision in “{earlier}” ({course}) is reviewed once more, in “{exchange}”. There is nothing for you to hand in.',
  nobodyHasHandedInRevision: 'Nobody has handed in a revision yet, so there is nothing to review once more.',
  makeSecondRoundOnceRevisions: 'Make the second round once revisions are there.',
  reviewsDue: 'Reviews due: {due}',
});
