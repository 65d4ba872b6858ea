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
} from '@salt-circle/core';
import { ProblemError } from './problem-error.js';

/** Words of a refusal: what is the case, and what can be done. */
const REFUSALS: Readonly<Record<Refusal, readonly [sentence: string, whatToDo: string]>> = {
  unknown: [
    'There is nothing at this address, or nothing that is open to you.',
    'Go back to Today, or ask your instructor for the address.',
  ],
  'not-yours': ['This is not open to your role in the course.', 'Ask an instructor of the course to do it.'],
  'not-open-yet': ['This has not opened yet.', 'Today shows when it opens.'],
  'own-draft-first': [
    'You have not handed in a draft in this exchange, so there are no drafts for you to review.',
    'Talk to your instructor if you handed in by another way.',
  ],
  'self-review-first': [
    'In this exchange you review your own draft first. The drafts of others open when you have submitted that.',
    'Go back to your reviews and begin with your own draft.',
  ],
  'self-review-last': [
    'In this exchange you review your own draft last. It opens when you have submitted your reviews of the others.',
    'Go back to your reviews and submit those first.',
  ],
  'practice-first': [
    'In this exchange you practise first. The drafts of others open when you have submitted the practice reviews.',
    'Go to Practice in this exchange and begin there.',
  ],
  'read-only': [
    'You are looking with a student’s eyes, so nothing can be done from here.',
    'Go back to your own view first.',
  ],
  over: [
    'The due time has passed. What you typed is kept and can be read, but it does not count.',
    'Ask your instructor whether it can still be taken in.',
  ],
  'not-released': ['Feedback has not been released yet.', 'Today shows when it will be.'],
  'already-submitted': [
    'This review has been submitted, so it cannot be changed.',
    'Reopen it first, while reviews are open.',
  ],
  'already-published': ['This exchange is already published.', 'Its dates can still be moved.'],
  'not-published': ['This exchange is not published yet.', 'Publish it on the Plan page first.'],
};

/** A refusal of the core as an answer: not found for what must not be told, the reason otherwise. */
export function refusal(code: Refusal): ProblemError {
  const [sentence, whatToDo] = REFUSALS[code];
  return new ProblemError({ code: code === 'unknown' ? 'not-found' : code, sentence, whatToDo });
}

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

/** E.g. "Thu 12 Mar 2026, 23:59 EET", in the time zone of the course. */
export function dateInWords(at: number, timeZone: string): string {
  const parts = new Intl.DateTimeFormat('en-GB', {
    timeZone,
    weekday: 'short',
    day: 'numeric',
    month: 'short',
    year: 'numeric',
    hour: '2-digit',
    minute: '2-digit',
    hourCycle: 'h23',
    timeZoneName: 'short',
  }).formatToParts(at);
  const part = (type: Intl.DateTimeFormatPartTypes) => parts.find((one) => one.type === type)?.value ?? '';
  return `${part('weekday')} ${part('day')} ${part('month')} ${part('year')}, ${part('hour')}:${part('minute')} ${part('timeZoneName')}`;
}

/** The relation that holds between a date and the one before it, for the sentence about a clash. */
const MUST_FOLLOW: Readonly<Record<DateName, 'must be after' | 'must not be before'>> = {
  draftsOpen: 'must be after',
  draftsDue: 'must be after',
  lateUntil: 'must not be before',
  reviewsOpen: 'must not be before',
  selfReviewDue: 'must be after',
  reviewsDue: 'must be after',
  checkUntil: 'must not be before',
  release: 'must not be before',
  repliesDue: 'must not be before',
  revisionDue: 'must not be before',
};

/** What is wrong with a date, with the times in the course’s time zone. */
export function dateProblem(problem: CoreProblem<DateProblemCode>, timeZone: string): FieldProblem {
  const name = problem.path[0] as DateName;
  const field = { path: `dates.${name}`, code: problem.code };
  switch (problem.code) {
    case 'date-missing':
      return { ...field, sentence: `“${DATE_WORDS[name]}” has no date. Choose one.` };
    case 'date-unreal':
      return { ...field, sentence: `“${DATE_WORDS[name]}” is not in this century. Check the year.` };
    case 'date-order': {
      const other = problem.facts['other'] as DateName;
      const otherAt = dateInWords(problem.facts['otherAt'] as number, timeZone);
      const at = dateInWords(problem.facts['at'] as number, timeZone);
      return {
        ...field,
        sentence:
          `“${DATE_WORDS[name]}” (${at}) ${MUST_FOLLOW[name]} “${DATE_WORDS[other]}” (${otherAt}). ` +
          `Move “${DATE_WORDS[name]}” later, or “${DATE_WORDS[other]}” earlier.`,
      };
    }
  }
}

const FAULTS: Readonly<Record<ValueFault, string>> = {
  'too-small': 'is less than is asked for',
  'too-large': 'is more than is asked for',
  'not-whole': 'is no whole number',
  'between-steps': 'lies between the steps',
};

/** Why a number is no answer to an item. */
export function valueProblem(item: RangeItem | NumberItem, value: number): FieldProblem {
  const fault = FAULTS[valueFault(item, value) ?? 'not-whole'];
  return { path: 'value', code: 'value-wrong', sentence: `“${item.title}”: ${value} ${fault}. Give another number.` };
}

