import type { TextAnchor } from '../anchoring/selectors.js';
import { guessKind } from './guessKind.js';
import { editLine, noteLines, passageOf, type AnnotatedNote } from './annotatedDraft.js';

/** A note as it would be added. */
export interface ImportedNote extends Pick<AnnotatedNote, 'kind' | 'body' | 'partId' | 'selector' | 'edit'> {
  /** `perhaps`: words that read the same were found, and little of what stood around them. */
  readonly certainty: 'sure' | 'perhaps';
}

/**
 * Why something is not brought in: its words are not in the draft any more (`gone`), it stands outside of the draft's own text (`outside`),
 * its change cannot be made there (`edit`), it is longer than a note can be (`long`), or it is nothing that a note can hold (`other`).
 */
export type UnplacedReason = 'gone' | 'outside' | 'edit' | 'long' | 'other';

export interface Unplaced {
  readonly why: UnplacedReason;
  readonly passage: string;
  /** What was said or was to be put in. */
  readonly words: string;
}

export interface ImportLimits {
  /** UTF-16 code units of one note’s words. */
  readonly body: number;
  /** Of the words that a note stands on; longer passages are cut at their end. */
  readonly passage: number;
}

/** A mark that has been found again, with what was said there. */
export interface PlacedMark extends Pick<ImportedNote, 'partId' | 'selector' | 'edit' | 'certainty'> {
  /** A comment, with what was answered to it; empty where nothing was said. */
  readonly words: readonly string[];
  /** Marked by hand, so that it is a note also where nothing was said. */
  readonly drawn?: boolean;
}

export interface Settled {
  readonly notes: readonly ImportedNote[];
  readonly unplaced: readonly Unplaced[];
  readonly known: ReadonlySet<KnownNote>;
}

/** Marks as notes, without those that are notes of the review already. */
export function planImport(marks: readonly PlacedMark[], already: readonly KnownNote[], limits: ImportLimits): Settled {
  const known = new Set<KnownNote>();
  const notes: ImportedNote[] = [];
  const unplaced: Unplaced[] = [];
  for (const { words: said, drawn = false, ...placed } of marks) {
    const [root = '', ...answers] = said;
    const there = already.find((note) => isNear(note, placed) && says(note, root));
    if (there !== undefined) known.add(there);
    // What was answered to a note that is there already is a note of its own.
    const fresh = there === undefined ? [withoutEdit(root, placed), ...answers] : answers;
    const words = fresh.filter((line) => line.trim() !== '').join('\n\n');
    const edit = there !== undefined && sameEdit(there, placed) ? null : placed.edit;
    if (words === '' && edit === null && (there !== undefined || !drawn)) continue;
    const { kind, body } = guessKind(words, edit !== null);
    const note = { ...placed, kind, body, edit };
    const again = already.find(
      (one) =>
        (isNear(one, note) && sameEdit(one, note) && one.body.trim() === body) || (body === '' && putsIn(one, note)),
    );
    if (again !== undefined) known.add(again);
    else if (body.length <= limits.body) notes.push(note);
    else unplaced.push({ why: 'long', passage: passageOf(note.selector), words: body });
  }
  return { notes, unplaced, known };
}

/** A note of the review, as it is now. */
export type KnownNote = Pick<AnnotatedNote, 'kind' | 'body' | 'partId' | 'selector' | 'edit'>;

/** So much of two marks on a page must be the same, 0 to 1: of what was drawn, the letters below are only measured. */
const SHARED = 0.5;
/** UTF-16 code units by which a place between letters may be off on a page. */
const MEASURED = 3;
/** Sides of regions may differ by so much, in shares of a page. */
const BESIDE = 0.02;

/** The same place, as far as the file that it comes from can say. */
function isNear(one: Pick<KnownNote, 'partId' | 'selector'>, other: Pick<KnownNote, 'partId' | 'selector'>): boolean {
  const [a, b] = [one.selector, other.selector];
  if (one.partId !== other.partId && one.partId !== null) return false;
  switch (b.type) {
    case 'text':
      return a.type === 'text' && wordsAt(a) === wordsAt(b);
    case 'passage': {
      if (a.type !== 'passage' || a.page !== b.page) return false;
      const shared = Math.min(a.position.end, b.position.end) - Math.max(a.position.start, b.position.start);
      const shorter = Math.min(a.position.end - a.position.start, b.position.end - b.position.start);
      return shared >= SHARED * shorter;
    }
    case 'region': {
      // What is on a whole page, or on no page at all, stands somewhere at the top.
      if (a.type === 'page') return a.page === b.page;
      if (a.type === 'whole') return b.page === 1;
      if (a.type !== 'region' || a.page !== b.page) return false;
      const point = b.width === 0;
      const sides = point ? (['x', 'y'] as const) : (['x', 'y', 'width', 'height'] as const);
      return sides.every((side) => Math.abs(a[side] - b[side]) <= BESIDE);
    }
    default:
      return JSON.stringify(a) === JSON.stringify(b);
  }
}

/** What is proposed is told in words too, where a file that is taken along can do no more. */
function withoutEdit(words: string, { edit, selector }: Pick<PlacedMark, 'edit' | 'selector'>): string {
  const told = edit === null ? '' : editLine(edit, passageOf(selector));
  return told !== '' && words.endsWith(told) ? words.slice(0, -told.length).trimEnd() : words;
}

/** Whether two proposals put the same words in at the same place of a page, whatever words they stand on. */
function putsIn(one: Pick<KnownNote, 'partId' | 'selector' | 'edit'>, other: typeof one): boolean {
  const [a, b] = [insertion(one), insertion(other)];
  return (
    a !== null &&
    b !== null &&
    one.partId === other.partId &&
    a.page === b.page &&
    a.text === b.text &&
    Math.abs(a.at - b.at) <= MEASURED
  );
}

function insertion({ selector, edit }: Pick<KnownNote, 'selector' | 'edit'>) {
  if (edit?.type !== 'insert' || selector.type !== 'passage') return null;
  const { start, end } = selector.position;
  return { page: selector.page, at: edit.side === 'before' ? start : end, text: edit.text.trim() };
}

/** Where the words of a passage stand, whatever blanks go with them. */
function wordsAt({ quote: { exact }, position }: TextAnchor): string {
  const start = position.start + exact.length - exact.trimStart().length;
  return `${start} ${start + exact.trim().length}`;
}

function sameEdit(one: Pick<KnownNote, 'edit'>, other: Pick<KnownNote, 'edit'>): boolean {
  return JSON.stringify(one.edit) === JSON.stringify(other.edit);
}

/** Whether these words are what the note reads as in a file that is taken along. */
function says(note: Parameters<typeof noteLines>[0], words: string): boolean {
  const bare = (text: string) => text.replace(/\s+/g, ' ').trim();
  const said = bare(words);
  return [noteLines({ ...note, edit: null }), noteLines(note), [note.body]].some(
    (lines) => bare(lines.join('\n')) === said,
  );
}
