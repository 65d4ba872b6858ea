import { sentences } from '@salt-circle/core';

export const say = sentences('server.reviews', {
  editIsProposedWithChange:
    'An edit is proposed with a Change or a Fix note. Choose one of them, or take the edit out.',
  editIsProposedForPassage: 'An edit is proposed for a passage. Select its words, or say in the note what to do.',
  formHasNoSuchItem: 'The form has no such item. Load the page again; your note stays in this browser.',
  thisPartIsNotIn:
    'This part is not in the version of the draft that you review. Load the page again; your note stays in this browser.',
  thisPartOfDraftHas:
    'This part of the draft has no such places. Choose another place, or leave the note on the whole part.',
  thisPlaceEndsWhereIt: 'This place ends where it begins. Select some text, or a longer span.',
  thisPlaceIsNotIn: 'This place is not in the draft. Choose it again.',
  thisTimeHasPassedChoose: 'This time has passed. Choose a later one, or none: then it is until the release.',
  sayWhyReviewerReadsIt: 'Say why: the reviewer reads it, and it stays on record.',
  thisNote: 'This note',
  overallComment: 'Overall comment',
  answerTo: 'The answer to “{title}”',
  someoneWhoHasLeft: 'someone who has left',
  anotherOfYourRemarksSays: 'Another of your remarks says just that.',
  removeOneOfTwoOr: 'Remove one of the two, or word this one otherwise.',
  reviewIsEmptySoThere: 'The review is empty, so there is nothing to submit.',
  thingsAreMissingBeforeThis:
    '{missing, plural, one {One thing is} other {# things are}} missing before this review can be submitted.',
  fillInWhatIsListed: 'Fill in what is listed. All you have written so far is saved.',
  notesOfThisReviewHave: 'The notes of this review have more text than can be kept.',
  thisReviewHasNotesAs: 'This review has {notes} notes, as many as it can have.',
  reviewCanHaveNotesThis: 'A review can have {notes} notes. This one has {count}, and {more} more would come.',
  putSeveralNotesIntoOne: 'Put several notes into one, or remove one. What you typed stays in this browser.',
  thisReviewIsOfVersion: 'This review is of version {number} of the draft, and you have version {read} in view.',
  loadPageAgainWhatYou: 'Load the page again. What you wrote is kept in this browser.',
});