/** What is wrong with a form, in words. */
export function formProblem(problem: CoreProblem<FormProblemCode>): FieldProblem {
  return { path: problem.path.join('.'), code: problem.code, sentence: formSentence(problem) };
}

function formSentence({ code, facts }: CoreProblem<FormProblemCode>): string {
  const title = typeof facts['title'] === 'string' && facts['title'] !== '' ? ` “${facts['title']}”` : '';
  const item = facts['number'] === 0 ? 'The overall comment' : `Item ${facts['number']}${title}`;
  switch (code) {
    case 'form-empty':
      return 'The form asks for nothing. Add an item, require an overall comment, or ask for notes.';
    case 'item-untitled':
      return `${item} has no title. Reviewers need to know what it asks.`;
    case 'item-duplicate':
    case 'part-duplicate':
      return 'Two parts of the form have the same id. Remove one of them and add it again.';
    case 'levels-too-few':
      return `${item} needs at least two levels, or there is nothing to choose.`;
    case 'options-too-few':
      return `${item} needs at least two options, or there is nothing to choose.`;
    case 'entries-too-few':
      return `${item} has no entries. Add what reviewers are to look for.`;
    case 'bands-too-few':
      return `${item} has no bands, so its points mean nothing. Describe at least one band.`;
    case 'level-untitled':
      return `${item}: level ${facts['part']} has no name.`;
    case 'band-untitled':
      return `${item}: band ${facts['part']} has no name.`;
    case 'entry-empty':
      return `${item}: entry ${facts['part']} says nothing.`;
    case 'option-untitled':
      return `${item}: option ${facts['part']} has no name.`;
    case 'mixed-points':
      return `${item} has parts with points and parts without. Give points to all of them, or to none.`;
    case 'points-invalid':
      return `${item}: the points of part ${facts['part']} must be from 0 to ${facts['max']}, in steps of a tenth.`;
    case 'band-reversed':
      return `${item}: band ${facts['part']} goes from ${facts['from']} down to ${facts['to']}. Swap the two.`;
    case 'bands-overlap':
      return `${item}: band ${facts['part']} begins at ${facts['from']}, but the bands before it reach ${facts['highest']}. Let it begin above that.`;
    case 'step-invalid':
      return `${item}: points go in steps of 1, 0.5 or 0.1.`;
    case 'bounds-reversed':
      return `${item}: the least value (${facts['minimum']}) must not be above the greatest (${facts['maximum']}).`;
    case 'weight-invalid':
      return `${item}: the weight must be from 0 to ${facts['max']}.`;
    case 'weights-zero':
      return 'All weights are 0, so there would be no score. Give at least one scored item a weight, or go by points.';
    case 'words-invalid':
      return `${item}: the least number of words must be a whole number from 0 to ${facts['max']}.`;
    case 'notes-invalid':
      return `The number of notes must be a whole number from 0 to ${facts['max']}.`;
    case 'target-below-minimum':
      return `The notes hoped for (${facts['target']}) are fewer than the least asked for (${facts['minimum']}). Raise the one, or lower the other.`;
  }
}

/** What a review lacks, one sentence per missing thing, at `items.<id>`. */
export function missingProblem(missing: Missing, form: ReviewForm): FieldProblem {
  const item = form.items.find(({ id }) => id === missing.itemId);
  const title = missing.itemId === OVERALL_ID ? 'Overall comment' : (item?.title ?? '');
  const next = item?.kind === 'pair' && item.nextLabel !== '' ? item.nextLabel : 'Next step';
  const sentences: Readonly<Record<Missing['what'], string>> = {
    level: `“${title}”: choose a level.`,
    value: item?.kind === 'range' ? `“${title}”: give points.` : `“${title}”: enter a number within its bounds.`,
    checks: `“${title}”: ${missing.have} of ${missing.need} entries answered.`,
    choice: `“${title}”: choose an option.`,
    next: `“${title}”: “${next}” has no answer.`,
    'next-words': `“${title}”: “${next}” has ${missing.have} of at least ${missing.need} words.`,
    notes: `${missing.have} of at least ${missing.need} notes on the draft.`,
    comment: `“${title}”: say in a few words why.`,
    text: `“${title}” has no answer.`,
    words: `“${title}” has ${missing.have} of at least ${missing.need} words.`,
  };
  return { path: `items.${missing.itemId}`, code: `missing-${missing.what}`, sentence: sentences[missing.what] };
}

/** @param whose other people who may have changed it, e.g. " or by somebody of your group" */
export function conflict(what: string, current: unknown, whose = ''): ProblemError {
  return new ProblemError({
    code: 'conflict',
    sentence: `${what} was changed somewhere else since you opened it here, perhaps in another tab${whose}.`,
    whatToDo: 'Compare the two and choose which one to keep. Nothing has been overwritten.',
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
        : `${fields.length} things need mending before this can be kept.`,
    whatToDo: 'Mend what is marked. Nothing was changed.',
    fields,
  });
}

/** Answers 401: nobody is signed in. */
export function signedOut(): ProblemError {
  return new ProblemError({
    code: 'signed-out',
    sentence: 'You are not signed in, or your session ran out.',
    whatToDo: 'Sign in again. What you typed is kept in this browser and will be saved then.',
  });
}
