import { fold } from './fold.js';
import type { Identity } from './nameForms.js';

const WORD = /[\p{L}\p{N}]+/gu;
/** Code units of a part of a name that is looked for by itself; one letter is everywhere. */
const SHORTEST = 2;

/**
 * Of many people, those of whom a text has at least one word: their name’s, their address’s or their campus id. Looking for six hundred
 * people in every text of a course would take hours; a text names a few of them. Somebody who is there by initials alone, or whose name
 * is divided at the end of a line, is not among them.
 */
export class PeopleByWord {
  readonly #byWord = new Map<string, Set<Identity>>();

  constructor(people: readonly Identity[]) {
    for (const person of people) {
      const { name, email, campusId } = person;
      for (const word of wordsOf(`${name} ${email.split('@')[0] ?? ''} ${campusId ?? ''}`)) {
        const known = this.#byWord.get(word);
        if (known === undefined) this.#byWord.set(word, new Set([person]));
        else known.add(person);
      }
    }
  }

  /** In the order of the list that was given for the same words. */
  in(text: string): Identity[] {
    const found = new Set<Identity>();
    for (const word of wordsOf(text)) for (const person of this.#byWord.get(word) ?? []) found.add(person);
    return [...found];
  }
}

function wordsOf(text: string): Set<string> {
  return new Set((fold(text).text.match(WORD) ?? []).filter((word) => word.length >= SHORTEST));
}
