import type { FieldProblem } from '@salt-circle/contracts';
import {
  OVERALL_ID,
  valueFault,
  type CoreProblem,
  type DateName,
  type DateProblemCode,
  type FormProblemCode,
  type Missing,
  type NumberItem,
  type RangeItem,
  type ValueFault,
  type Refusal,
  type ReviewForm,
  exactly,
  wordsBy,
} from '@salt-circle/core';
import { ProblemError } from './problem-error.js';
import { say } from '../../words/problems.js';
import { fact } from './fact.js';

/** Words of a refusal: what is the case, and what can be done. */
const REFUSALS: Readonly<Record<Refusal, () => readonly [sentence: string, whatToDo: string]>> = {
  unknown: () => [say('thereIsNothingAtThis'), say('goBackToTodayOr')],
  'not-yours': () => [say('thisIsNotOpenTo'), say('askInstructorOfCourseTo')],
  'not-open-yet': () => [say('thisHasNotOpenedYet'), say('todayShowsWhenItOpens')],
  'own-draft-first': () => [say('youHaveNotHandedIn'), say('talkToYourInstructorIf')],
  'self-review-first': () => [say('inThisExchangeYouReview'), say('goBackToYourReviews')],
  'self-review-last': () => [say('inThisExchangeYouReviewYour'), say('goBackToYourReviewsAnd')],
  'practice-first': () => [say('inThisExchangeYouPractise'), say('goToPracticeInThis')],
  'read-only': () => [say('youAreLookingWithStudents'), say('goBackToYourOwn')],
  over: () => [say('dueTimeHasPassedWhat'), say('askYourInstructorWhetherIt')],
  'not-released': () => [say('feedbackHasNotBeenReleased'), say('todayShowsWhenItWill')],
  'grade-not-released': () => [say('gradeNotReleased'), say('gradeNotReleasedWhatToDo')],
  'already-submitted': () => [say('thisReviewHasBeenSubmitted'), say('reopenItFirstWhileReviews')],
  'already-published': () => [say('thisExchangeIsAlreadyPublished'), say('itsDatesCanStillBe')],
  'not-published': () => [say('thisExchangeIsNotPublished'), say('publishItOnPlanPage')],
};

/** A refusal of the core as an answer: not found for what must not be told, the reason otherwise. */
export function refusal(code: Refusal): ProblemError {
  const [sentence, whatToDo] = REFUSALS[code]();
  return new ProblemError({ code: code === 'unknown' ? 'not-found' : code, sentence, whatToDo });
}

export const DATE_WORDS: Readonly<Record<DateName, string>> = wordsBy(say, {
  draftsOpen: 'draftsOpen',
  draftsDue: 'draftsDue',
  lateUntil: 'lateUntil',
  reviewsOpen: 'reviewsOpen',
  selfReviewDue: 'selfReviewsDue',
  reviewsDue: 'reviewsDue',
  checkUntil: 'checkUntil',
  release: 'release',
  repliesDue: 'repliesDue',
  revisionDue: 'revisionDue',
});

/** E.g. "Thu 12 Mar 2026, 23:59 EET", in the time zone of the course. */
export function dateInWords(at: number, timeZone: string): string {
  return exactly(at, timeZone, null);
}

/** Dates that may be the same as the one before them. */
const MAY_BE_SAME: ReadonlySet<DateName> = new Set<DateName>([
  'lateUntil',
  'reviewsOpen',
  'checkUntil',
  'release',
  'repliesDue',
  'revisionDue',
]);

/** What is wrong with a date, with the times in the course’s time zone. */
export function dateProblem(problem: CoreProblem<DateProblemCode>, timeZone: string): FieldProblem {
  const name = problem.path[0] as DateName;
  const field = { path: `dates.${name}`, code: problem.code };
  switch (problem.code) {
    case 'date-missing':
      return { ...field, sentence: say('hasNoDateChooseOne', { dateWords: DATE_WORDS[name] }) };
    case 'date-unreal':
      return { ...field, sentence: say('isNotInThisCentury', { dateWords: DATE_WORDS[name] }) };
    case 'date-order': {
      const other = problem.facts['other'] as DateName;
      const otherAt = dateInWords(problem.facts['otherAt'] as number, timeZone);
      const at = dateInWords(problem.facts['at'] as number, timeZone);
      return {
        ...field,
        sentence: say(MAY_BE_SAME.has(name) ? 'dateNotBefore' : 'dateAfter', {
          date: DATE_WORDS[name],
          at,
          other: DATE_WORDS[other],
          otherAt,
        }),
      };
    }
  }
}

const FAULTS = {
  'too-small': 'isLessThanIsAsked',
  'too-large': 'isMoreThanIsAsked',
  'not-whole': 'isNoWholeNumber',
  'between-steps': 'liesBetweenSteps',
} as const satisfies Record<ValueFault, string>;

/** Why a number is no answer to an item. */
export function valueProblem(item: RangeItem | NumberItem, value: number): FieldProblem {
  const fault = FAULTS[valueFault(item, value) ?? 'not-whole'];
  return {
    path: 'value',
    code: 'value-wrong',
    sentence: say(fault, { title: item.title, value }),
  };
}

/** What is wrong with a form, in words. */
export function formProblem(problem: CoreProblem<FormProblemCode>): FieldProblem {
  return { path: problem.path.join('.'), code: problem.code, sentence: formSentence(problem) };
}

