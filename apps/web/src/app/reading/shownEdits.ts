import { matchTextAnchor, type ProposedEdit } from '@salt-circle/core';
import { readDom } from './domText.js';
import { say } from '../../words/app.js';

interface ShownEdit {
  /** Of its note, whose passage is marked already. */
  readonly id: string;
  /** Of the whole draft. */
  readonly text: string;
  readonly edit: ProposedEdit;
}

/**
 * Shows in the running text what an edit would do: what goes is struck through, what comes stands in an element without text,
 * written by the style sheet. The draft's own words and their positions stay as they are, for every other note.
 */
export function showEdit(root: HTMLElement, { id, text, edit }: ShownEdit): void {
  const marks = [...root.querySelectorAll<HTMLElement>('mark.passage')].filter((one) => one.dataset['note'] === id);
  const [first, last] = [marks[0], marks.at(-1)];
  if (first === undefined || last === undefined) return;
  const strike = () => marks.forEach((mark) => (mark.dataset['edit'] = 'out'));
  switch (edit.type) {
    case 'insert':
      if (edit.side === 'before') outOf(first, 'first').before(proposed(id, edit.text));
      else outOf(last, 'last').after(proposed(id, edit.text));
      return;
    case 'delete':
      strike();
      return;
    case 'replace':
      strike();
      outOf(last, 'last').after(proposed(id, edit.text));
      return;
    case 'move': {
      const match = matchTextAnchor(text, edit.to);
      if (match.found === 'gone') return;
      strike();
      const words = marks.map((mark) => mark.textContent).join('');
      const { start, end } = match.range;
      putAt(root, edit.side === 'before' ? start : end, edit.side, proposed(id, words));
      return;
    }
    case 'split':
      outOf(first, 'first').before(proposed(id, '¶', 'split'));
      return;
    case 'join':
      outOf(last, 'last').after(proposed(id, ` ${say('joinedWithNextParagraph')} `, 'join'));
  }
}

/** The outermost passage that begins or ends with this one: another edit of the same words strikes through its own alone. */
function outOf(mark: HTMLElement, end: 'first' | 'last'): HTMLElement {
  const around = mark.parentElement?.closest<HTMLElement>('mark.passage') ?? null;
  if (around === null) return mark;
  const children = [...around.childNodes].filter((one) => one.textContent !== '');
  return children.at(end === 'first' ? 0 : -1) === mark ? outOf(around, end) : mark;
}

export function takeOutEdits(root: HTMLElement): void {
  for (const one of root.querySelectorAll('ins.proposed')) one.remove();
}

function proposed(id: string, text: string, what = 'words'): HTMLElement {
  const element = document.createElement('ins');
  element.className = 'proposed';
  element.dataset['note'] = id;
  element.dataset['text'] = text;
  element.dataset['what'] = what;
  return element;
}

/** Puts an element at a position of the text: before the letter that begins there, or after the one that ends there. */
function putAt(root: HTMLElement, position: number, side: 'before' | 'after', element: HTMLElement): void {
  const letter = side === 'before' ? { start: position, end: position + 1 } : { start: position - 1, end: position };
  const [piece] = readDom(root).pieces(letter);
  if (piece === undefined) return;
  const { node, from, to } = piece;
  const at = side === 'before' ? from : to;
  if (at === 0) node.before(element);
  else if (at === node.data.length) node.after(element);
  else node.splitText(at).before(element);
}
