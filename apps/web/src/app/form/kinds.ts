import type { Check, ItemKind } from '@salt-circle/core';

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
  { kind: 'criterion', word: 'Criterion', remark: 'named levels', key: 'C' },
  { kind: 'range', word: 'Range', remark: 'points within bands', key: 'R' },
  { kind: 'checklist', word: 'Checklist', remark: 'there or not', key: 'L' },
  { kind: 'prompt', word: 'Prompt', remark: 'free text', key: 'P' },
  { kind: 'pair', word: 'Pair', remark: 'what works, next step', key: 'W' },
  { kind: 'number', word: 'Number', remark: 'a count or measure', key: 'N' },
  { kind: 'choice', word: 'Choice', remark: 'one or several options', key: 'O' },
];

export function kindWord(kind: ItemKind): string {
  return KINDS.find((one) => one.kind === kind)?.word ?? '';
}

/** What the two fields of a pair are called where the form does not say otherwise. */
export const PAIR_WORDS = { works: 'What works', next: 'Next step' } as const;

/** What an entry of a checklist is answered with. */
export const CHECK_WORDS: Readonly<Record<Check, string>> = { yes: 'yes', no: 'no', 'cannot-tell': 'cannot tell' };