function formSentence({ code, facts }: CoreProblem<FormProblemCode>): string {
  const title = typeof facts['title'] === 'string' && facts['title'] !== '' ? ` “${facts['title']}”` : '';
  const item = facts['number'] === 0 ? say('overallComment') : say('item', { number: fact(facts, 'number'), title });
  switch (code) {
    case 'form-empty':
      return say('formAsksForNothingAdd');
    case 'item-untitled':
      return say('hasNoTitleReviewersNeed', { item });
    case 'item-duplicate':
    case 'part-duplicate':
      return say('twoPartsOfFormHave');
    case 'levels-too-few':
      return say('needsAtLeastTwoLevels', { item });
    case 'options-too-few':
      return say('needsAtLeastTwoOptions', { item });
    case 'entries-too-few':
      return say('hasNoEntriesAddWhat', { item });
    case 'bands-too-few':
      return say('hasNoBandsSoIts', { item });
    case 'level-untitled':
      return say('levelHasNoName', { item, part: fact(facts, 'part') });
    case 'band-untitled':
      return say('bandHasNoName', { item, part: fact(facts, 'part') });
    case 'entry-empty':
      return say('entrySaysNothing', { item, part: fact(facts, 'part') });
    case 'option-untitled':
      return say('optionHasNoName', { item, part: fact(facts, 'part') });
    case 'mixed-points':
      return say('hasPartsWithPointsAnd', { item });
    case 'points-invalid':
      return say('pointsOfPartMustBe', { item, part: fact(facts, 'part'), max: fact(facts, 'max') });
    case 'band-reversed':
      return say('bandGoesFromDownTo', {
        item,
        part: fact(facts, 'part'),
        from: fact(facts, 'from'),
        to: fact(facts, 'to'),
      });
    case 'bands-overlap':
      return say('bandBeginsAtButBands', {
        item,
        part: fact(facts, 'part'),
        from: fact(facts, 'from'),
        highest: fact(facts, 'highest'),
      });
    case 'step-invalid':
      return say('pointsGoInStepsOf', { item });
    case 'bounds-reversed':
      return say('leastValueMustNotBe', { item, minimum: fact(facts, 'minimum'), maximum: fact(facts, 'maximum') });
    case 'weight-invalid':
      return say('weightMustBeFrom0', { item, max: fact(facts, 'max') });
    case 'weights-zero':
      return say('allWeightsAre0So');
    case 'words-invalid':
      return say('leastNumberOfWordsMust', { item, max: fact(facts, 'max') });
    case 'notes-invalid':
      return say('numberOfNotesMustBe', { max: fact(facts, 'max') });
    case 'target-below-minimum':
      return say('notesHopedForAreFewer', { target: fact(facts, 'target'), minimum: fact(facts, 'minimum') });
  }
}

/** What a review lacks, one sentence per missing thing, at `items.<id>`. */
export function missingProblem(missing: Missing, form: ReviewForm): FieldProblem {
  const item = form.items.find(({ id }) => id === missing.itemId);
  const title = missing.itemId === OVERALL_ID ? say('overallCommentLabel') : (item?.title ?? '');
  const next = item?.kind === 'pair' && item.nextLabel !== '' ? item.nextLabel : say('nextStep');
  const sentences: Readonly<Record<Missing['what'], string>> = {
    level: say('chooseLevel', { title }),
    value: item?.kind === 'range' ? say('givePoints', { title }) : say('enterNumberWithinItsBounds', { title }),
    checks: say('ofEntriesAnswered', { title, have: missing.have, need: missing.need }),
    choice: say('chooseOption', { title }),
    next: say('hasNoAnswer', { title, next }),
    'next-words': say('hasOfAtLeastWords', { title, next, have: missing.have, need: missing.need }),
    notes: say('ofAtLeastNotesOn', { have: missing.have, need: missing.need }),
    comment: say('sayInFewWordsWhy', { title }),
    text: say('hasNoAnswerOf', { title }),
    words: say('hasOfAtLeastWordsOf', { title, have: missing.have, need: missing.need }),
  };
  return { path: `items.${missing.itemId}`, code: `missing-${missing.what}`, sentence: sentences[missing.what] };
}

/** @param shared whether others of a group may have changed it */
export function conflict(what: string, current: unknown, shared = false): ProblemError {
  return new ProblemError({
    code: 'conflict',
    sentence: say('wasChangedSomewhereElseSince', { what, shared: shared ? 'yes' : 'no' }),
    whatToDo: say('compareTwoAndChooseWhich'),
    current,
  });
}

/** Answers 422 with a sentence for each field. */
export function invalid(fields: readonly FieldProblem[]): ProblemError {
  return new ProblemError({
    code: 'invalid',
    sentence:
      fields.length === 1
        ? (fields[0] as FieldProblem).sentence
        : say('thingsNeedMendingBeforeThis', { fields: fields.length }),
    whatToDo: say('mendWhatIsMarkedNothing'),
    fields,
  });
}

/** Answers 401: nobody is signed in. */
export function signedOut(): ProblemError {
  return new ProblemError({
    code: 'signed-out',
    sentence: say('youAreNotSignedIn'),
    whatToDo: say('signInAgainWhatYou'),
  });
}
