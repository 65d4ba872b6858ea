import { diffArrays, diffWordsWithSpace } from 'diff';

/** A stretch of the two texts as one: in both, only in the earlier one, or only in the later one. */
export interface ComparedPart {
  readonly text: string;
  readonly change: 'same' | 'out' | 'in';
}

/** Beyond so many differences a passage has been written anew: it is shown as a whole, and nothing is looked for any longer. */
const MOST_EDITS = { paragraphs: 4_000, words: 1_000 } as const;

/**
 * Two texts as one, paragraph by paragraph, and word by word within what has changed.
 *
 * Myers' difference algorithm (E. W. Myers, “An O(ND) difference algorithm and its variations”, Algorithmica 1, 1986), by the
 * package `diff`, once for paragraphs and once for the words of each changed run of them. Both have an end: the time grows with
 * the length of the texts, not with its square.
 *
 * @returns parts in the order of reading; those that are `same` or `out` make up `before`, those that are `same` or `in` make up
 * `after`. Empty texts have no parts.
 */
export function compareTexts(before: string, after: string): ComparedPart[] {
  const whole = diffArrays(paragraphs(before), paragraphs(after), { maxEditLength: MOST_EDITS.paragraphs });
  if (whole === undefined) return written(before, after);
  const parts: ComparedPart[] = [];
  let [out, put] = ['', ''];
  const settle = () => {
    parts.push(...words(out, put));
    [out, put] = ['', ''];
  };
  for (const { value, added, removed } of whole) {
    const text = value.join('');
    if (removed) out += text;
    else if (added) put += text;
    else {
      settle();
      parts.push({ text, change: 'same' });
    }
  }
  settle();
  return parts;
}

function words(out: string, put: string): ComparedPart[] {
  if (out === '' || put === '') return written(out, put);
  const found = diffWordsWithSpace(out, put, { maxEditLength: MOST_EDITS.words });
  if (found === undefined) return written(out, put);
  return found.map(({ value, added, removed }) => ({ text: value, change: removed ? 'out' : added ? 'in' : 'same' }));
}

function written(out: string, put: string): ComparedPart[] {
  const parts: ComparedPart[] = [
    { text: out, change: 'out' },
    { text: put, change: 'in' },
  ];
  return parts.filter(({ text }) => text !== '');
}

/** Each with the end of line after it. */
function paragraphs(text: string): string[] {
  return text === '' ? [] : text.split(/(?<=\n)/u);
}
