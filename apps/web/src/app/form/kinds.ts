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
export const kindsOfItems = (): readonly KindWords[] => [
  {
    kind: 'criterion',
    word: say('criterion'),
    remark: say('namedLevels'),
    key: 'C',
  },
  {
    kind: 'range',
    word: say('range'),
    remark: say('pointsWithinBands'),
    key: 'R',
  },
  {
    kind: 'checklist',
    word: say('checklist'),
    remark: say('thereOrNot'),
    key: 'L',
  },
  {
    kind: 'prompt',
    word: say('prompt'),
    remark: say('freeText'),
    key: 'P',
  },
  {
    kind: 'pair',
    word: say('pair'),
    remark: say('whatWorksNextStep'),
    key: 'W',
  },
  {
    kind: 'number',
    word: say('number'),
    remark: say('countOrMeasure'),
    key: 'N',
  },
  {
    kind: 'choice',
    word: say('choice'),
    remark: say('oneOrSeveralOptions'),
    key: 'O',
  },
];

export function kindWord(kind: ItemKind): string {
  return kindsOfItems().find((one) => one.kind === kind)?.word ?? '';
}

/** What the two fields of a pair are called where the form does not say otherwise. */
export const PAIR_WORDS = wordsBy(say, { works: 'whatWorks', next: 'nextStep' });

/** What an entry of a checklist is answered with. */
export const CHECK_WORDS: Readonly<Record<Check, string>> = wordsBy(say, {
  yes: 'yes',
  no: 'no',
  'cannot-tell': 'cannotTell',
});
