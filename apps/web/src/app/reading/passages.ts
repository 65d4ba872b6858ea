import {
  matchTextAnchor,
  type AnchorMatch,
  type Certainty,
  type ProposedEdit,
  type TextAnchor,
} from '@salt-circle/core';
import type { NoteKind } from '@salt-circle/contracts';
import { readDom } from './domText.js';
import { showEdit, takeOutEdits } from './shownEdits.js';

export interface Passage {
  readonly id: string;
  /** `find`: no note, but a place that is pointed out. */
  readonly kind: NoteKind | 'find';
  readonly anchor: TextAnchor;
  /** What is proposed to be done with it. */
  readonly edit?: ProposedEdit | null;
}

/** Marks the passages of notes in a rendered draft. @returns how each was found again */
export function markPassages(root: HTMLElement, passages: readonly Passage[]): Map<string, AnchorMatch> {
  unmark(root);
  const matches = new Map<string, AnchorMatch>();
  const { text } = readDom(root);
  for (const { id, kind, anchor, edit = null } of passages) {
    const match = matchTextAnchor(text, anchor);
    matches.set(id, match);
    if (match.found === 'gone') continue;
    // Read again each time: marking one passage splits the text nodes of the next. The text stays the same.
    readDom(root)
      .pieces(match.range)
      .forEach(({ node, from, to }, piece) =>
        wrap(node, from, to, { id, kind, certainty: match.certainty, first: piece === 0 }),
      );
    if (edit !== null) showEdit(root, { id, text, edit });
  }
  return matches;
}

interface Piece {
  readonly id: string;
  readonly kind: Passage['kind'];
  readonly certainty: Certainty;
  readonly first: boolean;
}

function wrap(node: Text, from: number, to: number, { id, kind, certainty, first }: Piece): void {
  const middle = from > 0 ? node.splitText(from) : node;
  if (to - from < middle.data.length) middle.splitText(to - from);
  const mark = node.ownerDocument.createElement('mark');
  mark.className = 'passage';
  mark.dataset['note'] = id;
  mark.dataset['kind'] = kind;
  if (certainty === 'perhaps') mark.dataset['perhaps'] = '';
  if (first && kind !== 'find') {
    // The pair that WAI-ARIA has for it: a mark, and the comment that its details are (1.3, “comment”).
    mark.tabIndex = 0;
    mark.setAttribute('aria-details', noteDomId(id));
  }
  middle.replaceWith(mark);
  mark.append(middle);
}

function unmark(root: HTMLElement): void {
  takeOutEdits(root);
  for (const mark of root.querySelectorAll('mark.passage')) mark.replaceWith(...mark.childNodes);
  root.normalize();
}

/** By which id a note stands on the page, beside its passage. */
export function noteDomId(id: string): string {
  return `note-${id}`;
}

/** Notes whose passages hold a place, the innermost first: they can lie over one another. */
export function notesAt(target: EventTarget | null): string[] {
  const ids: string[] = [];
  let mark = target instanceof Element ? target.closest<HTMLElement>('mark.passage') : null;
  while (mark !== null) {
    ids.push(mark.dataset['note'] ?? '');
    mark = mark.parentElement?.closest<HTMLElement>('mark.passage') ?? null;
  }
  return [...new Set(ids)];
}

/** Gives the place of a note the focus, where it is shown: a passage, a region, a mark on a time line. */
export function focusPassage(id: string): void {
  const name = CSS.escape(id);
  const mark = document.querySelector<HTMLElement>(
    `mark.passage[data-note="${name}"][tabindex], [data-place="${name}"]`,
  );
  mark?.focus({ preventScroll: true });
  mark?.scrollIntoView({ block: 'center' });
}

export function activate(root: HTMLElement, id: string | null): void {
  for (const mark of root.querySelectorAll<HTMLElement>('mark.passage')) {
    mark.toggleAttribute('data-active', mark.dataset['note'] === id);
  }
}

/** Distance of each passage's first line from the top of `root`, in CSS pixels. */
export function topsOf(root: HTMLElement): Map<string, number> {
  const base = root.getBoundingClientRect().top;
  const tops = new Map<string, number>();
  for (const mark of root.querySelectorAll<HTMLElement>('mark.passage')) {
    const id = mark.dataset['note'] ?? '';
    if (!tops.has(id)) tops.set(id, mark.getBoundingClientRect().top - base);
  }
  return tops;
}
