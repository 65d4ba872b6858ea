import { sentences } from '@salt-circle/core';

export const say = sentences('server.replies', {
  someoneWhoHasLeft: 'someone who has left',
  reviewOfYours: '{course}: an answer in a review of yours, “{exchange}”',
  yourFeedback: '{course}: an answer in your feedback, “{exchange}”',
  somebodyHasAnsweredInFor: 'Somebody has answered in your feedback for “{exchange}” ({course}).',
  thereAreAnswersToThis: 'There are {replies} answers to this review already, and no more can be added.',
  talkToEachOtherIn: 'Talk to each other in another way, or ask your instructor.',
  answeredInReview: 'Somebody has answered in a review of yours for “{exchange}” ({course}).',
});
