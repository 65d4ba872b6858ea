import { sentences } from '@salt-circle/core';

export const say = sentences('server.letters', {
  you: 'You',
  somebody: 'Somebody',
  yourFeedbackForHasReview:
    '{voice, select, instructor {{course}: your feedback for “{exchange}” has a review by your instructor now} other {{course}: your feedback for “{exchange}” has a review by your assistant now}}',
  yourHasAddedReviewTo:
    '{voice, select, instructor {Your instructor has added a review to your feedback for “{exchange}” ({course}).} other {Your assistant has added a review to your feedback for “{exchange}” ({course}).}}',
  youCanSubmitItAgain: 'You can submit it again until {until}.',
  reviewOfYoursForHas: '{course}: a review of yours for “{exchange}” has been reopened',
  reviewThatYouSubmittedFor:
    'A review that you submitted for “{exchange}” in {course} has been reopened, so that you can change it. The reason:',
  lateHandInLosesNothing: 'A late hand-in loses nothing.',
  hasBeenPublished: '{course}: “{exchange}” has been published',
  inHasBeenPublished: '“{exchange}” in {course} has been published.',
  noLongerSet: '{date}: no longer set',
  n: '{date}: {when}',
  datesOfHaveMoved: '{course}: dates of “{exchange}” have moved',
  datesOfInHaveMoved: 'Dates of “{exchange}” in {course} have moved. New:',
  thereIsNoGrade: 'There is no grade.',
  rulesOfHaveChanged: '{course}: rules of “{exchange}” have changed',
  whatYouWereToldOf: 'What you were told of “{exchange}” in {course} has changed. From now on:',
  staffHandedInForYou:
    '{purpose, select, revision {{name} (staff) handed in for you version {number} of your revision for “{exchange}” in {course} on {at}.} other {{name} (staff) handed in for you version {number} of your draft for “{exchange}” in {course} on {at}.}}',
  handedIn:
    '{purpose, select, revision {{name} handed in version {number} of your revision for “{exchange}” in {course} on {at}.} other {{name} handed in version {number} of your draft for “{exchange}” in {course} on {at}.}}',
  receiptYourFor:
    '{purpose, select, revision {Receipt: your revision for “{exchange}”} other {Receipt: your draft for “{exchange}”}}',
  sha256: '{what}\n  SHA-256 {digest}',
  draftThatWasReviewedStays:
    'Version {version} of your revision for “{exchange}” in {course} was taken back. The draft that was reviewed stays as it is; all of it is still saved.',
  nothingIsHandedInNow:
    'Version {version} of your draft for “{exchange}” in {course} was taken back. Nothing is handed in now; all of it is still saved.',
  takenBackYourFor:
    '{purpose, select, revision {Taken back: your revision for “{exchange}”} other {Taken back: your draft for “{exchange}”}}',
  linkIsKnownToAddressee: '(the link is known to the addressee only)',
  unknownReason: 'unknown reason',
  countsUntilAgain: 'What you submitted counts until you submit again.',
  receiptTitle: 'Title: {title}',
  receiptWords: 'Words: {words}',
  receiptWhole: 'All together: SHA-256 {digest}',
});
