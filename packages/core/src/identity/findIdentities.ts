import { fold, tokens, type Token } from './fold.js';
import { initialFinds } from './initials.js';
import { nameForms, type Identity, type NameForms, type NamePart } from './nameForms.js';
import { weighAlone } from './surroundings.js';

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
 * A family name and a given name side by side are sure; so is an uncommon family name alone. A name beside another person's
 * initial or forename, in a citation, or as part of a place's or a thing's name is none. A name that is also a word of the
 * language, or a usual given name, counts only with a reason: words before it that name somebody ("by", "author"), a line of
 * its own at the beginning, another part of the name beside it. Measured on sentences of its own (`placesOfNames.test.ts`).
 *
 * @returns finds in the order of the text, none overlapping another; empty for an empty text or nobody to look for
 */
export function findIdentities(
  text: string,
  people: readonly Identity[],
  { as }: SearchOptions = { as: 'prose' },
): IdentityFind[] {
  return withoutOverlaps([...findsIn(text, people, as), ...dividedFinds(text, people, as)]);
}

/** A word that is divided at the end of a line. */
const DIVIDED = /(?<=\p{L})[-‐\u00AD][ \t]*\r?\n[ \t]*(?=\p{Ll})/gu;

/** Finds that run over the end of a line: the text is searched once more with its divided words joined. */
function dividedFinds(text: string, people: readonly Identity[], as: SearchOptions['as']): IdentityFind[] {
  const cuts = [...text.matchAll(DIVIDED)].map((match) => ({ at: match.index, length: match[0].length }));
  if (cuts.length === 0) return [];
  const starts: number[] = [];
  let joined = '';
  let from = 0;
  let gone = 0;
  for (const { at, length } of cuts) {
    joined += text.slice(from, at);
    starts.push(at - gone);
    gone += length;
    from = at + length;
  }
  joined += text.slice(from);
  const finds: IdentityFind[] = [];
  let before = 0;
  let shift = 0;
  for (const find of findsIn(joined, people, as)) {
    while (before < starts.length && (starts[before] as number) <= find.start) {
      shift += (cuts[before] as { length: number }).length;
      before += 1;
    }
    let inside = 0;
    for (let next = before; next < starts.length && (starts[next] as number) < find.end; next += 1)
      inside += (cuts[next] as { length: number }).length;
    if (inside === 0) continue;
    const [start, end] = [find.start + shift, find.end + shift + inside];
    finds.push({ ...find, start, end, exact: text.slice(start, end) });
  }
  return finds;
}

