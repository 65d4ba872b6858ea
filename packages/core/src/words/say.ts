import { partsOf, type Catalogue, type Filling, type Slots } from './sentence.js';

/** What is spoken: a language, and its sentences by area and key. English stands in the areas themselves. */
export interface Spoken {
  /** As BCP 47 has it: numbers, lists, dates and plurals follow it. */
  readonly language: string;
  readonly sentences: Readonly<Record<string, Catalogue | undefined>>;
}

export const ENGLISH: Spoken = { language: 'en-GB', sentences: {} };

let source: () => Spoken = () => ENGLISH;

const AREAS = new Map<string, Catalogue>();

/** The English sentences of all areas that are loaded: what another language has to say. */
export function catalogues(): ReadonlyMap<string, Catalogue> {
  return AREAS;
}

/**
 * Sets where it is asked what is spoken, each time that something is said: one language for a page, or on a server that of whoever asks.
 * Nothing that is computed goes by it; words alone do.
 */
export function speakBy(asked: () => Spoken): void {
  source = asked;
}

/** The language that is spoken, for `Intl`. */
export function language(): string {
  return source().language;
}

/** Says a sentence of an area as text. */
export type Say<C extends Catalogue> = <Key extends keyof C & string>(
  key: Key,
  ...slots: Filling<Slots<C[Key]>>
) => string;

/** Says a sentence of an area in parts: where slots may hold what is no text. */
export type SayParts = <T>(key: string, slots?: Readonly<Record<string, unknown>>) => Array<string | T>;

/**
 * What says the sentences of an area in parts. One that the language spoken does not have is said in English.
 *
 * @param area a name of its own: other languages have their sentences under it, by the same keys
 * @param english the sentences
 */
export function partsFor(area: string, english: Catalogue): SayParts {
  AREAS.set(area, english);
  return <T>(key: string, slots?: Readonly<Record<string, unknown>>) => {
    const spoken = source();
    const own = spoken.sentences[area]?.[key];
    const sentence = own ?? english[key];
    if (sentence === undefined) throw new Error(`There is no sentence “${key}” in “${area}”.`);
    return partsOf<T>(sentence, own === undefined ? ENGLISH.language : spoken.language, slots);
  };
}

/** The sentences of an area, and with them what says them, as text. Parameters as for {@link partsFor}. */
export function sentences<const C extends Catalogue>(area: string, english: C): Say<C> {
  const parts = partsFor(area, english);
  return (key, ...slots) => parts<string>(key, slots[0]).join('');
}
