import { fold, tokens, type Token } from './fold.js';
import { nameForms, type Identity, type NameForms, type NamePart } from './nameForms.js';

/** A place in a text that tells who wrote it. */
export interface IdentityFind {
  /** UTF-16 code units; `end` is exclusive. */
  readonly start: number;
  readonly end: number;
  readonly exact: string;
  readonly what: 'name' | 'email' | 'campus-id';
  /** `perhaps`: may as well be another person, or a word of the language. */
  readonly certainty: 'sure' | 'perhaps';
  /** Index of the person in the list that was given. */
  readonly person: number;
}

export interface SearchOptions {
  /**
   * `prose` weighs by context; `label` is for file names, properties and the like, which are made of names more often
   * than of sentences, and in which capitals tell nothing.
   */
  readonly as: 'prose' | 'label';
}

/**
 * Finds what tells who wrote a text: parts of names in any order, case and with or without accents, names with
 * initials, run together, addresses and campus ids.
 *
 * A family name and a given name side by side are sure; so is an uncommon family name alone, but not where it is cited
 * with a year or "et al.". A given name alone, and any name that is also a word of the language, is `perhaps`, unless
 * the words before it say that somebody is named ("by", "author", "name"); a common word in small letters is none.
 *
 * @returns finds in the order of the text, none overlapping another; empty for an empty text or nobody to look for
 */
export function findIdentities(
  text: string,
  people: readonly Identity[],
  { as }: SearchOptions = { as: 'prose' },
): IdentityFind[] {
  const all = tokens(text);
  const folded = fold(text);
  const finds = people.flatMap((identity, person) => {
    const forms = nameForms(identity);
    return [
      ...addressFinds(folded, forms),
      ...idFinds(all, text, forms),
      ...nameFinds(all, text, forms, as),
      ...unspacedFinds(folded, forms),
    ].map((find) => ({ ...find, person, exact: text.slice(find.start, find.end) }));
  });
  return withoutOverlaps(finds);
}

type Found = Omit<IdentityFind, 'person' | 'exact'>;

function addressFinds({ text, from }: ReturnType<typeof fold>, { address }: NameForms): Found[] {
  const found: Found[] = [];
  const plain = fold(address).text;
  if (plain.length < 6 || !plain.includes('@')) return found;
  for (let at = text.indexOf(plain); at >= 0; at = text.indexOf(plain, at + plain.length)) {
    // "not-adjoa@…" and "…@example.organic" are other addresses.
    if (/[\p{L}\p{N}._%+-]/u.test(text[at - 1] ?? ' ') || /[\p{L}\p{N}]/u.test(text[at + plain.length] ?? ' '))
      continue;
    found.push({
      start: from[at] as number,
      end: from[at + plain.length] as number,
      what: 'email',
      certainty: 'sure',
    });
  }
  return found;
}

/** In scripts that put no spaces between words a name is found as letters in a row, whatever stands around it. */
function unspacedFinds({ text, from }: ReturnType<typeof fold>, { unspaced }: NameForms): Found[] {
  const found: Found[] = [];
  for (const name of unspaced) {
    for (let at = text.indexOf(name); at >= 0; at = text.indexOf(name, at + name.length)) {
      const [start, end] = [from[at] as number, from[at + name.length] as number];
      found.push({ start, end, what: 'name', certainty: 'sure' });
    }
  }
  return found;
}

/** Letters and digits of the id in a row, whatever single sign stands between them: "cr-4101", "CR4101", "cr 4101". */
function idFinds(all: readonly Token[], text: string, { campusId }: NameForms): Found[] {
  if (campusId === '') return [];
  const found: Found[] = [];
  for (let first = 0; first < all.length; first += 1) {
    let joined = '';
    for (let next = first; next < all.length && joined.length < campusId.length; next += 1) {
      const token = all[next] as Token;
      if (next > first && !/^[\s._/-]?$/.test(text.slice((all[next - 1] as Token).end, token.start))) break;
      joined += token.text;
      if (joined !== campusId) continue;
      found.push({ start: (all[first] as Token).start, end: token.end, what: 'campus-id', certainty: 'sure' });
    }
  }
  return found;
}

