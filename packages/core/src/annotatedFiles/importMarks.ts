import { describeTextAnchor } from '../anchoring/describe.js';
import { matchTextAnchor, type AnchorMatch } from '../anchoring/match.js';
import type { TextRange } from '../anchoring/selectors.js';
import { placedEdit, type ProposedEdit } from '../edits/proposedEdit.js';
import { splicesOf, type TextEdit } from '../edits/textEdit.js';
import { Letters } from './letters.js';
import {
  planImport,
  type ImportLimits,
  type ImportedNote,
  type KnownNote,
  type PlacedMark,
  type Unplaced,
  type UnplacedReason,
} from './planImport.js';

/** Something that somebody marked in a document that was taken along. Positions are UTF-16 code units of the document's text. */
export interface TextMark extends TextRange {
  /** A comment, with what was answered to it; empty for a change alone. */
  readonly words: readonly string[];
  /** Null for a comment alone. A move is taken as taking out and putting in. */
  readonly edit: Exclude<TextEdit, { readonly type: 'move' }> | null;
}

/** A document as it came back: its text as it was before tracked changes, and what was marked in it, in the order of places. */
export interface AnnotatedText {
  readonly text: string;
  readonly marks: readonly TextMark[];
}

/** A part of the draft that is read as text. */
export interface ReadText {
  readonly id: string;
  readonly text: string;
}

/** What came back in a file. */
export interface ImportedMarks {
  readonly notes: readonly ImportedNote[];
  readonly unplaced: readonly Unplaced[];
  /** Marks that are notes of the review already. */
  readonly known: number;
  /** The text itself is another one than that of the draft: something was changed without being tracked, or it is another version. */
  readonly otherText: boolean;
}

/** A text of the draft, and where it stands in the document. */
interface Located extends ReadText {
  readonly letters: Letters;
  /** Of its beginning in the document; where it is not found, of what is searched there. */
  readonly offset: number;
  /** From a passage of the document to the text; null where it is outside. Null for a text that is not there letter by letter. */
  readonly at: ((passage: TextRange) => TextRange | null) | null;
}

/**
 * Finds again what was marked in a document that holds the texts of a draft, by words and position: where a text stands in it unchanged, at
 * its very place; elsewhere as {@link matchTextAnchor} does. A comment on just what a tracked change changes becomes one note with it.
 *
 * @param already the notes of the review, which come back in the file that they were taken along in
 */
export function importMarks(
  document: AnnotatedText,
  parts: readonly ReadText[],
  already: readonly KnownNote[],
  limits: ImportLimits,
): ImportedMarks {
  const located = locate(document.text, parts);
  const known = new Set<KnownNote>();
  const changes = new Map(already.flatMap((note) => keysOf(located, note).map((key) => [key, note] as const)));
  const at = (mark: TextMark) => place(document.text, located, mark, limits);
  // What is shown as changed in the file that was taken along is proposed already.
  const fresh = document.marks.filter((mark) => {
    if (mark.edit === null) return true;
    const placed = at(mark);
    if ('why' in placed) return true;
    const of = keysOf(located, placed).map((key) => changes.get(key));
    for (const note of of) if (note !== undefined) known.add(note);
    return of.length === 0 || of.includes(undefined);
  });
  const placed: PlacedMark[] = [];
  const unplaced: Unplaced[] = [];
  for (const one of joined(fresh).map(at)) {
    if ('why' in one) unplaced.push(one);
    else placed.push(one);
  }
  const taken = planImport(placed, already, limits);
  return {
    notes: taken.notes,
    unplaced: [...unplaced, ...taken.unplaced],
    known: new Set([...known, ...taken.known]).size,
    otherText: located.some(({ at: there }) => there === null),
  };
}

/** What a proposal comes to in its text; none for none, and for one that cannot be made there. */
function keysOf(
  parts: readonly Located[],
  { partId, selector, edit }: Pick<KnownNote, 'partId' | 'selector' | 'edit'>,
): string[] {
  const part = parts.find(({ id }) => id === partId);
  if (part === undefined || edit === null || selector.type !== 'text') return [];
  const { text, letters } = part;
  const match = matchTextAnchor(text, selector);
  const made = match.found === 'gone' ? null : placedEdit(text, match.range, edit);
  if (made === null) return [];
  return splicesOf(text, made).map(({ start, end, text: put }) =>
    JSON.stringify([partId, letters.before(start), letters.before(end), put.trim()]),
  );
}

