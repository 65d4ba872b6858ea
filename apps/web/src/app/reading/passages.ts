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

/** A passage that was found. */
interface Cover {
  readonly id: string;
  readonly kind: Passage['kind'];
  readonly certainty: Certainty;
}

/** Marks the passages of notes in a rendered draft. @returns how each was found again */
export function markPassages(root: HTMLElement, passages: readonly Passage[]): Map<string, AnchorMatch> {
  unmark(root);
  const matches = new Map<string, AnchorMatch>();
  // Read once: whatever is marked, the text and its positions stay.
  const dom = readDom(root);
  const byNode = new Map<Text, Piece[]>();
  for (const { id, kind, anchor } of passages) {
    const match = matchTextAnchor(dom.text, anchor);
    matches.set(id, match);
    if (match.found === 'gone') continue;
    const cover: Cover = { id, kind, certainty: match.certainty };
    for (const { node, from, to } of dom.pieces(match.range)) {
      const pieces = byNode.get(node);
      if (pieces === undefined) byNode.set(node, [{ from, to, cover }]);
      else pieces.push({ from, to, cover });
    }
  }
  const begun = new Set<string>();
  for (const node of dom.nodes) {
    const pieces = byNode.get(node);
    if (pieces !== undefined) node.replaceWith(...nested(stretches(node, pieces), 0, begun));
  }
  for (const { id, edit = null } of passages) {
    if (edit !== null && matches.get(id)?.found !== 'gone') showEdit(root, { id, text: dom.text, edit });
  }
  return matches;
}

/** A stretch of a text node that a passage covers. */
interface Piece {
  readonly from: number;
  readonly to: number;
  readonly cover: Cover;
}

/** A stretch that the same passages cover all of, in the order of the notes. */
interface Stretch {
  readonly text: Text;
  readonly covers: readonly Cover[];
}

function stretches(node: Text, pieces: readonly Piece[]): Stretch[] {
  const ends = [...new Set([0, node.data.length, ...pieces.flatMap(({ from, to }) => [from, to])])].sort(
    (a, b) => a - b,
  );
  return ends.slice(1).map((to, index) => {
    const from = ends[index] as number;
    return {
      text: node.ownerDocument.createTextNode(node.data.slice(from, to)),
      covers: pieces.filter((piece) => piece.from <= from && piece.to >= to).map(({ cover }) => cover),
    };
  });
}

/** Marks in one another, the earlier note around the later; neighbours under the same note share its mark. */
function nested(list: readonly Stretch[], depth: number, begun: Set<string>): Node[] {
  const nodes: Node[] = [];
  for (let at = 0; at < list.length;) {
    const { text, covers } = list[at] as Stretch;
    const cover = covers[depth];
    if (cover === undefined) {
      nodes.push(text);
      at += 1;
      continue;
    }
    let end = at + 1;
    while (list[end]?.covers[depth] === cover) end += 1;
    const mark = markOf(text.ownerDocument, cover, !begun.has(cover.id));
    begun.add(cover.id);
    mark.append(...nested(list.slice(at, end), depth + 1, begun));
    nodes.push(mark);
    at = end;
  }
  return nodes;
}

function markOf(page: Document, { id, kind, certainty }: Cover, first: boolean): HTMLElement {
  const mark = page.createElement('mark');
  mark.className = 'passage';
  mark.dataset['note'] = id;
  mark.dataset['kind'] = kind;
  if (certainty === 'perhaps') mark.dataset['perhaps'] = '';
  if (first && kind !== 'find') {
    // The pair that WAI-ARIA has for it: a mark, and the comment that its details are (1.3, “comment”).
    mark.tabIndex = 0;
    mark.setAttribute('aria-details', noteDomId(id));
  }
  return mark;
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
