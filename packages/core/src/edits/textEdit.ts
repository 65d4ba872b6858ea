import type { TextRange } from '../anchoring/selectors.js';
import { MisuseError } from '../problem.js';

/**
 * A change to a plain text, in which a line end is the end of a paragraph. Positions are UTF-16 code units in the text that it
 * was made for.
 */
export type TextEdit =
  | { readonly type: 'insert'; readonly at: number; readonly text: string }
  | { readonly type: 'delete'; readonly start: number; readonly end: number }
  | { readonly type: 'replace'; readonly start: number; readonly end: number; readonly text: string }
  /** Takes a passage to another place, which is not inside of it. */
  | { readonly type: 'move'; readonly start: number; readonly end: number; readonly to: number }
  /** Begins a paragraph. */
  | { readonly type: 'split'; readonly at: number }
  /** Joins the paragraph that holds or ends at `at` with the one that follows. */
  | { readonly type: 'join'; readonly at: number };

/** Puts `text` where `start` to `end` was; the one form that all changes come down to. */
export interface Splice extends TextRange {
  readonly text: string;
}

const PARAGRAPH = '\n';

/**
 * The splices of an edit, in the order of the text and apart from each other.
 * @throws MisuseError when the edit does not lie in the text, or moves a passage into itself
 */
export function splicesOf(text: string, edit: TextEdit): Splice[] {
  switch (edit.type) {
    case 'insert':
      return checked(text, [{ start: edit.at, end: edit.at, text: edit.text }]);
    case 'delete':
      return checked(text, [{ start: edit.start, end: edit.end, text: '' }]);
    case 'replace':
      return checked(text, [{ start: edit.start, end: edit.end, text: edit.text }]);
    case 'move': {
      const { start, end, to } = edit;
      if (to > start && to < end)
        throw new MisuseError('edit-invalid', 'A passage cannot be moved into itself.', { ...edit });
      const out: Splice = { start, end, text: '' };
      const into: Splice = { start: to, end: to, text: text.slice(start, end) };
      return checked(text, to <= start ? [into, out] : [out, into]);
    }
    case 'split': {
      const [from, to] = blankAround(text, edit.at);
      return checked(text, [{ start: from, end: to, text: PARAGRAPH }]);
    }
    case 'join': {
      const at = text.indexOf(PARAGRAPH, edit.at);
      if (at === -1) throw new MisuseError('edit-invalid', 'No paragraph follows to be joined.', { ...edit });
      const [from, to] = blankAround(text, at);
      return checked(text, [{ start: from, end: to, text: ' ' }]);
    }
  }
}

/** The text with splices put in that are in order and apart. */
export function spliced(text: string, splices: readonly Splice[]): string {
  let result = '';
  let at = 0;
  for (const { start, end, text: put } of splices) {
    result += text.slice(at, start) + put;
    at = end;
  }
  return result + text.slice(at);
}

/** The text as it reads after an edit. @throws MisuseError as `splicesOf` */
export function applyEdit(text: string, edit: TextEdit): string {
  return spliced(text, splicesOf(text, edit));
}

/** Splices that take the result back to `text`. */
export function invertSplices(text: string, splices: readonly Splice[]): Splice[] {
  let shift = 0;
  return splices.map(({ start, end, text: put }) => {
    const from = start + shift;
    shift += put.length - (end - start);
    return { start: from, end: from + put.length, text: text.slice(start, end) };
  });
}

/**
 * An edit as it is after other splices of the same text. Null when they took or broke what it is about: two people changed the same
 * words, and both edits are to be kept and told apart. What is put in where another one puts in comes after it.
 */
export function rebaseEdit(edit: TextEdit, over: readonly Splice[]): TextEdit | null {
  const point = (at: number) => moved(at, over);
  if ('start' in edit) {
    const { start, end } = edit;
    if (over.some((splice) => touches(splice, start, end))) return null;
    const range = { start: point(start), end: point(start) + (end - start) };
    if (edit.type !== 'move') return { ...edit, ...range };
    return over.some((splice) => holds(splice, edit.to)) ? null : { ...edit, ...range, to: point(edit.to) };
  }
  return over.some((splice) => holds(splice, edit.at)) ? null : { ...edit, at: point(edit.at) };
}

/** Whether a splice changes letters of a range, or puts something in among them. */
function touches(splice: Splice, start: number, end: number): boolean {
  const { start: from, end: to } = splice;
  return from === to ? from > start && from < end : from < end && to > start;
}

/** Whether a place lies among letters that a splice takes out. */
function holds({ start, end }: Splice, at: number): boolean {
  return at > start && at < end;
}

function moved(at: number, over: readonly Splice[]): number {
  return over.reduce((sum, { start, end, text }) => (end <= at ? sum + text.length - (end - start) : sum), at);
}

/** White space on both sides of a place, line ends among them. */
function blankAround(text: string, at: number): [number, number] {
  let [from, to] = [at, at];
  while (from > 0 && /\s/.test(text[from - 1] as string)) from -= 1;
  while (to < text.length && /\s/.test(text[to] as string)) to += 1;
  return [from, to];
}

function checked(text: string, splices: readonly Splice[]): Splice[] {
  for (const splice of splices) {
    const { start, end } = splice;
    if (Number.isInteger(start) && Number.isInteger(end) && start >= 0 && start <= end && end <= text.length) continue;
    throw new MisuseError('edit-invalid', `The edit ${start} to ${end} is not in a text of ${text.length}.`, {
      start,
      end,
      length: text.length,
    });
  }
  return [...splices];
}
