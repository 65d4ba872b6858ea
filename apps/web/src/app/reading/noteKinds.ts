import type { NoteKind } from '@salt-circle/contracts';
import { say } from '../../words/app.js';

/** Keep, Change, Ask, Fix: word, key, and what it is for. */
export const kindsOfNotes = (): ReadonlyArray<{
  readonly kind: NoteKind;
  readonly word: string;
  readonly key: string;
  readonly hint: string;
}> => [
  {
    kind: 'keep',
    word: say('keep'),
    key: '1',
    hint: say('worksLeaveIt'),
  },
  {
    kind: 'change',
    word: say('change'),
    key: '2',
    hint: say('improveThis'),
  },
  {
    kind: 'ask',
    word: say('ask'),
    key: '3',
    hint: say('question'),
  },
  {
    kind: 'fix',
    word: say('fix'),
    key: '4',
    hint: say('spellingWordingOrderSource'),
  },
];

export function kindWord(kind: NoteKind): string {
  return kindsOfNotes().find((one) => one.kind === kind)?.word ?? kind;
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
