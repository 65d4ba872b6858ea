import { countWords } from '../text/words.js';
import { OVERALL_ID, type Answer, type Answers, type CommentRule, type FormItem, type ReviewForm } from './form.js';
import { fieldKey, repeatedWords, type TextField } from './repeated.js';
import { valueFault } from './value.js';

export interface Missing {
  /** {@link OVERALL_ID} for the overall comment; empty for notes on the draft. */
  readonly itemId: string;
  /** `text` and `words` also of the second field of a pair, then as `next` and `next-words`. */
  readonly what:
    'level' | 'value' | 'checks' | 'choice' | 'comment' | 'text' | 'words' | 'next' | 'next-words' | 'notes';
  /** What is there and what is asked for: words, entries, or notes; 0 and 0 where nothing is counted. */
  readonly have: number;
  readonly need: number;
  /** Words that stand in an answer before too, and are not counted again. */
  readonly repeated?: number;
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

type Demand = Missing | null;

/**
 * What a review still lacks. A minimum of words binds an optional text only once something is
 * written in it: a reviewer may leave it empty, but not half say something.
 *
 * @param notes how many notes the reviewer has left on the draft
 */
export function completeness(form: ReviewForm, answers: Answers, notes: number): Completeness {
  const repeated = repeatedWords(form, answers);
  const again = (id: string, field: TextField) => repeated.get(fieldKey(id, field)) ?? 0;
  const demands: Demand[] = form.items.flatMap((item) => demandsOf(item, answers[item.id], again));
  if (form.overall !== 'none') {
    const required = form.overall === 'required';
    const text = { text: answers[OVERALL_ID]?.text, again: again(OVERALL_ID, 'text'), field: 'text' as const };
    demands.push(...textDemand(OVERALL_ID, text, required, form.overallWords));
  }
  if (form.minimumNotes > 0) {
    const short = notes < form.minimumNotes;
    demands.push(short ? { itemId: '', what: 'notes', have: notes, need: form.minimumNotes } : null);
  }
  const missing = demands.filter((one) => one !== null);
  const begun = notes > 0 || [...form.items.map(({ id }) => id), OVERALL_ID].some((id) => entered(answers[id]));
  return {
    required: demands.length,
    answered: demands.length - missing.length,
    missing,
    complete: missing.length === 0,
    begun,
  };
}

function entered(answer: Answer | undefined): boolean {
  if (answer === undefined) return false;
  return (
    (answer.levelId ?? null) !== null ||
    (answer.value ?? null) !== null ||
    (answer.text ?? '').trim() !== '' ||
    (answer.next ?? '').trim() !== '' ||
    Object.keys(answer.checks ?? {}).length > 0 ||
    (answer.choices ?? []).length > 0
  );
}

type Again = (itemId: string, field: TextField) => number;

function demandsOf(item: FormItem, answer: Answer | undefined, again: Again): Demand[] {
  const missing = (what: Missing['what'], have = 0, need = 0): Missing => ({ itemId: item.id, what, have, need });
  const field = (name: TextField): Written => ({ text: answer?.[name], again: again(item.id, name), field: name });
  switch (item.kind) {
    case 'prompt':
      return textDemand(item.id, field('text'), item.required, item.minimumWords);
    case 'pair': {
      // Half a pair is none: once one field is filled, the other is asked for as well.
      const asked = item.required || [answer?.text, answer?.next].some((text) => (text ?? '').trim() !== '');
      return [
        ...textDemand(item.id, field('text'), asked, item.minimumWords),
        ...textDemand(item.id, field('next'), asked, item.minimumWords),
      ];
    }
    case 'criterion': {
      const chosen = item.levels.some((level) => level.id === answer?.levelId);
      return choiceDemands(item, answer, chosen, missing('level'));
    }
    case 'range': {
      const value = answer?.value ?? null;
      return choiceDemands(item, answer, value !== null && valueFault(item, value) === null, missing('value'));
    }
    case 'number': {
      const value = answer?.value ?? null;
      const fits = value !== null && valueFault(item, value) === null;
      // A number out of its bounds is asked for again even where none was required.
      return item.required || value !== null ? [fits ? null : missing('value')] : [];
    }
    case 'checklist': {
      const have = item.entries.filter(({ id }) => answer?.checks?.[id] !== undefined).length;
      const whole = have === item.entries.length;
      return choiceDemands(item, answer, whole, missing('checks', have, item.entries.length));
    }
    case 'choice': {
      const chosen = item.options.some(({ id }) => answer?.choices?.includes(id) === true);
      return choiceDemands(item, answer, chosen, missing('choice'));
    }
  }
}

function choiceDemands(
  item: { readonly id: string; readonly required: boolean; readonly comment: CommentRule },
  answer: Answer | undefined,
  chosen: boolean,
  otherwise: Missing,
): Demand[] {
  const list: Demand[] = item.required ? [chosen ? null : otherwise] : [];
  if (item.comment === 'required' && (item.required || chosen)) {
    const said = countWords(answer?.text ?? '') > 0;
    list.push(said ? null : { itemId: item.id, what: 'comment', have: 0, need: 1 });
  }
  return list;
}

interface Written {
  readonly text: string | undefined;
  /** Words of it that were said before. */
  readonly again: number;
  readonly field: TextField;
}

function textDemand(
  itemId: string,
  { text, again, field }: Written,
  required: boolean,
  minimumWords: number,
): Demand[] {
  const have = countWords(text ?? '') - again;
  const empty = (text ?? '').trim() === '';
  if (!required && empty) return [];
  // One word is the least an answer can be; dots and dashes are not an answer.
  const need = Math.max(minimumWords, 1);
  if (have >= need) return required ? [null] : [];
  const few = field === 'text' ? 'words' : 'next-words';
  return [{ itemId, what: empty ? field : few, have, need, ...(again > 0 && { repeated: again }) }];
}
