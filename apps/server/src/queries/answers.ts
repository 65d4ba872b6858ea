import type { AnswerRequest, AnswerView, FieldProblem } from '@salt-circle/contracts';
import { checksOf, valueFault, type FormItem } from '@salt-circle/core';
import { invalid, valueProblem } from '../platform/problems/sentences.js';
import type { AnswerRow } from '../model/review.js';
import { say } from '../words/access.js';

export type AnswerContent = Pick<AnswerRow, 'levelId' | 'text' | 'next' | 'value' | 'checks' | 'choices'>;

/**
 * What is kept of an answer: the parts that its kind of item has.
 * @param item undefined for the overall comment, which is text alone
 * @throws ProblemError `invalid` for levels, entries and options that the item does not have, and for numbers that answer it not
 */
export function answerFrom(request: AnswerRequest, item: FormItem | undefined): AnswerContent {
  const { levelId = null, text = '', next = '', value = null, checks = {}, choices = [] } = request;
  const none: AnswerContent = { levelId: null, text, next: '', value: null, checks: {}, choices: [] };
  const unknown = (path: string, what: string): FieldProblem => ({
    path,
    code: `unknown-${what}`,
    sentence: say('hasNoSuchLoadPage', { title: item?.title ?? '' }),
  });
  const assertKnown = (given: readonly string[], parts: ReadonlyArray<{ id: string }>, path: string, what: string) => {
    if (given.some((one) => !parts.some(({ id }) => id === one))) throw invalid([unknown(path, what)]);
  };
  switch (item?.kind) {
    case 'criterion':
      assertKnown(levelId === null ? [] : [levelId], item.levels, 'levelId', 'level');
      return { ...none, levelId };
    case 'range':
    case 'number':
      if (value !== null && valueFault(item, value) !== null) {
        throw invalid([valueProblem(item, value)]);
      }
      return { ...none, text: item.kind === 'number' ? '' : text, value };
    case 'checklist':
      assertKnown(Object.keys(checks), item.entries, 'checks', 'entry');
      if (Object.values(checks).some((check) => !checksOf(item).includes(check))) throw invalid([NO_CANNOT_TELL]);
      // In the order of the form, whatever the order in which they were ticked.
      return {
        ...none,
        checks: Object.fromEntries(
          item.entries.flatMap(({ id }) => (checks[id] === undefined ? [] : [[id, checks[id]]])),
        ),
      };
    case 'choice': {
      assertKnown(choices, item.options, 'choices', 'option');
      const chosen = item.options.map(({ id }) => id).filter((id) => choices.includes(id));
      return { ...none, choices: item.multiple ? chosen : chosen.slice(0, 1) };
    }
    case 'pair':
      return { ...none, next };
    case 'prompt':
    case undefined:
      // With an old page open, a level may come along with a text; a text has none.
      if (levelId !== null) throw invalid([unknown('levelId', 'level')]);
      return none;
  }
}

type Said = Omit<AnswerView, 'revision'>;

/** Whether two answers say the same, so that a repeated save is no conflict. */
export function sameAnswer(current: Said, next: Said): boolean {
  return (
    current.levelId === next.levelId &&
    current.text === next.text &&
    current.next === next.next &&
    current.value === next.value &&
    JSON.stringify(current.checks) === JSON.stringify(next.checks) &&
    JSON.stringify(current.choices) === JSON.stringify(next.choices)
  );
}

const NO_CANNOT_TELL: FieldProblem = {
  path: 'checks',
  code: 'unknown-check',
  get sentence() {
    return say('thisChecklistIsAnsweredWith');
  },
};
