import { COMMON_WORDS, PARTICLES, USUAL_GIVEN } from './commonWords.js';
import { tokens, type Token } from './fold.js';

/** A person whose traces are looked for. */
export interface Identity {
  /** As on the roster: given names first, or "Family, Given". */
  readonly name: string;
  readonly email: string;
  readonly campusId: string | null;
}

export interface NamePart {
  readonly text: string;
  /** The last part, by which people are cited. */
  readonly family: boolean;
  readonly common: boolean;
  /** A given name that is on every roster. */
  readonly usual: boolean;
}

export type Together = 'whole' | 'with-initial' | 'common-with-initial' | 'given-with-initial';

/** What is searched for, made ready once. All in plain lower case. */
export interface NameForms {
  readonly parts: readonly NamePart[];
  /** Small words that may stand between the parts. */
  readonly particles: readonly string[];
  /** Initials of the given names, in order. */
  readonly initials: string;
  /** Initials of the family names, in order. */
  readonly familyInitials: string;
  /** Parts of the name written as one word ("adjoamensah", "amensah", "adjoam"), and which they are. */
  readonly together: ReadonlyMap<string, Together>;
  /** Families of the name ("mensahs"). */
  readonly plurals: ReadonlySet<string>;
  /** The one word of letters before the @ of the address, six letters at least; null where there is none or more than one. */
  readonly mailboxWord: string | null;
  readonly address: string;
  /** The whole name in a row, as scripts without spaces write it; empty for others. */
  readonly unspaced: readonly string[];
  /** Letters and digits of the campus id, run together; empty when there is none or it is too short to tell anything. */
  readonly campusId: string;
}

/** Below this many letters and digits an id would be found everywhere. */
const SHORTEST_ID = 4;

/** Spellings without umlauts that people use for themselves: "Müller" is looked for as "mueller" too. */
export function spelledOut(part: string): string {
  return part.toLowerCase().replace(/ä/g, 'ae').replace(/ö|ø/g, 'oe').replace(/ü/g, 'ue').replace(/å/g, 'aa');
}

/** Scripts that put no spaces between words, and Hangul, whose particles follow a name without one. */
const UNSPACED = /^[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Hangul}\p{Script=Thai}]+$/u;

/** In both orders; two letters at least, or a common sign would be taken for a name. */
function unspacedNames(words: readonly Token[]): string[] {
  const texts = words.map(({ text }) => text).filter((text) => UNSPACED.test(text));
  const names = [texts.join(''), [...texts].reverse().join('')].filter((name) => [...name.normalize('NFC')].length > 1);
  return [...new Set(names)];
}

/** What stands before the comma, or else the last word; of a double name both halves. None for a single name. */
function familyWords(name: string, telling: readonly Token[]): ReadonlySet<string> {
  if (telling.length < 2) return new Set();
  const comma = name.indexOf(',');
  const family = comma < 0 ? (name.trim().split(/\s+/).at(-1) ?? '') : name.slice(0, comma);
  return new Set(tokens(family.replace(/(?<=\p{L})['’ʼ](?=\p{L})/gu, '')).map(({ text }) => text));
}

/** Made once, so that a word of the text is looked up and not compared with every pair of parts. */
function writtenTogether(parts: readonly NamePart[], initials: string, familyInitials: string): Map<string, Together> {
  const together = new Map<string, Together>();
  const add = (text: string, kind: Together) => void (together.has(text) || together.set(text, kind));
  const [families, others] = [parts.filter(({ family }) => family), parts.filter(({ family }) => !family)];
  for (const { text, common } of families) {
    for (const other of others) {
      add(other.text + text, 'whole');
      add(text + other.text, 'whole');
    }
    if (initials === '') continue;
    add(`${initials[0]}${text}`, common ? 'common-with-initial' : 'with-initial');
    add(`${text}${initials[0]}`, common ? 'common-with-initial' : 'with-initial');
  }
  if (families.length > 0) for (const { text } of others) add(text + (familyInitials[0] ?? ''), 'given-with-initial');
  return together;
}

export function nameForms({ name, email, campusId }: Identity): NameForms {
  const comma = name.indexOf(',');
  const straight = comma < 0 ? name : `${name.slice(comma + 1)} ${name.slice(0, comma)}`;
  // A hyphen joins two names of which each may stand alone; an apostrophe joins one ("O'Brien").
  const words = tokens(straight.replace(/(?<=\p{L})['’ʼ](?=\p{L})/gu, '')).filter(({ text }) => /\p{L}/u.test(text));
  // At the beginning it is a name of its own: Ben, Mac, Al.
  const joins = ({ text }: Token, index: number) => index > 0 && PARTICLES.has(text);
  const telling = words.filter((one, index) => one.text.length > 1 && !joins(one, index));
  const families = familyWords(name, telling);
  const parts = telling.map((one): NamePart => ({
    text: one.text,
    family: families.has(one.text),
    common: COMMON_WORDS.has(one.text),
    usual: USUAL_GIVEN.has(one.text),
  }));
  const spelled = telling
    .map((one): NamePart => ({
      text: spelledOut(one.original),
      family: families.has(one.text),
      common: false,
      usual: false,
    }))
    .filter(({ text }) => /^[\x20-\x7f]+$/.test(text) && !parts.some((one) => one.text === text));
  const given = words.filter((one, index) => !families.has(one.text) && !joins(one, index));
  const address = email.trim().toLowerCase();
  const id = tokens(campusId ?? '')
    .map(({ text }) => text)
    .join('');
  const all = [...parts, ...spelled];
  const initials = given.map(({ text }) => text[0] ?? '').join('');
  const familyInitials = telling
    .filter((one) => families.has(one.text))
    .map(({ text }) => text[0] ?? '')
    .join('');
  const mailbox = tokens(address.split('@')[0] ?? '').filter(({ text }) => /\p{L}/u.test(text));
  const mailboxWord = mailbox.length === 1 ? (mailbox[0] as Token).text : '';
  return {
    parts: all,
    particles: words.filter(joins).map(({ text }) => text),
    familyInitials,
    initials,
    together: writtenTogether(all, initials, familyInitials),
    plurals: new Set(
      all.filter(({ text, family, common }) => family && !common && text.length > 3).map(({ text }) => `${text}s`),
    ),
    mailboxWord: mailboxWord.length >= 6 ? mailboxWord : null,
    address,
    unspaced: unspacedNames(words),
    campusId: id.length >= SHORTEST_ID ? id : '',
  };
}
