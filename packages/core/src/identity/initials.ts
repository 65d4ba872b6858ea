import type { Token } from './fold.js';
import type { NameForms } from './nameForms.js';

/** Between initials: "A.M.", "A. M.", "A. L. M.-L.". */
const BETWEEN = /^\.?[ \u00A0]?-?$/;
/** Before initials that stand for somebody: a dash, a colon, a bracket, a line of their own; or words that name. */
const SIGNED = /(^|\n|[—–([:]|\bby|\bsigned)[ \u00A0]*$/i;

/** All initials of a name in a row, where something says that they stand for a person. Always `perhaps`. */
export function initialFinds(
  all: readonly Token[],
  text: string,
  { initials, familyInitials }: NameForms,
): Array<{ start: number; end: number; what: 'name'; certainty: 'perhaps' }> {
  const wanted = initials + familyInitials;
  if (initials === '' || familyInitials === '' || wanted.length > 6) return [];
  const found: Array<{ start: number; end: number; what: 'name'; certainty: 'perhaps' }> = [];
  for (let first = 0; first < all.length; first += 1) {
    const token = all[first] as Token;
    if (token.text[0] !== wanted[0] || !isCapital(token.original)) continue;
    const last = endOfRow(all, first, text, wanted);
    if (last === null || !SIGNED.test(text.slice(Math.max(0, token.start - 8), token.start))) continue;
    const { end } = all[last] as Token;
    found.push({ start: token.start, end: text[end] === '.' ? end + 1 : end, what: 'name', certainty: 'perhaps' });
  }
  return found;
}

const isCapital = (word: string) => word === word.toUpperCase() && /\p{Lu}/u.test(word);

/** Index of the last word of a row of capitals that are the wanted ones; null for none. */
function endOfRow(all: readonly Token[], first: number, text: string, wanted: string): number | null {
  let row = '';
  for (let next = first; next < all.length && row.length < wanted.length; next += 1) {
    const token = all[next] as Token;
    if (!isCapital(token.original)) return null;
    if (next > first && !BETWEEN.test(text.slice((all[next - 1] as Token).end, token.start))) return null;
    row += token.text;
    if (row === wanted) return next;
  }
  return null;
}
