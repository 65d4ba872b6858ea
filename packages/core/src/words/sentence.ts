import { IntlMessageFormat } from 'intl-messageformat';

/**
 * Sentences for people by a key, each whole, in ICU MessageFormat: `{name}` is a slot, `{count, plural, one {1 note} other {# notes}}`
 * goes by the plural rules of Unicode CLDR, `<b>…</b>` is words that something is put around.
 */
export type Catalogue = Readonly<Record<string, string>>;

// What stands between a brace and the next one that closes. Slots and the branches of plurals both begin with a brace: a branch that is
// not empty always has a blank or a number sign, which the tests of the catalogues keep.
type Inside<Rest> = Rest extends `${infer Text}}${string}` ? Text : never;
type Named<Text> = Text extends `${infer Name}, ${'plural' | 'selectordinal' | 'select'}, ${string}`
  ? Bare<Name>
  : Bare<Text>;
type Bare<Text> = Text extends '' | `${string}${' ' | '#' | '{'}${string}` ? never : Text;
type NamesIn<Sentence> = Sentence extends `${string}{${infer Rest}` ? Named<Inside<Rest>> | NamesIn<Rest> : never;
type CountsIn<Sentence> = Sentence extends `${infer Before}, ${'plural' | 'selectordinal'}, ${infer Rest}`
  ? LastName<Before> | CountsIn<Rest>
  : never;
type LastName<Before> = Before extends `${string}{${infer Rest}` ? LastName<Rest> : Before;
type TagsIn<Sentence> = Sentence extends `${string}</${infer Name}>${infer Rest}` ? Name | TagsIn<Rest> : never;

/** What a sentence wants to be filled with, read off its words. `Value` is what a slot may hold, `Wrapped` what a tag may make. */
export type Slots<Sentence extends string, Value = string | number, Wrapped = string> = {
  readonly [Name in NamesIn<Sentence>]: Name extends CountsIn<Sentence> ? number : Value;
} & { readonly [Name in TagsIn<Sentence>]: (words: Wrapped) => Wrapped };

/** Nothing where a sentence has no slots, else one object with all of them. */
export type Filling<Of> = keyof Of extends never ? [] : [slots: Of];

/** A sentence that was read once; there are as many as catalogues have, so none is forgotten. */
const READ = new Map<string, IntlMessageFormat>();
const PLAIN = /^[^{}<']*$/;

/**
 * A sentence with its slots filled, in parts: texts, and what else was put into slots or made by tags, in the order of the sentence.
 *
 * @param sentence in ICU MessageFormat
 * @param language whose plural rules and numbers it follows, as BCP 47 has it
 * @param slots by name; a function is put around the words of its tag
 * @throws SyntaxError when the sentence cannot be read; FormatError of the library when a slot is not given
 */
export function partsOf<T>(
  sentence: string,
  language: string,
  slots?: Readonly<Record<string, unknown>>,
): Array<string | T> {
  if (PLAIN.test(sentence)) return [sentence];
  const key = `${language} ${sentence}`;
  let read = READ.get(key);
  if (read === undefined) {
    read = new IntlMessageFormat(sentence, language);
    READ.set(key, read);
  }
  const said = read.format<T>(slots as Parameters<typeof read.format<T>>[0]);
  return Array.isArray(said) ? said : [said];
}
