import { sentences } from '@salt-circle/core';

export const say = sentences('server.planning', {
  practice: 'Practice',
  chooseOneStudentOrOne: 'Choose one student, or one group, whose times these are.',
  giveAtLeastOneDue: 'Give at least one due time, or excuse them.',
  setDatesOfExchangeFirst: 'Set the dates of the exchange first.',
  mustBeAfterMoveIt: '“{date}” must be after “{other}” ({when}). Move it later.',
  thisExchangeHasNoSet: 'This exchange has no “{dateWords}”. Set it for everybody first.',
  form: 'The form',
  formIsYourInstructorsTo: 'The form is your instructor’s to change.',
  soReviewFormCanNo:
    '{drafts, plural, one {One draft has been handed in} other {# drafts have been handed in}}{reviews, plural, =0 {} one { and one review has answers to it} other { and # reviews have answers to it}}, so the review form can no longer change: everybody is reviewed by the same one.',
  studentsHavePractisedWithThis:
    'Students have practised with this form, so it can no longer change: everybody is to know what they are reviewed by.',
  fallsOn: '“{dateWords}” ({dateInWords}) falls on “{title}”.',
  giveDayOnWhichFirst: 'Give the day on which the first date is to fall.',
  areNoSuchGroups: 'There are no such groups in this course. Load the page again and choose anew.',
  isNoSuchSetOf: 'There is no such set of labels in this course. Load the page again and choose anew.',
  isSomebodyMissingOfThose:
    'There is somebody missing of those who were chosen in this course. Load the page again and choose anew.',
  isNoSuchGroup: 'There is no such group in this course. Load the page again and choose anew.',
  briefIsEmptySayWhat: 'The brief is empty. Say what authors are to write.',
  practiceHasNoDraftYet: 'Practice has no draft yet. Add one, or turn practice off.',
  practiceDraftHasNoKey: 'The practice draft {title} has no key yet. Fill in its form and submit it.',
  reopenKeyAndFillIn:
    'The form has changed since the key of {title} was submitted. Reopen the key and fill in what is new.',
  group: 'a group',
  draftsHaveBeenAllocatedReviews:
    'Drafts have been allocated ({reviews, plural, one {1 review} other {# reviews}}, {begun} begun), so this stays.',
  reviewsHaveBegunTheirWriters: 'Reviews have begun: their writers go by what was said of them, so this stays.',
  exchangeIsPublishedPeopleHave:
    'The exchange is published: people have been told when they read their feedback, so this stays.',
  exchangeIsPublishedPeopleHaveBeen:
    'The exchange is published: people have been told whether their names are shown, so this stays.',
  exchangeIsPublishedExcuseSingle:
    'The exchange is published. Excuse single students below, or add people to the course: they are taken in.',
  exchangeIsPublishedPeopleHaveBeenTold:
    'The exchange is published: people have been told how they hand in, so this stays.',
  soWhatHandInContains:
    '{drafts, plural, one {One draft has been handed in, so what a hand-in contains stays.} other {# drafts have been handed in, so what a hand-in contains stays.}} Titles and descriptions can still be mended.',
  plan: 'The plan',
  exchangeIsPublishedWhatBeing:
    'The exchange is published: what being late loses and what the grade is made of are changed by a step of their own, with a notice to those concerned.',
  draftsDueHasPassedSo: '“Drafts due” ({dateInWords}) has passed, so nobody could hand in. Move it later.',
  authorsHaveReadFeedbackSo:
    '{read, plural, one {One author has} other {# authors have}} read the feedback, so its release cannot be taken back.',
  withholdSingleThingsOrHold: 'Withhold single things, or hold the feedback back from those who have not read theirs.',
  keepCopyInLibraryChange: 'Keep a copy in the library, change that, and use it in the next exchange.',
  thingsAreMissingBeforeThis:
    '{missing, plural, one {One thing is} other {# things are}} missing before this exchange can be published.',
  mendWhatIsListedThen: 'Mend what is listed, then publish.',
  exchangeIsPublishedSoIts:
    'The exchange is published, so its dates are moved by a step of their own, with a notice to those concerned.',
  useMoveDatesOnPlan: 'Use “Move dates” on the Plan page.',
  useChangeRuleOrChange: 'Use “Change the rule” or “Change the grade” on the Plan page.',
  leaveThisAsItIs: 'Leave this as it is. Everything else can be saved.',
});
