import {
  describeTextAnchor,
  matchTextAnchor,
  pageText,
  runPieces,
  type Box,
  type PageRun,
  type RunPiece,
  type Selector,
} from '@salt-circle/core';
import type { DrawnPage } from '../../viewing/PdfPage.js';
import type { PdfTexts } from '../../viewing/pdfText.js';

export type PassageSelector = Extract<Selector, { type: 'passage' }>;

/** What stands after a passage is compared too. */
const AFTER = 64;

/** Where the words of a passage are, with pages counted from 1; nothing where they are not. */
export async function findPassage(texts: PdfTexts, selector: PassageSelector): Promise<RunPiece[]> {
  const pages: PageRun[][] = [];
  let built = pageText([]);
  for (let page = selector.page; page <= texts.count && built.text.length < selector.position.end + AFTER; page += 1) {
    pages.push(await texts.runs(page));
    built = pageText(pages);
  }
  const match = matchTextAnchor(built.text, selector);
  if (match.found === 'gone') return [];
  return runPieces(pages, built, match.range).map((piece) => ({ ...piece, page: piece.page + selector.page }));
}

/** Where a piece of a run is on its sheet, in shares of it. */
export function boxOf({ sheet, spans }: DrawnPage, { run, from, to }: RunPiece): Box | null {
  const node = spans?.[run]?.firstChild ?? null;
  if (!(node instanceof Text) || to > node.data.length) return null;
  const range = document.createRange();
  range.setStart(node, from);
  range.setEnd(node, to);
  const [own, around] = [range.getBoundingClientRect(), sheet.getBoundingClientRect()];
  if (around.width === 0 || own.width === 0) return null;
  return {
    x: (own.left - around.left) / around.width,
    y: (own.top - around.top) / around.height,
    width: own.width / around.width,
    height: own.height / around.height,
  };
}

/** What is selected on drawn pages, as a place; null for nothing. */
export async function selectedPassage(
  texts: PdfTexts,
  drawn: ReadonlyMap<number, DrawnPage>,
  range: Range,
): Promise<PassageSelector | null> {
  const touched = [...drawn.values()]
    .sort((a, b) => a.number - b.number)
    .flatMap(({ number, spans }) =>
      (spans ?? []).flatMap((span, run) => (range.intersectsNode(span) ? [{ number, run, span }] : [])),
    );
  const [first, last] = [touched[0], touched.at(-1)];
  if (first === undefined || last === undefined) return null;
  const from = first.span.contains(range.startContainer) ? letterOf(range.startContainer, range.startOffset) : 0;
  const to = last.span.contains(range.endContainer)
    ? letterOf(range.endContainer, range.endOffset)
    : last.span.textContent.length;
  const pages: PageRun[][] = [];
  for (let page = first.number; page <= last.number; page += 1) pages.push(await texts.runs(page));
  const { text, starts } = pageText(pages);
  let start = (starts[0]?.[first.run] ?? 0) + from;
  let end = (starts[last.number - first.number]?.[last.run] ?? 0) + to;
  while (start < end && /\s/.test(text[start] as string)) start += 1;
  while (end > start && /\s/.test(text[end - 1] as string)) end -= 1;
  if (start >= end) return null;
  return { type: 'passage', page: first.number, ...describeTextAnchor(text, { start, end }) };
}

/** A place in an element of the text layer, which has one text or none. */
function letterOf(container: Node, offset: number): number {
  return container instanceof Text ? offset : offset === 0 ? 0 : (container.textContent ?? '').length;
}