function locate(text: string, parts: readonly ReadText[]): Located[] {
  let from = 0;
  const document = new Letters(text);
  return parts.map((given) => {
    const own = new Letters(given.text);
    const part = { ...given, letters: own };
    const { length } = part.text;
    const offset = text.indexOf(part.text, from);
    if (offset !== -1) {
      from = offset + length;
      const at = ({ start, end }: TextRange) =>
        start >= offset && end <= offset + length ? { start: start - offset, end: end - offset } : null;
      return { ...part, offset, at };
    }
    const first = document.bare.indexOf(own.bare, document.before(from));
    if (first !== -1 && own.bare !== '') {
      from = document.after(first + own.bare.length);
      return { ...part, offset: document.place(first), at: (passage) => carried(document, own, first, passage) };
    }
    const [line = ''] = part.text.split('\n').filter((one) => one.length >= 12);
    const near = line === '' ? -1 : text.indexOf(line, from);
    return { ...part, offset: near === -1 ? from : near - part.text.indexOf(line), at: null };
  });
}

/** A passage by its letters, with the blank at its end if there is one on both sides: what is put in comes before or after it. */
function carried(from: Letters, to: Letters, first: number, { start, end }: TextRange): TextRange | null {
  const [begin, over] = [from.before(start) - first, from.before(end) - first];
  if (begin < 0 || over > to.bare.length || begin >= over) return null;
  const last = to.after(over);
  const blank = /\s/.test(from.text[end - 1] ?? '') && /\s/.test(to.text[last] ?? '');
  return { start: to.place(begin), end: blank ? last + 1 : last };
}

/** Comments and changes of the same words as one. */
function joined(marks: readonly TextMark[]): TextMark[] {
  const taken = new Set<TextMark>();
  const comments = marks.filter(({ edit }) => edit === null);
  const changes = marks.filter(({ edit }) => edit !== null);
  const whole = comments.map((comment) => {
    const inside = changes.filter((change) => change.start >= comment.start && change.end <= comment.end);
    const [one] = inside;
    if (one === undefined || inside.length > 1 || taken.has(one) || !isOf(comment, one)) return comment;
    taken.add(one);
    return { ...comment, edit: one.edit };
  });
  return [...whole, ...changes.filter((change) => !taken.has(change))].sort(
    (a, b) => a.start - b.start || a.end - b.end,
  );
}

/** What is put in stands before or after the words of the comment; what goes is just these words. */
function isOf({ start, end }: TextRange, { edit }: TextMark): boolean {
  if (edit === null) return false;
  if ('start' in edit) return edit.start === start && edit.end === end;
  return edit.type === 'insert' && (edit.at === start || edit.at === end) && start < end;
}

function place(text: string, parts: readonly Located[], mark: TextMark, limits: ImportLimits): PlacedMark | Unplaced {
  const said = [...mark.words, ...(mark.edit !== null && 'text' in mark.edit ? [mark.edit.text] : [])].join('\n\n');
  const stand = standOf(text, mark, limits.passage);
  const fail = (why: UnplacedReason): Unplaced => ({ why, passage: passageIn(text, mark), words: said });
  if (stand === null) return fail('outside');
  const { passage, edit } = stand;
  const found = standing(parts, passage) ?? findIn(text, parts, passage);
  if (found === null) return fail(parts.every(({ at }) => at !== null) ? 'outside' : 'gone');
  const { part, range, certainty } = found;
  if (edit !== null && placedEdit(part.text, range, edit) === null) return fail('edit');
  return {
    ...{ partId: part.id, edit, certainty, words: mark.words },
    selector: { type: 'text', ...describeTextAnchor(part.text, range) },
  };
}

