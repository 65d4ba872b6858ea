import { TextCollector, type TextRange } from '@salt-circle/core';

interface Run {
  readonly node: Text;
  /** Positions in the text; the first `skip` code units of the node have none. */
  readonly start: number;
  readonly end: number;
  readonly skip: number;
}

/** The plain text of a rendered draft, and the way between positions in it and places in the document. */
export interface DomText {
  readonly text: string;
  /** Less the white space at its ends; null when nothing is left, or when the range lies outside. */
  readonly toText: (range: Range) => TextRange | null;
  readonly toDom: (range: TextRange) => Range | null;
  /** The text nodes that have a place in the text, in order. */
  readonly nodes: readonly Text[];
  /** The stretches of text nodes that make up a range, in order. */
  readonly pieces: (
    range: TextRange,
  ) => ReadonlyArray<{ readonly node: Text; readonly from: number; readonly to: number }>;
}

/** Reads the text below `root` as it stands now; read again after the document has changed. */
export function readDom(root: Element): DomText {
  const collector = new TextCollector();
  const runs: Run[] = [];
  const walk = (node: Node) => {
    if (node instanceof Text) {
      const placed = collector.text(node.data);
      if (placed !== null) runs.push({ node, ...placed, end: placed.start + node.data.length - placed.skip });
      return;
    }
    const tag = node instanceof Element ? node.tagName.toLowerCase() : '';
    collector.boundary(tag);
    node.childNodes.forEach(walk);
    collector.boundary(tag);
  };
  root.childNodes.forEach(walk);
  const text = collector.toString();
  const pieces: DomText['pieces'] = ({ start, end }) => {
    const found: Array<ReturnType<DomText['pieces']>[number]> = [];
    for (let at = firstAfter(runs, start); at < runs.length; at += 1) {
      const run = runs[at] as Run;
      if (run.start >= end) break;
      found.push({
        node: run.node,
        from: Math.max(start, run.start) - run.start + run.skip,
        to: Math.min(end, run.end) - run.start + run.skip,
      });
    }
    return found;
  };
  return {
    text,
    nodes: runs.map(({ node }) => node),
    pieces,
    toText: (range) => {
      if (!root.contains(range.startContainer) || !root.contains(range.endContainer)) return null;
      return trimmed(text, {
        start: positionOf(runs, text.length, range.startContainer, range.startOffset),
        end: positionOf(runs, text.length, range.endContainer, range.endOffset),
      });
    },
    toDom: (range) => {
      const found = pieces(range);
      const first = found[0];
      const last = found.at(-1);
      if (first === undefined || last === undefined) return null;
      const dom = root.ownerDocument.createRange();
      dom.setStart(first.node, first.from);
      dom.setEnd(last.node, last.to);
      return dom;
    },
  };
}

/** Index of the first run that ends after a position: they stand in the order of the text. */
function firstAfter(runs: readonly Run[], position: number): number {
  let [low, high] = [0, runs.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((runs[middle] as Run).end > position) high = middle;
    else low = middle + 1;
  }
  return low;
}

function positionOf(runs: readonly Run[], length: number, container: Node, offset: number): number {
  const own = runs.find(({ node }) => node === container);
  if (own !== undefined) return own.start + Math.max(0, offset - own.skip);
  // Between nodes: the first text that comes after this place.
  const place = container.ownerDocument?.createRange();
  if (place === undefined) return length;
  place.setStart(container, offset);
  place.collapse(true);
  return runs.find(({ node }) => place.comparePoint(node, 0) >= 0)?.start ?? length;
}

function trimmed(text: string, { start, end }: TextRange): TextRange | null {
  let from = start;
  let to = end;
  while (from < to && /\s/.test(text[from] as string)) from += 1;
  while (to > from && /\s/.test(text[to - 1] as string)) to -= 1;
  return from < to ? { start: from, end: to } : null;
}
