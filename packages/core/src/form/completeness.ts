import { countWords } from '../text/words.js';
import type { Answers, FormItem, ReviewForm } from './form.js';

export interface Missing {
  readonly itemId: string;
  readonly what: 'level' | 'comment' | 'text' | 'words';
  /** Words entered and words asked for; 0 and 0 where words are not counted. */
  readonly have: number;
  readonly need: number;
}

export interface Completeness {
  /** Required things, in all: a level, a required comment and a required text are one each. */
  readonly required: number;
  readonly answered: number;
  readonly missing: readonly Missing[];
  /** True when nothing required is missing. A form that requires nothing is complete from the start. */
  readonly complete: boolean;
  /** True when anything at all has been entered, required or not. */
  readonly begun: boolean;
}

/**
 * What a review still lacks. A minimum of words binds an optional prompt only once something is
 * written in it: a reviewer may leave it empty, but not half say something.
 */
export function completeness(form: ReviewForm, answers: Answers): Completeness {
  let required = 0;
  let begun = false;
  const missing: Missing[] = [];
  for (const item of form.items) {
    const asked = demands(item, answers);
    required += asked.length;
    for (const demand of asked) if (demand.missing !== null) missing.push(demand.missing);
    const answer = answers[item.id];
    if ((answer?.levelId ?? null) !== null || (answer?.text ?? '').trim() !== '') begun = true;
  }
  return { required, answered: required - missing.length, missing, complete: missing.length === 0, begun };
}

interface Demand {
  readonly missing: Missing | null;
}

function demands(item: FormItem, answers: Answers): Demand[] {
  const answer = answers[item.id];
  const text = answer?.text ?? '';
  if (item.kind === 'prompt') {
    const have = countWords(text);
    const empty = text.trim() === '';
    if (!item.required && empty) return [];
    // One word is the least an answer can be; dots and dashes are not an answer.
    const need = Math.max(item.minimumWords, 1);
    if (have >= need) return item.required ? [{ missing: null }] : [];
    const what = empty ? 'text' : 'words';
    return [{ missing: { itemId: item.id, what, have, need } }];
  }
  const list: Demand[] = [];
  const chosen = item.levels.some((level) => level.id === answer?.levelId);
  if (item.required) list.push({ missing: chosen ? null : { itemId: item.id, what: 'level', have: 0, need: 0 } });
  if (item.comment === 'required' && (item.required || chosen)) {
    const said = countWords(text) > 0;
    list.push({ missing: said ? null : { itemId: item.id, what: 'comment', have: 0, need: 1 } });
  }
  return list;
}