/** The words that a mark stands on, and what it does to them. Null where there are none. */
function standOf(
  text: string,
  { start, end, edit }: TextMark,
  most: number,
): { passage: TextRange; edit: ProposedEdit | null } | null {
  const bounded = (range: TextRange): TextRange => ({
    start: range.start,
    end: Math.min(range.end, range.start + most),
  });
  switch (edit?.type) {
    case undefined: {
      const passage = start < end ? trimmed(text, { start, end }) : (wordBefore(text, start) ?? wordAfter(text, start));
      return passage === null ? null : { passage: bounded(passage), edit: null };
    }
    case 'delete':
    case 'replace': {
      const passage = { start: edit.start, end: edit.end };
      if (passage.end - passage.start > most) return null;
      return { passage, edit: edit.type === 'delete' ? { type: 'delete' } : { type: 'replace', text: edit.text } };
    }
    case 'insert': {
      // In a comment’s own words, where it is on some.
      const own = start < end ? { start, end } : null;
      const before = own === null ? wordBefore(text, edit.at) : own.end === edit.at ? own : null;
      if (before !== null) return { passage: before, edit: { type: 'insert', side: 'after', text: edit.text } };
      const after = own ?? wordAfter(text, edit.at);
      return after === null ? null : { passage: after, edit: { type: 'insert', side: 'before', text: edit.text } };
    }
    case 'split': {
      const passage = wordAfter(text, edit.at);
      return passage === null ? null : { passage, edit: { type: 'split' } };
    }
    case 'join': {
      const passage = wordBefore(text, edit.at);
      return passage === null ? null : { passage, edit: { type: 'join' } };
    }
  }
}

/** UTF-16 code units before a place in which its word is looked for. */
const LONGEST_WORD = 300;

/** The word that ends at a place, on its line, with what is between them. */
function wordBefore(text: string, at: number): TextRange | null {
  const line = text.slice(Math.max(text.lastIndexOf('\n', at - 1) + 1, at - LONGEST_WORD), at);
  // regex: over so many characters at the most
  const word = /\S+\s*$/.exec(line);
  return word === null ? null : { start: at - word[0].length, end: at };
}

/** The word that begins at a place, on its line, with what is between them. */
function wordAfter(text: string, at: number): TextRange | null {
  const word = /^[^\S\n]*\S+/.exec(text.slice(at, at + 200));
  return word === null ? null : { start: at, end: at + word[0].length };
}

function trimmed(text: string, { start, end }: TextRange): TextRange | null {
  const passage = text.slice(start, end);
  const lead = passage.length - passage.trimStart().length;
  const range = { start: start + lead, end: start + passage.trimEnd().length };
  return range.start < range.end ? range : null;
}

interface Found {
  readonly part: Located;
  readonly range: TextRange;
  readonly certainty: 'sure' | 'perhaps';
}

/** Where a text stands in the document as it is. */
function standing(parts: readonly Located[], passage: TextRange): Found | null {
  for (const part of parts) {
    const range = part.at?.(passage) ?? null;
    if (range !== null) return { part, range, certainty: 'sure' };
  }
  return null;
}

/** In whichever text that is another one now it is found best. */
function findIn(text: string, parts: readonly Located[], passage: TextRange): Found | null {
  const { quote, position } = describeTextAnchor(text, passage);
  let best: (Found & { readonly rank: number }) | null = null;
  for (const part of parts) {
    if (part.at !== null) continue;
    const shift = (at: number) => Math.max(0, at - part.offset);
    const match = matchTextAnchor(part.text, {
      quote,
      position: { ...position, start: shift(position.start), end: shift(position.end) },
    });
    if (match.found === 'gone') continue;
    const rank = rankOf(match);
    if (best === null || rank > best.rank) best = { part, range: match.range, certainty: match.certainty, rank };
  }
  return best;
}

function rankOf(match: Exclude<AnchorMatch, { readonly found: 'gone' }>): number {
  return (match.certainty === 'sure' ? 3 : 0) + { same: 2, moved: 1, changed: 0 }[match.found];
}

function passageIn(text: string, { start, end }: TextRange): string {
  return text.slice(start, Math.min(end, start + 200));
}
