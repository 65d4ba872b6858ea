import type { NoteKind } from '@salt-circle/contracts';
import { say } from '../../words/app.js';

/** Keep, Change, Ask, Fix: word, key, and what it is for. */
export const KINDS: ReadonlyArray<{
  readonly kind: NoteKind;
  readonly word: string;
  readonly key: string;
  readonly hint: string;
}> = [
  {
    kind: 'keep',
    get word() {
      return say('keep');
    },
    key: '1',
    get hint() {
      return say('worksLeaveIt');
    },
  },
  {
    kind: 'change',
    get word() {
      return say('change');
    },
    key: '2',
    get hint() {
      return say('improveThis');
    },
  },
  {
    kind: 'ask',
    get word() {
      return say('ask');
    },
    key: '3',
    get hint() {
      return say('question');
    },
  },
  {
    kind: 'fix',
    get word() {
      return say('fix');
    },
    key: '4',
    get hint() {
      return say('spellingWordingOrderSource');
    },
  },
];

export function kindWord(kind: NoteKind): string {
  return KINDS.find((one) => one.kind === kind)?.word ?? kind;
}

export const KIND_TEXT: Readonly<Record<NoteKind, string>> = {
  keep: 'text-kelp',
  change: 'text-copper',
  ask: 'text-dusk',
  fix: 'text-slate',
};

/** The left edge of a note. */
export const KIND_EDGE: Readonly<Record<NoteKind, string>> = {
  keep: 'border-l-kelp',
  change: 'border-l-copper',
  ask: 'border-l-dusk',
  fix: 'border-l-slate',
};

export const KIND_FILL: Readonly<Record<NoteKind, string>> = {
  keep: 'bg-kelp',
  change: 'bg-copper',
  ask: 'bg-dusk',
  fix: 'bg-slate',
};

/** The frame of a region, or the line under words. */
export const KIND_BORDER: Readonly<Record<NoteKind, string>> = {
  keep: 'border-kelp',
  change: 'border-copper border-dashed',
  ask: 'border-dusk border-dotted',
  fix: 'border-slate border-double',
};
