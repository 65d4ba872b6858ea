import { matchTextAnchor, type AnchorMatch, type TextAnchor } from '@salt-circle/core';
import type { NoteKind } from '@salt-circle/contracts';
import { readDom } from './domText.js';

export interface Passage {
  readonly id: string;
  /** `find`: no note, but a place that is pointed out. */
  readonly kind: NoteKind | 'find';
  readonly anchor: TextAnchor;
}

/** Marks the passages of notes in a rendered draft. @returns how each was found again */
export function markPassages(root: HTMLElement, passages: readonly Passage[]): Map<string, AnchorMatch> {
  unmark(root);
  const matches = new Map<string, AnchorMatch>();
  const { text } = readDom(root);
  for (const { id, kind, anchor } of passages) {
    const match = matchTextAnchor(text, anchor);
    matches.set(id, match);
    if (match.found === 'gone') continue;
    // Read again each time: marking one passage splits the text nodes of the next. The text stays the same.
    for (const { node, from, to } of readDom(root).pieces(match.range)) wrap(node, from, to, id, kind);
  }
  return matches;
}

function wrap(node: Text, from: number, to: number, id: string, kind: Passage['kind']): void {
  const middle = from > 0 ? node.splitText(from) : node;
  if (to - from < middle.data.length) middle.splitText(to - from);
  const mark = node.ownerDocument.createElement('mark');
  mark.className = 'passage';
  mark.dataset['note'] = id;
  mark.dataset['kind'] = kind;
  middle.replaceWith(mark);
  mark.append(middle);
}

function unmark(root: HTMLElement): void {
  for (const mark of root.querySelectorAll('mark.passage')) mark.replaceWith(...mark.childNodes);
  root.normalize();
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