function findsIn(text: string, people: readonly Identity[], as: SearchOptions['as']): IdentityFind[] {
  const all = tokens(text);
  const folded = fold(text);
  const finds = people.flatMap((identity, person) => {
    const forms = nameForms(identity);
    return [
      ...addressFinds(folded, forms),
      ...idFinds(all, text, forms),
      ...nameFinds(all, text, forms, as),
      ...unspacedFinds(folded, forms),
      ...(as === 'prose' ? initialFinds(all, text, forms) : []),
    ].map((find) => ({ ...find, person, exact: text.slice(find.start, find.end) }));
  });
  return finds.sort((a, b) => a.start - b.start);
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

/** Between the letters and digits of an id: one sign, hyphens and dashes of every kind among them. */
const ID_JOINS = /^[\s._/\u00AD\u2010-\u2015\u2212-]?$/;

/** Letters and digits of the id in a row, whatever single sign stands between them: "cr-4101", "CR4101", "cr 4101". */
function idFinds(all: readonly Token[], text: string, { campusId }: NameForms): Found[] {
  if (campusId === '') return [];
  const found: Found[] = [];
  for (let first = 0; first < all.length; first += 1) {
    let joined = '';
    for (let next = first; next < all.length && joined.length < campusId.length; next += 1) {
      const token = all[next] as Token;
      if (next > first && !ID_JOINS.test(text.slice((all[next - 1] as Token).end, token.start))) break;
      joined += token.text;
      if (joined !== campusId) continue;
      found.push({ start: (all[first] as Token).start, end: token.end, what: 'campus-id', certainty: 'sure' });
    }
  }
  return found;
}

/** Between two parts of one name; a full stop only behind an initial. */
const JOINS = /^[\s,.\-‐‑_'’]{0,3}$/u;

function nameFinds(all: readonly Token[], text: string, forms: NameForms, as: SearchOptions['as']): Found[] {
  // The first of two alike counts, as in the order of the name.
  const byText = new Map([...forms.parts].reverse().map((part) => [part.text, part]));
  const partOf = (token: Token | undefined) => (token === undefined ? undefined : byText.get(token.text));
  const found: Found[] = [];
  for (let index = 0; index < all.length; index += 1) {
    const token = all[index] as Token;
    const joined = runTogether(token, forms, text[token.start - 1] ?? '', partOf(token)) ?? pluralOf(token, forms);
    if (joined !== null) {
      found.push({ start: token.start, end: token.end, what: 'name', certainty: joined });
      continue;
    }
    const run = nameRun(all, index, text, forms, partOf, as);
    if (run.parts === 0) {
      // A row of initials alone: none of them begins a name, so none is looked at again.
      index = Math.max(index, run.last);
      continue;
    }
    const last = all[run.last] as Token;
    const dot = last.text.length === 1 && text[last.end] === '.' ? 1 : 0;
    const place = { start: token.start, end: last.end + dot, what: 'name' as const };
    const certainty =
      run.parts > 1
        ? weighFull(run, as)
        : weighAlone(all, run.only, text, partOf(all[run.only]) as NamePart, forms.particles, as);
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
  /** Different parts of the name in it, 0 for none; an initial beside a part of the other kind counts as one. */
  readonly parts: number;
  /** Where the one part stands, when there is only one. */
  readonly only: number;
  /** A part in small letters: "green marsh" is no person. */
  readonly someSmall: boolean;
  readonly allCommon: boolean;
  /** A given name that many have, and an initial: "Rose M.". */
  readonly usualWithInitial: boolean;
}

/** The longest row of name parts and matching initials from here on. */
function nameRun(
  all: readonly Token[],
  first: number,
  text: string,
  forms: NameForms,
  partOf: (token: Token | undefined) => NamePart | undefined,
  as: SearchOptions['as'],
): Run {
  const isOneOf = (initials: string, token: Token) =>
    token.text.length === 1 && initials.includes(token.text) && /\p{Lu}/u.test(token.original);
  const used = new Set<string>();
  let [given, families] = [0, 0];
  let family = false;
  let small = false;
  let common = true;
  let usual = true;
  let only = -1;
  let last = first - 1;
  for (let next = first; next < all.length; next += 1) {
    const token = all[next] as Token;
    const before = all[next - 1] as Token;
    const gap = next > first ? text.slice(before.end, token.start) : '';
    if (!JOINS.test(gap) || (as === 'prose' && gap.includes('.') && before.text.length > 1)) break;
    const part = partOf(token);
    if (part !== undefined && !used.has(part.text)) {
      used.add(part.text);
      family ||= part.family;
      small ||= token.original === token.original.toLowerCase();
      common &&= part.common;
      usual &&= part.common || part.usual;
      only = next;
    } else if (isOneOf(forms.initials, token)) given += 1;
    else if (isOneOf(forms.familyInitials, token) && text[token.end] === '.') families += 1;
    else if (used.size > 0 && forms.particles.includes(token.text)) continue;
    else break;
    last = next;
  }
  // Initials say something beside the other part of the name only ("A. Mensah", "Rose M.", not "A Adjoa").
  const initial = (given > 0 && family) || (families > 0 && !family);
  const parts = used.size === 0 ? 0 : used.size + (initial ? 1 : 0);
  const usualWithInitial = initial && used.size === 1 && !family && usual;
  return { last, parts, only, someSmall: small, allCommon: common, usualWithInitial };
}

function weighFull(
  { someSmall, allCommon, usualWithInitial }: Run,
  as: SearchOptions['as'],
): Found['certainty'] | null {
  if (as === 'prose' && someSmall && allCommon) return null;
  return as === 'prose' && usualWithInitial ? 'perhaps' : 'sure';
}

/** "the Mensahs": a family of that name. */
function pluralOf(token: Token, { plurals }: NameForms): Found['certainty'] | null {
  return plurals.has(token.text) && /^\p{Lu}/u.test(token.original) ? 'perhaps' : null;
}

/** Before a word that is somebody's address or folder. */
const HANDLE = /[@~]/;

/** "adjoamensah", "mensahadjoa", "amensah", "adjoam", or the mailbox of the address as one word. */
function runTogether({ text }: Token, forms: NameForms, before: string, alone?: NamePart): Found['certainty'] | null {
  const isHandle = HANDLE.test(before);
  if (isHandle && alone !== undefined && !alone.common) return 'sure';
  if (text.length < 5) return null;
  const kind = forms.together.get(text);
  if (kind === 'whole') return 'sure';
  if (kind === 'common-with-initial') return isHandle ? 'sure' : 'perhaps';
  if (kind === 'with-initial') return 'sure';
  if (kind === 'given-with-initial' && alone === undefined) return isHandle ? 'sure' : 'perhaps';
  return forms.mailboxWord === text && alone === undefined ? 'perhaps' : null;
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
