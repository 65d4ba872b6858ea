import type { Token } from './fold.js';
import type { NamePart } from './nameForms.js';

/** Words before a name that say that it is one. */
const NAMING = new Set(
  (
    'by author authors authored autor autorin name names named student students signed submitted writer written am called ' +
    'calls me i dear mr mrs ms miss mx dr prof professor herr frau'
  ).split(' '),
);
/** Of these, the ones that are written with a full stop behind them. */
const SHORTENED = new Set('mr mrs ms dr prof'.split(' '));
/** Words before the name of a place. */
const AT_A_PLACE = new Set('in at near around through towards outside inside across en em à bei nach'.split(' '));
/** A person has no article. */
const ARTICLES = new Set('the a an der die das den dem el la los las le les il'.split(' '));
/** A name on a line of its own stands so far from the beginning at most; UTF-16 code units. */
const TITLE_PAGE = 400;
/** Words of such a line. */
const TITLE_LINE = 4;

/**
 * What a single part of a name is worth where it stands; null for nothing.
 *
 * @param index of the part among all the words of the text
 * @param particles small words of the name itself
 */
export function weighAlone(
  all: readonly Token[],
  index: number,
  text: string,
  part: NamePart,
  particles: readonly string[],
  as: 'prose' | 'label',
): 'sure' | 'perhaps' | null {
  const token = all[index] as Token;
  if (as === 'label') return part.common ? 'perhaps' : 'sure';
  const named = isNamed(all, index, text);
  if (token.original === token.original.toLowerCase()) {
    if (part.common) return null;
    return isInAddress(text, token) ? 'sure' : named ? 'perhaps' : null;
  }
  if (named) return 'sure';
  // "By Adjoa Mensah" in the work of Ann Mensah: a second name of hers, or somebody else.
  if (part.family && isForename(all[index - 1], token, text) && isNamed(all, index - 1, text)) return 'perhaps';
  if (isSomethingElse(all, index, text, particles)) return null;
  if (part.common || part.usual || part.text.length < 3) return standsAlone(all, index, text) ? 'perhaps' : null;
  return part.family ? 'sure' : 'perhaps';
}

/** "by Adjoa", "Author: Adjoa", "my name is Adjoa", "Dear Ms Mensah". */
function isNamed(all: readonly Token[], index: number, text: string): boolean {
  const before = all[index - 1];
  if (before === undefined) return false;
  const gap = text.slice(before.end, (all[index] as Token).start);
  const endsSentence = /[.!?\n]\s/.test(gap) && !(gap === '. ' && SHORTENED.has(before.text));
  if (gap.length > 3 || endsSentence) return false;
  return NAMING.has(before.text) || (before.text === 'is' && NAMING.has(all[index - 2]?.text ?? ''));
}

function isForename(before: Token | undefined, token: Token, text: string): boolean {
  return before !== undefined && /^\p{Lu}/u.test(before.original) && text.slice(before.end, token.start) === ' ';
}

/** A folder or a page of somebody: "/home/adjoa/", "~adjoa". */
function isInAddress(text: string, { start, end }: Token): boolean {
  return /[/\\~@]/.test(text[start - 1] ?? ' ') || /[/\\]/.test(text[end] ?? ' ');
}

/** The name of another person, a place, a book, a thing; or of somebody who is cited. */
function isSomethingElse(all: readonly Token[], index: number, text: string, particles: readonly string[]): boolean {
  const token = all[index] as Token;
  const before = all[index - 1];
  const after = all[index + 1];
  const gapBefore = before === undefined ? '' : text.slice(before.end, token.start);
  const gapAfter = after === undefined ? '' : text.slice(token.end, after.start);
  const capital = (one: Token) => /^\p{Lu}/u.test(one.original);
  if (before !== undefined && /^\.?[ \t]$/u.test(gapBefore)) {
    const isInitial = before.original.length === 1 && capital(before);
    if (
      isInitial ||
      (gapBefore === ' ' &&
        !particles.includes(before.text) &&
        (ARTICLES.has(before.text) || AT_A_PLACE.has(before.text)))
    )
      return true;
    // "Kwame Mensah", "Santa Cruz", "the Salt Marsh": but not "Then Adjoa", where every word would have a capital.
    if (gapBefore === ' ' && capital(before) && !beginsSentence(text, before.start)) return true;
  }
  if (after !== undefined && capital(after)) {
    if (after.original.length === 1 && /^,?\s$/u.test(gapAfter) && text[after.end] === '.') return true;
    if (gapAfter === ' ') return true;
  }
  return isCited(text.slice(token.end, token.end + 40));
}

/** At the beginning of a sentence every word has a capital. */
function beginsSentence(text: string, start: number): boolean {
  // regex: over six characters
  return /(^|[.!?:\n])["“”'’)\]]?\s*$/u.test(text.slice(Math.max(0, start - 6), start));
}

/** "Mensah (2015)", "Mensah 2015", "Mensah, 2015", "Mensah et al.", "Mensah & Obi", "Mensah and Obi (2015)". */
function isCited(after: string): boolean {
  return /^('s|’s)?,?\s*(\(?(1[89]|20)\d\d|et al|(&|and)\s+\p{Lu}[\p{L}-]+,?\s*\(?(1[89]|20)\d\d)/u.test(after);
}

/** On a line of few words at the beginning of the text, as on a title page. */
function standsAlone(all: readonly Token[], index: number, text: string): boolean {
  const { start, end } = all[index] as Token;
  if (start > TITLE_PAGE) return false;
  const from = text.lastIndexOf('\n', start - 1) + 1;
  const to = text.indexOf('\n', end);
  const line = text.slice(from, to < 0 ? text.length : to).trim();
  // A title ends without a stop as well: the name alone, or with marks around it.
  return to >= 0 && line.split(/\s+/).length <= TITLE_LINE && !/[.!?]$/.test(line) && line.length <= end - start + 4;
}
