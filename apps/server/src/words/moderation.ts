import { sentences } from '@salt-circle/core';

export const say = sentences('server.check', {
  youAreAskedToLook: '{course}: you are asked to look at a review in “{exchange}”',
  somebodyAsksYouToLook: 'Somebody asks you to look at a review in “{exchange}” ({course}).',
  answerToWhatYouAsked: '{course}: an answer to what you asked about “{exchange}”',
  youAskedYourInstructorTo:
    'You asked your instructor to look at something in “{exchange}” ({course}). The answer is there now.',
  someoneWhoHasLeft: 'someone who has left',
  youHaveAskedTimesAbout: 'You have asked {most} times about this review already.',
  talkToYourInstructor: 'Talk to your instructor.',
  youWereGivenThisDraft:
    'You were given this draft to review under an alias, and both reviews beside each other would tell whose that is.',
  writeInReviewThatYou:
    'Write in the review that you have, or have it taken away on the allocation board and ask somebody else of the staff.',
});
