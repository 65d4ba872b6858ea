import { TextCollector, type Splice } from '@salt-circle/core';
import render from 'dom-serializer';
import { Element, isTag, isText, Text, type ChildNode, type Document, type ParentNode } from 'domhandler';
import { parseDocument } from 'htmlparser2';

/** A text node and where it stands in the plain text: its first `skip` code units have no place in that. */
interface Run {
  readonly node: Text;
  readonly start: number;
  readonly skip: number;
}

const BLOCKS = new Set('blockquote div h1 h2 h3 h4 h5 h6 li p pre td th'.split(' '));
/** These begin anew where a line does; a cell of a table does not. */
const DIVIDED = new Set('h1 h2 h3 h4 h5 h6 li p'.split(' '));

/**
 * Cleaned HTML with its plain text changed: words in the emphasis of what stands before them, a new line as a new paragraph, and two
 * paragraphs as one where the end of line between them is taken out.
 *
 * @param splices in UTF-16 code units of the plain text of `html`, in order and apart from each other
 */
export function spliceHtml(html: string, splices: readonly Splice[]): string {
  const document = parseDocument(html);
  for (const splice of [...splices].reverse()) apply(document, splice);
  return render(document, { encodeEntities: 'utf8', selfClosingTags: false });
}

function apply(document: Document, { start, end, text }: Splice): void {
  const runs = runsOf(document);
  const touched = runs.filter((run) => run.start < end && endOf(run) > start);
  const [first] = touched;
  // Where an end of line is taken out as well, what is put in goes behind what stands before it.
  const at =
    (first !== undefined && first.start <= start ? first : undefined) ??
    runs.find((run) => run.start <= start && endOf(run) >= start) ??
    first ??
    runs.findLast((run) => endOf(run) <= start);
  if (at === undefined) {
    if (text.trim() !== '') append(document, element('p', [new Text(text)]));
    return;
  }
  const offset = Math.min(Math.max(start - at.start, 0) + at.skip, at.node.data.length);
  const last = touched.at(-1) ?? at;
  // Between two blocks there is an end of line that belongs to neither: taken out, what comes after it goes on here.
  const across = end > endOf(last) ? runs.find((run) => run.start >= end) : last;
  for (const run of touched) {
    const from = Math.max(start - run.start, 0) + run.skip;
    const to = Math.min(end - run.start, run.node.data.length - run.skip) + run.skip;
    run.node.data = run.node.data.slice(0, from) + run.node.data.slice(to);
  }
  const own = blockOf(at.node);
  if (across !== undefined) merge(own, blockOf(across.node));
  for (const { node } of touched) {
    const emptied = blockOf(node);
    if (emptied !== null && emptied !== own && isEmpty(emptied)) prune(emptied);
  }
  const [head = '', ...lines] = text.split('\n');
  const rest = at.node.data.slice(offset);
  at.node.data = at.node.data.slice(0, offset) + head + (lines.length === 0 ? rest : '');
  if (lines.length === 0) return;
  let node = at.node;
  lines.forEach((line, index) => {
    const data = index === lines.length - 1 ? line + (line === '' ? rest.trimStart() : rest) : line;
    node = divide(node, data);
  });
}

function endOf({ node, start, skip }: Run): number {
  return start + node.data.length - skip;
}

/** As the text is read everywhere else: see `TextCollector`. */
function runsOf(document: Document): Run[] {
  const collector = new TextCollector();
  const runs: Run[] = [];
  const walk = (nodes: readonly ChildNode[]) => {
    for (const node of nodes) {
      if (isText(node)) {
        const placed = collector.text(node.data);
        if (placed !== null) runs.push({ node, ...placed });
      } else if (isTag(node)) {
        collector.boundary(node.name);
        walk(node.children);
        collector.boundary(node.name);
      }
    }
  };
  walk(document.children);
  return runs;
}

function blockOf(node: ChildNode): Element | null {
  for (let up = node.parent; up !== null; up = up.parent) if (up instanceof Element && BLOCKS.has(up.name)) return up;
  return null;
}

/** The second goes on in the first, and what stood between them was taken out with the end of line. Cells of a table stay apart. */
function merge(first: Element | null, second: Element | null): void {
  if (first === null || second === null || first === second || inside(first, second) || inside(second, first)) return;
  if (CELLS.has(first.name) || CELLS.has(second.name) || cellOf(first) !== cellOf(second)) return;
  for (const child of [...second.children]) {
    remove(child);
    append(first, child);
  }
  prune(second);
}

const CELLS = new Set(['td', 'th']);

function cellOf(node: ChildNode): Element | null {
  for (let up = node.parent; up !== null; up = up.parent) if (up instanceof Element && CELLS.has(up.name)) return up;
  return null;
}

function inside(node: ChildNode, of: Element): boolean {
  for (let up = node.parent; up !== null; up = up.parent) if (up === of) return true;
  return false;
}

/** Takes out an element in which nothing is left, and what holds nothing but that. */
function prune(element: Element): void {
  let empty: Element | null = element;
  while (empty !== null && !CELLS.has(empty.name) && isEmpty(empty)) {
    const parent: ParentNode | null = empty.parent;
    remove(empty);
    empty = parent instanceof Element ? parent : null;
  }
}

function isEmpty(node: ChildNode): boolean {
  if (isText(node)) return node.data.trim() === '';
  return isTag(node) && node.name !== 'img' && node.name !== 'hr' && node.children.every(isEmpty);
}

/** Begins a new block behind the text node, of the same kind and with the same emphasis. @returns its first text */
function divide(node: Text, data: string): Text {
  const fresh = new Text(data);
  const block = blockOf(node);
  if (block === null || !DIVIDED.has(block.name) || block.parent === null) {
    insertAfter(node, new Element('br', {}));
    insertAfter(node.next as ChildNode, fresh);
    return fresh;
  }
  let moved: ChildNode = fresh;
  let child: ChildNode = node;
  while (child !== block) {
    const parent = child.parent as Element;
    const rest = parent.children.slice(parent.children.indexOf(child) + 1);
    for (const one of rest) remove(one);
    moved = element(parent.name, [moved, ...rest], parent.attribs);
    child = parent;
  }
  insertAfter(block, moved);
  return fresh;
}

function element(name: string, children: ChildNode[], attribs: Record<string, string> = {}): Element {
  const made = new Element(name, { ...attribs });
  for (const child of children) append(made, child);
  return made;
}

function remove(node: ChildNode): void {
  const siblings = node.parent?.children ?? [];
  const at = siblings.indexOf(node);
  if (at >= 0) siblings.splice(at, 1);
  if (node.prev !== null) node.prev.next = node.next;
  if (node.next !== null) node.next.prev = node.prev;
  [node.prev, node.next, node.parent] = [null, null, null];
}

function append(parent: ParentNode, node: ChildNode): void {
  const last = parent.children.at(-1) ?? null;
  if (last !== null) last.next = node;
  [node.prev, node.next, node.parent] = [last, null, parent];
  parent.children.push(node);
}

function insertAfter(before: ChildNode, node: ChildNode): void {
  const { parent } = before;
  if (parent === null) return;
  const { next } = before;
  [node.prev, node.next, node.parent] = [before, next, parent];
  before.next = node;
  if (next !== null) next.prev = node;
  parent.children.splice(parent.children.indexOf(before) + 1, 0, node);
}
