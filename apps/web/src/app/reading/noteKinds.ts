import type { NoteKind } from '@salt-circle/contracts';

/** Keep, Change, Ask, Fix: word, key, and what it is for. */
export const KINDS: ReadonlyArray<{
  readonly kind: NoteKind;
  readonly word: string;
  readonly key: string;
  readonly hint: string;
}> = [
  { kind: 'keep', word: 'Keep', key: '1', hint: 'works, leave it' },
  { kind: 'change', word: 'Change', key: '2', hint: 'improve this' },
  { kind: 'ask', word: 'Ask', key: '3', hint: 'a question' },
  { kind: 'fix', word: 'Fix', key: '4', hint: 'spelling, wording, order, source' },
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
