import type { FieldProblem } from '@salt-circle/contracts';
import type {
  CoreProblem,
  DateName,
  DateProblemCode,
  FormProblemCode,
  Missing,
  Refusal,
  ReviewForm,
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

export function refusal(code: Refusal): ProblemError {
  const [sentence, whatToDo] = REFUSALS[code];
  return new ProblemError({ code: code === 'unknown' ? 'not-found' : code, sentence, whatToDo });
}

export const DATE_WORDS: Readonly<Record<DateName, string>> = {
  draftsOpen: 'Drafts open',
  draftsDue: 'Drafts due',
  reviewsOpen: 'Reviews open',
  reviewsDue: 'Reviews due',
  release: 'Release',
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
  reviewsOpen: 'must not be before',
  reviewsDue: 'must be after',
  release: 'must not be before',
};

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

export function formProblem(problem: CoreProblem<FormProblemCode>): FieldProblem {
  return { path: problem.path.join('.'), code: problem.code, sentence: formSentence(problem) };
}

function formSentence({ code, facts }: CoreProblem<FormProblemCode>): string {
  const title = typeof facts['title'] === 'string' && facts['title'] !== '' ? ` “${facts['title']}”` : '';
  const item = `Item ${facts['number']}${title}`;
  switch (code) {
    case 'form-empty':
      return 'The form has no items. Add at least one criterion or prompt.';
    case 'item-untitled':
      return `${item} has no title. Reviewers need to know what it asks.`;
    case 'item-duplicate':
    case 'level-duplicate':
      return 'Two parts of the form have the same id. Remove one of them and add it again.';
    case 'levels-too-few':
      return `${item} needs at least two levels, or there is nothing to choose.`;
    case 'level-untitled':
      return `${item}: level ${facts['level']} has no name.`;
    case 'levels-mixed-points':
      return `${item} has levels with points and levels without. Give points to all of its levels, or to none.`;
    case 'points-invalid':
      return `${item}: the points of level ${facts['level']} must be from 0 to ${facts['max']}, in steps of a tenth.`;
    case 'words-invalid':
      return `${item}: the least number of words must be a whole number from 0 to ${facts['max']}.`;
  }
}

/** What a review lacks, one sentence per missing thing, at `items.<id>`. */
export function missingProblem(missing: Missing, form: ReviewForm): FieldProblem {
  const title = form.items.find((item) => item.id === missing.itemId)?.title ?? '';
  const sentences: Readonly<Record<Missing['what'], string>> = {
    level: `“${title}”: choose a level.`,
    comment: `“${title}”: say in a few words why.`,
    text: `“${title}” has no answer.`,
    words: `“${title}” has ${missing.have} of at least ${missing.need} words.`,
  };
  return { path: `items.${missing.itemId}`, code: `missing-${missing.what}`, sentence: sentences[missing.what] };
}

export function conflict(what: string, current: unknown): ProblemError {
  return new ProblemError({
    code: 'conflict',
    sentence: `${what} was changed somewhere else since you opened it here, perhaps in another tab.`,
    whatToDo: 'Compare the two and choose which one to keep. Nothing has been overwritten.',
    current,
  });
}

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

export function signedOut(): ProblemError {
  return new ProblemError({
    code: 'signed-out',
    sentence: 'You are not signed in, or your session ran out.',
    whatToDo: 'Sign in again. What you typed is kept in this browser and will be saved then.',
  });
}