/** Between two parts of one name. */
const JOINS = /^[\s,.\-‐‑_'’]{0,3}$/u;
/** Words before a name that say that it is one. */
const NAMING = new Set(
  'by author authors authored name names named student students signed submitted writer written am'.split(' '),
);

function nameFinds(all: readonly Token[], text: string, forms: NameForms, as: SearchOptions['as']): Found[] {
  const partOf = (token: Token | undefined) => forms.parts.find(({ text: part }) => part === token?.text);
  const found: Found[] = [];
  for (let index = 0; index < all.length; index += 1) {
    const token = all[index] as Token;
    const joined = runTogether(token, forms);
    if (joined !== null) {
      found.push({ start: token.start, end: token.end, what: 'name', certainty: joined });
      continue;
    }
    const run = nameRun(all, index, text, forms, partOf);
    if (run === null) continue;
    const last = all[run.last] as Token;
    const dot = last.text.length === 1 && text[last.end] === '.' ? 1 : 0;
    const place = { start: token.start, end: last.end + dot, what: 'name' as const };
    const certainty = run.parts > 1 ? weighFull(run, as) : weighAlone(all, run.only, text, partOf, as);
    if (certainty !== null) {
      const single = all[run.only] as Token;
      found.push({ ...place, ...(run.parts > 1 ? {} : { start: single.start, end: single.end }), certainty });
    }
    index = run.last;
  }
  return found;
}

interface Run {
  readonly last: number;
  /** Different parts of the name in it; an initial beside a family name counts as one. */
  readonly parts: number;
  /** Where the one part stands, when there is only one. */
  readonly only: number;
  /** Every part is a word in small letters: "green marsh" is no person. */
  readonly allSmall: boolean;
  readonly allCommon: boolean;
}

/** The longest row of name parts and matching initials from here on; null when none begins here. */
function nameRun(
  all: readonly Token[],
  first: number,
  text: string,
  forms: NameForms,
  partOf: (token: Token | undefined) => NamePart | undefined,
): Run | null {
  const isInitial = (token: Token) =>
    token.text.length === 1 && forms.initials.includes(token.text) && /\p{Lu}/u.test(token.original);
  const used = new Set<string>();
  let initials = 0;
  let family = false;
  let small = true;
  let common = true;
  let only = -1;
  let last = first - 1;
  for (let next = first; next < all.length; next += 1) {
    const token = all[next] as Token;
    if (next > first && !JOINS.test(text.slice((all[next - 1] as Token).end, token.start))) break;
    const part = partOf(token);
    if (part !== undefined && !used.has(part.text)) {
      used.add(part.text);
      family ||= part.family;
      small &&= token.original === token.original.toLowerCase();
      common &&= part.common;
      only = next;
    } else if (isInitial(token)) initials += 1;
    else if (used.size > 0 && forms.particles.includes(token.text)) continue;
    else break;
    last = next;
  }
  // Initials say something beside a family name only ("A. Mensah", not "A Adjoa").
  const parts = used.size + (initials > 0 && family ? 1 : 0);
  return used.size === 0 ? null : { last, parts, only, allSmall: small, allCommon: common };
}

function weighFull({ allSmall, allCommon }: Run, as: SearchOptions['as']): Found['certainty'] {
  return as === 'prose' && allSmall && allCommon ? 'perhaps' : 'sure';
}

/** What a single part of a name is worth where it stands. */
function weighAlone(
  all: readonly Token[],
  index: number,
  text: string,
  partOf: (token: Token | undefined) => NamePart | undefined,
  as: SearchOptions['as'],
): Found['certainty'] | null {
  const token = all[index] as Token;
  const part = partOf(token) as NamePart;
  const small = token.original === token.original.toLowerCase();
  if (as === 'label') return part.common ? 'perhaps' : 'sure';
  const named = isNamed(all, index, text);
  if (small) return part.common ? null : 'perhaps';
  if (named) return 'sure';
  if (part.common && beginsSentence(text, token.start)) return null;
  if (part.common || !part.family || part.text.length < 3) return 'perhaps';
  return isCited(text.slice(token.end, token.end + 40)) || besideAnother(all, index, text) ? 'perhaps' : 'sure';
}

/** "by Adjoa", "Author: Adjoa", "my name is Adjoa". */
function isNamed(all: readonly Token[], index: number, text: string): boolean {
  const before = all[index - 1];
  if (before === undefined || text.slice(before.end, (all[index] as Token).start).length > 3) return false;
  return NAMING.has(before.text) || (before.text === 'is' && NAMING.has(all[index - 2]?.text ?? ''));
}

/** At the beginning of a sentence every word has a capital. */
function beginsSentence(text: string, start: number): boolean {
  return /(^|[.!?:\n])["“”'’)\]]?\s*$/u.test(text.slice(Math.max(0, start - 6), start));
}

/** "Mensah (2015)", "Mensah 2015", "Mensah, 2015", "Mensah et al.", "Mensah & Obi", "Mensah and Obi (2015)". */
function isCited(after: string): boolean {
  return /^('s|’s)?,?\s*(\(?(1[89]|20)\d\d|et al|(&|and)\s+\p{Lu}[\p{L}-]+,?\s*\(?(1[89]|20)\d\d)/u.test(after);
}

/** "Kwame Mensah", "K. Mensah": somebody else of that name. Also "Mensah, K." as lists of sources have it. */
function besideAnother(all: readonly Token[], index: number, text: string): boolean {
  const token = all[index] as Token;
  const before = all[index - 1];
  const after = all[index + 1];
  const gapBefore = before === undefined ? '' : text.slice(before.end, token.start);
  const gapAfter = after === undefined ? '' : text.slice(token.end, after.start);
  const capital = (one: Token) => /^\p{Lu}/u.test(one.original);
  const forename =
    before !== undefined &&
    capital(before) &&
    /^\.?\s$/u.test(gapBefore) &&
    !beginsSentence(text, before.start) &&
    !NAMING.has(before.text);
  const listed = after !== undefined && after.original.length === 1 && capital(after) && /^,\s$/u.test(gapAfter);
  return forename || listed;
}

/** "adjoamensah", "mensahadjoa", "amensah", or the mailbox of the address as one word. */
function runTogether({ text }: Token, { parts, initials, mailbox }: NameForms): Found['certainty'] | null {
  if (text.length < 5) return null;
  for (const family of parts.filter((one) => one.family)) {
    for (const other of parts.filter((one) => !one.family)) {
      if (text === other.text + family.text || text === family.text + other.text) return 'sure';
    }
    const withInitial =
      initials !== '' && (text === `${initials[0]}${family.text}` || text === `${family.text}${initials[0]}`);
    if (withInitial && !family.common) return 'sure';
    if (withInitial) return 'perhaps';
  }
  const whole =
    mailbox.filter((one) => /\p{L}/u.test(one)).length === 1 ? mailbox.find((one) => /\p{L}/u.test(one)) : undefined;
  return whole === text && !parts.some((part) => part.text === text) && text.length >= 6 ? 'perhaps' : null;
}

/** Of finds that overlap the one before, the surer, then the longer stays. One pass over the finds in their order. */
function withoutOverlaps(finds: readonly IdentityFind[]): IdentityFind[] {
  const rank = ({ certainty, start, end }: IdentityFind) => (certainty === 'sure' ? 1_000_000 : 0) + (end - start);
  const kept: IdentityFind[] = [];
  for (const find of [...finds].sort((a, b) => a.start - b.start || rank(b) - rank(a) || a.person - b.person)) {
    const last = kept.at(-1);
    if (last === undefined || find.start >= last.end) kept.push(find);
    else if (rank(find) > rank(last)) kept[kept.length - 1] = find;
  }
  return kept;
}
