import {
  countWords,
  OVERALL_ID,
  type Answer,
  type FormItem,
  type Missing,
  type ReviewForm,
  wordsBy,
} from '@salt-circle/core';
import { PAIR_WORDS } from './kinds.js';
import { say } from '../../words/app.js';

const WORDS_OF: Readonly<Record<Exclude<Missing['what'], 'notes'>, string>> = wordsBy(say, {
  level: 'notAnswered',
  value: 'notAnswered',
  checks: 'notAllAnswered',
  choice: 'notAnswered',
  comment: 'sayWhyWord',
  text: 'notAnswered',
  words: 'tooFewWords',
  next: 'notAnswered',
  'next-words': 'tooFewWords',
});

/** What is still asked for here, in a few words at the right of the title. */
export function itemState(
  item: FormItem,
  answer: Answer | undefined,
  missing: readonly Missing[],
): readonly [string, string] {
  const [first] = missing;
  if (first !== undefined) {
    if (isHalfPair(item, answer)) return [say('oneHalfAnswered'), 'text-copper'];
    const inWords =
      first.what === 'words' || first.what === 'next-words' || first.what === 'text' || first.what === 'next';
    if (inWords && (first.need > 1 || first.repeated !== undefined)) {
      const { have, need, repeated } = first;
      const words =
        repeated === undefined ? say('ofWords', { have, need }) : say('standInAnotherAnswer', { have, need, repeated });
      return [words, 'text-copper'];
    }
    if (first.what === 'checks') return [say('ofAnswered', { have: first.have, need: first.need }), 'text-copper'];
    return [first.what === 'notes' ? '' : WORDS_OF[first.what], 'text-copper'];
  }
  if (item.kind === 'prompt') return textState(answer?.text, item.required);
  return isAnswered(item, answer) ? ['done', 'text-kelp'] : [say('mayBeLeftOut'), 'text-ink-soft'];
}

/** The same for the overall comment. */
export function textState(text: string | undefined, required: boolean): readonly [string, string] {
  const count = countWords(text ?? '');
  if (count === 0) return [required ? '' : say('mayBeLeftOut'), 'text-ink-soft'];
  return [say('words', { count }), 'text-kelp'];
}

/** What works without a next step, or the other way round. */
function isHalfPair(item: FormItem, answer: Answer | undefined): boolean {
  const given = [answer?.text ?? '', answer?.next ?? ''].filter((text) => text.trim() !== '');
  return item.kind === 'pair' && given.length === 1;
}

function isAnswered(item: FormItem, answer: Answer | undefined): boolean {
  switch (item.kind) {
    case 'criterion':
      return answer?.levelId != null;
    case 'range':
    case 'number':
      return answer?.value != null;
    case 'checklist':
      return Object.keys(answer?.checks ?? {}).length > 0;
    case 'choice':
      return (answer?.choices ?? []).length > 0;
    case 'pair':
      return (answer?.text ?? '') !== '' || (answer?.next ?? '') !== '';
    case 'prompt':
      return (answer?.text ?? '') !== '';
  }
}

/** What is missing, as the end of “Missing: …”. */
export function missingWords(missing: Missing, form: Pick<ReviewForm, 'items'>): string {
  const item = form.items.find(({ id }) => id === missing.itemId);
  const title = missing.itemId === OVERALL_ID ? say('overallComment') : (item?.title ?? '');
  const whole = say('quotedTitle', { title });
  const half = (label: string) => say('quotedHalf', { title, half: label });
  const works = item?.kind === 'pair' ? half(item.worksLabel || PAIR_WORDS.works) : whole;
  const next = item?.kind === 'pair' ? half(item.nextLabel || PAIR_WORDS.next) : whole;
  const short = missing.need - missing.have;
  switch (missing.what) {
    case 'words':
      return say('moreWordsIn', { short, where: works });
    case 'next-words':
      return say('moreWordsIn', { short, where: next });
    case 'next':
      return next;
    case 'comment':
      return say('reasonIn', { where: whole });
    case 'checks':
      return say('moreEntriesIn', { short, where: whole });
    case 'notes':
      return say('moreNotesOnDraft', { short });
    case 'text':
      return works;
    default:
      return whole;
  }
}
