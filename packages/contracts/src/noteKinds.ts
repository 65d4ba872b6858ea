export const NOTE_KINDS = ['keep', 'change', 'ask', 'fix'] as const;
export type NoteKind = (typeof NOTE_KINDS)[number];
