import { wordsBy } from '@salt-circle/core';
import type { Check, ItemKind } from '@salt-circle/core';
import { say } from '../../words/app.js';

export interface KindWords {
  readonly kind: ItemKind;
  readonly word: string;
  /** What it is for, in two or three words. */
  readonly remark: string;
  /** The letter that adds one in the builder. */
  readonly key: string;
}

/** All kinds of items, in the order in which they are offered. */
export const KINDS: readonly KindWords[] = [
  {
    kind: 'criterion',
    get word() {
      return say('criterion');
    },
    get remark() {
      return say('namedLevels');
    },
    key: 'C',
  },
  {
    kind: 'range',
    get word() {
      return say('range');
    },
    get remark() {
      return say('pointsWithinBands');
    },
    key: 'R',
  },
  {
    kind: 'checklist',
    get word() {
      return say('checklist');
    },
    get remark() {
      return say('thereOrNot');
    },
    key: 'L',
  },
  {
    kind: 'prompt',
    get word() {
      return say('prompt');
    },
    get remark() {
      return say('freeText');
    },
    key: 'P',
  },
  {
    kind: 'pair',
    get word() {
      return say('pair');
    },
    get remark() {
      return say('whatWorksNextStep');
    },
    key: 'W',
  },
  {
    kind: 'number',
    get word() {
      return say('number');
    },
    get remark() {
      return say('countOrMeasure');
    },
    key: 'N',
  },
  {
    kind: 'choice',
    get word() {
      return say('choice');
    },
    get remark() {
      return say('oneOrSeveralOptions');
    },
    key: 'O',
  },
];

export function kindWord(kind: ItemKind): string {
  return KINDS.find((one) => one.kind === kind)?.word ?? '';
}

/** What the two fields of a pair are called where the form does not say otherwise. */
export const PAIR_WORDS = wordsBy(say, { works: 'whatWorks', next: 'nextStep' });

/** What an entry of a checklist is answered with. */
export const CHECK_WORDS: Readonly<Record<Check, string>> = wordsBy(say, {
  yes: 'yes',
  no: 'no',
  'cannot-tell': 'cannotTell',
});
