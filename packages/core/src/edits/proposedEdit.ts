import { matchTextAnchor } from '../anchoring/match.js';
import type { TextAnchor, TextRange } from '../anchoring/selectors.js';
import type { TextEdit } from './textEdit.js';

/**
 * What a note proposes to do with its passage. Kept beside the note's place, not in positions of a text, so that it is found
 * again with the passage.
 */
export type ProposedEdit =
  | { readonly type: 'insert'; readonly side: 'before' | 'after'; readonly text: string }
  | { readonly type: 'delete' }
  | { readonly type: 'replace'; readonly text: string }
  | { readonly type: 'move'; readonly side: 'before' | 'after'; readonly to: TextAnchor }
  /** A paragraph begins with the passage. */
  | { readonly type: 'split' }
  /** The paragraph of the passage is joined with the one that follows. */
  | { readonly type: 'join' };

/**
 * What was made of a passage by typing over it: nothing left is to delete; as before with more in front or behind, to insert; else to
 * replace. Null when it reads as before.
 */
export function editTyped(passage: string, typed: string): ProposedEdit | null {
  if (typed === passage) return null;
  if (typed.trim() === '') return { type: 'delete' };
  if (typed.startsWith(passage)) return { type: 'insert', side: 'after', text: typed.slice(passage.length) };
  if (typed.endsWith(passage)) return { type: 'insert', side: 'before', text: typed.slice(0, -passage.length) };
  return { type: 'replace', text: typed };
}

/** A passage as it would read; for a move and for paragraphs, which leave its words alone, the passage itself. */
export function passageAfter(passage: string, edit: ProposedEdit): string {
  switch (edit.type) {
    case 'insert':
      return edit.side === 'before' ? edit.text + passage : passage + edit.text;
    case 'delete':
      return '';
    case 'replace':
      return edit.text;
    default:
      return passage;
  }
}

/**
 * The edit of the text in which the passage stands at `range`. Null when it cannot be made there: what it moves to is gone or lies
 * inside of it, or no paragraph follows to be joined.
 */
export function placedEdit(text: string, { start, end }: TextRange, edit: ProposedEdit): TextEdit | null {
  switch (edit.type) {
    case 'insert':
      return { type: 'insert', at: edit.side === 'before' ? start : end, text: edit.text };
    case 'delete':
      return { type: 'delete', start, end };
    case 'replace':
      return { type: 'replace', start, end, text: edit.text };
    case 'move': {
      const match = matchTextAnchor(text, edit.to);
      if (match.found === 'gone') return null;
      const to = edit.side === 'before' ? match.range.start : match.range.end;
      return to > start && to < end ? null : { type: 'move', start, end, to };
    }
    case 'split':
      return { type: 'split', at: start };
    case 'join':
      return text.indexOf('\n', end) === -1 ? null : { type: 'join', at: end };
  }
}
