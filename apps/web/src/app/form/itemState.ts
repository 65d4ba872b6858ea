import {
  counted,
  countWords,
  OVERALL_ID,
  type Answer,
  type FormItem,
  type Missing,
  type ReviewForm,
} from '@salt-circle/core';
import { PAIR_WORDS } from './kinds.js';

const WORDS_OF: Readonly<Record<Missing['what'], string>> = {
  level: 'not answered',
  value: 'not answered',
  checks: 'not all answered',
  choice: 'not answered',
  comment: 'say why',
  text: 'not answered',
  words: 'too few words',
  next: 'not answered',
  'next-words': 'too few words',
  notes: '',
};

/** What is still asked for here, in a few words at the right of the title. */
export function itemState(
  item: FormItem,
  answer: Answer | undefined,
  missing: readonly Missing[],
): readonly [string, string] {
  const [first] = missing;
  if (first !== undefined) {
    if (isHalfPair(item, answer)) return ['one half answered', 'text-copper'];
    const inWords =
      first.what === 'words' || first.what === 'next-words' || first.what === 'text' || first.what === 'next';
    if (inWords && (first.need > 1 || first.repeated !== undefined)) {
      const again = first.repeated === undefined ? '' : `; ${first.repeated} stand in another answer`;
      return [`${first.have} of ${first.need} words${again}`, 'text-copper'];
    }
    if (first.what === 'checks') return [`${first.have} of ${first.need} answered`, 'text-copper'];
    return [WORDS_OF[first.what], 'text-copper'];
  }
  if (item.kind === 'prompt') return textState(answer?.text, item.required);
  return isAnswered(item, answer) ? ['done', 'text-kelp'] : ['may be left out', 'text-ink-soft'];
}

/** The same for the overall comment. */
export function textState(text: string | undefined, required: boolean): readonly [string, string] {
  const count = countWords(text ?? '');
  if (count === 0) return [required ? '' : 'may be left out', 'text-ink-soft'];
  return [counted(count, '1 word', '# words'), 'text-kelp'];
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
  const title = missing.itemId === OVERALL_ID ? 'Overall comment' : (item?.title ?? '');
  const next = item?.kind === 'pair' ? item.nextLabel || PAIR_WORDS.next : '';
  const works = item?.kind === 'pair' ? `: ${item.worksLabel || PAIR_WORDS.works}` : '';
  const short = missing.need - missing.have;
  switch (missing.what) {
    case 'words':
      return counted(short, `1 more word in “${title}${works}”`, `# more words in “${title}${works}”`);
    case 'next-words':
      return counted(short, `1 more word in “${title}: ${next}”`, `# more words in “${title}: ${next}”`);
    case 'next':
      return `“${title}: ${next}”`;
    case 'comment':
      return `a reason in “${title}”`;
    case 'checks':
      return counted(short, `1 more entry in “${title}”`, `# more entries in “${title}”`);
    case 'notes':
      return counted(short, '1 more note on the draft', '# more notes on the draft');
    case 'text':
      return `“${title}${works}”`;
    default:
      return `“${title}”`;
  }
}
