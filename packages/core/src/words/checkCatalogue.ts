import { IntlMessageFormat } from 'intl-messageformat';
import { TYPE, type MessageFormatElement } from '@formatjs/icu-messageformat-parser';
import type { Catalogue } from './sentence.js';

/** What is filled into a sentence: slots by name, those that are counted, and tags. */
export interface Filled {
  readonly slots: ReadonlySet<string>;
  readonly counted: ReadonlySet<string>;
  readonly tags: ReadonlySet<string>;
}

/**
 * What a sentence is filled with.
 * @throws SyntaxError when it is not in ICU MessageFormat
 */
export function filledIn(sentence: string, language: string): Filled {
  const found = { slots: new Set<string>(), counted: new Set<string>(), tags: new Set<string>() };
  const look = (elements: readonly MessageFormatElement[]) => {
    for (const element of elements) {
      switch (element.type) {
        case TYPE.literal:
        case TYPE.pound:
          break;
        case TYPE.tag:
          found.tags.add(element.value);
          look(element.children);
          break;
        case TYPE.plural:
        case TYPE.select:
          found.slots.add(element.value);
          if (element.type === TYPE.plural) found.counted.add(element.value);
          for (const { value } of Object.values(element.options)) look(value);
          break;
        default:
          found.slots.add(element.value);
      }
    }
  };
  look(new IntlMessageFormat(sentence, language).getAst());
  return found;
}

/** The names that `Slots` reads off a sentence, read in the same way. */
function readByType(sentence: string): Set<string> {
  const names = [...sentence.matchAll(/\{(?=([^}]*))/g)].flatMap(([, text = '']) => {
    const name = /^(.*?), (?:plural|selectordinal|select), /s.exec(text)?.[1] ?? text;
    return name === '' || /[ #{]/.test(name) ? [] : [name];
  });
  return new Set(names);
}

/**
 * What is wrong with sentences, a line each, with its key. Each is whole: nothing that is hung on to another one, with a sign or a blank at
 * its edge. And each is such that its slots can be read off by the compiler.
 */
export function checkCatalogue(sentences: Catalogue, language: string): string[] {
  return Object.entries(sentences).flatMap(([key, sentence]) => {
    try {
      const { slots } = filledIn(sentence, language);
      const read = readByType(sentence);
      return [
        ...(/^[\s,;.:)]|[^\S\n]$/.test(sentence) ? [`${key}: begins or ends like a part of another sentence`] : []),
        ...(same(slots, read) ? [] : [`${key}: a branch is a word alone; put all of the sentence into it`]),
      ];
    } catch (error) {
      if (error instanceof SyntaxError) return [`${key}: ${error.message}`];
      throw error;
    }
  });
}

/**
 * What is wrong with the sentences of another language, a line each.
 * @param english the same sentences as they are here
 */
export function checkTranslation(english: Catalogue, other: Catalogue, language: string): string[] {
  return Object.entries(other).flatMap(([key, sentence]) => {
    const original = english[key];
    if (original === undefined) return [`${key}: there is no such sentence`];
    try {
      const [wanted, given] = [filledIn(original, 'en-GB'), filledIn(sentence, language)];
      const odd = (what: 'slots' | 'tags') => [...given[what]].filter((name) => !wanted[what].has(name));
      return [...odd('slots'), ...odd('tags')].map((name) => `${key}: nothing is filled into “${name}”`);
    } catch (error) {
      if (error instanceof SyntaxError) return [`${key}: ${error.message}`];
      throw error;
    }
  });
}

function same(one: ReadonlySet<string>, other: ReadonlySet<string>): boolean {
  return one.size === other.size && [...one].every((name) => other.has(name));
}
