import { sentences } from '@salt-circle/core';

export const say = sentences('server.allocation', {
  allocationCsv: '{title} allocation.csv',
  allocationsAreReadFromCsv: 'Allocations are read from a CSV file.',
  chooseFileThatEndsIn: 'Choose a file that ends in .csv.',
  howDraftsAreAllocated: 'How drafts are allocated',
  draftsHaveBeenDueAlready: 'Drafts have been due already, so nothing would be allocated at that time.',
  thisTimeHasPassedAlready: 'This time has passed already, so nothing would be allocated at it.',
  noNightIsLeftBefore: 'No night is left before reviews are due, so no round would be held.',
  chooseTimeThatIsStill: 'Choose a time that is still to come, or allocate from the board now.',
  thisPair: 'This pair',
  andDraftBy: '{reviewer} and the draft by {author}',
  sReviewOfDraftBy:
    '{done, select, submitted {{reviewer}’s review of the draft by {author} has been submitted ({answered} of {required} answered, {notes, plural, one {1 note} other {# notes}}).} other {{reviewer}’s review of the draft by {author} has been begun ({answered} of {required} answered, {notes, plural, one {1 note} other {# notes}}).}}',
  notBeenAllocated: '{course}: drafts of “{exchange}” have not been allocated',
  plannedAllocationOfInWas: 'The planned allocation of “{exchange}” in {course} was run.',
  beenAllocatedInPart: '{course}: drafts of “{exchange}” have been allocated in part',
  beenAllocatedAroundYourPairs: '{course}: drafts of “{exchange}” have been allocated around your pairs',
  hadTheirLastRoundAnd: '{course}: drafts of “{exchange}” have had their last round, and not everybody has reviews',
  thatWasLastRoundBefore:
    'That was the last round before reviews are due. Some students have fewer reviews to write than asked, or a draft that nobody reviews. The board says who, and offers a repair.',
  fewerThanTwoDraftsHave: 'Fewer than two drafts have been handed in, so there was nothing to allocate.',
  thatWasAppliedOthersWait:
    '{reached} of {asked, plural, one {1 review} other {# reviews}} could be placed. That was applied; the others wait for drafts that are still to come, and you will not be told of that again.',
  reviewsAreAllocatedPairsThat:
    '{pairs, plural, one {1 review is allocated.} other {# reviews are allocated.}} The pairs that you made by hand were kept; because of them, only {reached} of {asked, plural, one {1 review} other {# reviews}} could be placed. Without them everything would fit: look at the board, and take some of them away if you like.',
  reviewsAreAllocatedPairsThatYou:
    '{pairs, plural, one {1 review is allocated.} other {# reviews are allocated.}} The pairs that you made by hand were kept; because of them, some drafts get more reviews than others. Without them everything would fit: look at the board, and take some of them away if you like.',
  soNothingWasAppliedPreview:
    '{even, select, yes {{reached} of {asked, plural, one {1 review} other {# reviews}} could be placed, so nothing was applied.} other {{reached} of {asked, plural, one {1 review} other {# reviews}} could be placed, but not evenly, so nothing was applied.}} The preview is kept for you to look at.',
  allocationCouldNotBeWorked: 'The allocation could not be worked out; nothing was changed.',
  tryAgainIfItHappens: 'Try again. If it happens again, tell whoever looks after this server.',
  tryAgain: 'Try again.',
  forYouToReviewIn:
    '{count, plural, one {{course}: a draft for you to review in “{exchange}”} other {{course}: # drafts for you to review in “{exchange}”}}',
  youHaveBeenGivenTo:
    '{count, plural, one {You have been given a draft to review in “{exchange}” ({course}).} other {You have been given # drafts to review in “{exchange}” ({course}).}}',
  somethingElseHasBeenChanged:
    'Something else has been changed since, here or by somebody else, so this step is not the last any more.',
  lookAtBoardAsIt: 'Look at the board as it is now. Nothing was undone.',
  thereIsNothingToUndo:
    'There is nothing to undo: a review that came with the last change has been begun, or nothing was changed.',
  changePairsByHandInstead: 'Change pairs by hand instead.',
  thisPreviewHasBeenDropped:
    'This preview has been dropped or applied, here or by somebody else, so it was not applied again.',
  lookAtBoardAsItIs: 'Look at the board as it is now, or make a new preview.',
  handInsSettingsOrReviews:
    'Hand-ins, settings or reviews have changed since this preview was made, so it was not applied.',
  lookAtNewPreviewThen: 'Look at a new preview, then apply that.',
  reviewsHaveBeenBegunSo:
    '{begun, plural, one {One review has} other {# reviews have}} been begun, so whether drafts are allocated every night stays as it is.',
  leaveItAsItIs: 'Leave it as it is, or allocate by hand.',
  thisPersonHasBegunReviews:
    'This person has begun {begun, plural, one {one review} other {# reviews}} here, and stays a reviewer.',
  takeSingleDraftsAwayOn: 'Take single drafts away on the board instead.',
  thisPairIsNotAllocated: 'This pair is not allocated any more, so nothing was changed.',
  lookAtBoardAsItIsNow: 'Look at the board as it is now.',
  wroteThatDraftSoIt: '{reviewer} wrote that draft, so it cannot be given to {reviewer}.',
  chooseAnotherDraftReviewsOf: 'Choose another draft. Reviews of one’s own draft are set on the Plan page.',
  reviewsThatDraftUnderOwn: '{reviewer} reviews that draft under the own name already, beside its other reviews.',
  chooseAnotherDraftOrAnother: 'Choose another draft, or another reviewer.',
  youHaveKeptApart: 'You have kept {names} apart.',
  allowPairFirstThenAdd: 'Allow the pair first, then add it.',
  takenAwayNeitherReviewerNor:
    'Taken away, neither reviewer nor author sees it. The work is kept, and comes back if you add the pair again.',
  areAllocatedAlready: '{names} are allocated already.',
  chooseAnotherPair: 'Choose another pair.',
  noGroupsHaveBeenChosen: 'No groups have been chosen for this exchange, so reviews cannot go by them.',
  chooseSetOfGroupsOn: 'Choose a set of groups on the Plan page, or let anyone review whom.',
  nothingHasBeenHandedIn: 'Nothing has been handed in, so there is nothing to allocate yet.',
  onlyOneDraftHasBeen: 'Only one draft has been handed in, so there is nothing to allocate yet.',
  waitForMoreDraftsOr: 'Wait for more drafts, or move the date on which they are due.',
  reviewsHaveBeenBegunSoAllocation:
    '{begun, plural, one {One review has} other {# reviews have}} been begun, so the allocation is not made anew: no work is thrown away.',
  repairItInsteadThatMoves:
    'Repair it instead: that moves as little as possible, and nothing that has begun. Or change pairs by hand.',
  reviewsDue: 'Reviews due: {due}',
});
