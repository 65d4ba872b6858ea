import {
  matchTextAnchor,
  noteLines,
  pageText,
  runPieces,
  KIND_NAMES,
  type AnnotatedKind,
  type AnnotatedNote,
} from '@salt-circle/core';
import { PDFDocument, PDFHexString, type PDFRef } from '@cantoo/pdf-lib';
import type { PDFDocumentProxy, PDFPageProxy } from 'pdfjs-dist';
import { opened, Texts, type Run } from './runs.js';
import type { PagesTask } from './task.js';

/** Corners of a piece of a line in the space of its page: top left, top right, bottom left, bottom right (ISO 32000-2, 12.5.6.10). */
type Quad = readonly [number, number, number, number, number, number, number, number];

/** Light enough to be read through; each kind has its own, and says its name besides. */
const TINTS: Readonly<Record<AnnotatedKind, readonly [number, number, number]>> = {
  keep: [0.76, 0.89, 0.8],
  change: [0.97, 0.84, 0.74],
  ask: [0.8, 0.86, 0.97],
  fix: [0.85, 0.87, 0.9],
};
const INKS: Readonly<Record<AnnotatedKind, readonly [number, number, number]>> = {
  keep: [0.17, 0.42, 0.3],
  change: [0.64, 0.29, 0.09],
  ask: [0.23, 0.34, 0.58],
  fix: [0.3, 0.34, 0.39],
};

/** Above and below the baseline, in sizes of the letters. */
const [ABOVE, BELOW] = [0.8, 0.22];
/** Printed as well (ISO 32000-2, table 167). */
const PRINTED = 4;
/** Points: of a mark that is on no words. */
const ICON = 20;

/**
 * The reading copy of a part with what was written about it as annotations: highlights on words, struck out where they are to go, carets
 * where something is put in, squares on regions, and the rest at the top of its page; replies in their threads. Text and pages stay
 * as they are.
 */
export async function pdf({ draft, partId, bytes }: PagesTask): Promise<Uint8Array> {
  const reading = await opened(bytes);
  const document = await PDFDocument.load(bytes, { updateMetadata: false });
  const texts = new Texts(reading);
  const tops = new Map<number, number>();
  for (const note of draft.reviews.flatMap(({ notes }) => notes)) {
    if (note.partId !== partId) continue;
    await mark(document, reading, texts, note, tops);
  }
  await reading.loadingTask.destroy();
  return document.save({ updateFieldAppearances: false, addDefaultPage: false });
}

async function mark(
  document: PDFDocument,
  reading: PDFDocumentProxy,
  texts: Texts,
  note: AnnotatedNote,
  tops: Map<number, number>,
): Promise<void> {
  const { selector, edit } = note;
  if (selector.type === 'passage') {
    const quads = await quadsOf(texts, selector);
    for (const [index, [page, of]] of [...quads].entries()) {
      // What goes over the edge of a page is marked on both, and said on the first.
      const goes = edit?.type === 'delete' || edit?.type === 'replace' || edit?.type === 'move';
      const made = addQuads(document, page, note, of, goes ? 'StrikeOut' : 'Highlight', index === 0);
      if (index > 0) continue;
      if (edit?.type === 'insert' || edit?.type === 'replace')
        addCaret(document, page, note, of, edit.text, edit.type === 'insert' && edit.side === 'before');
      addReplies(document, page, note, made);
    }
    if (quads.size > 0) return;
  }
  const number = 'page' in selector ? (selector.page ?? 1) : 1;
  if (number > document.getPageCount()) return;
  const page = await reading.getPage(number);
  const rect = selector.type === 'region' ? rectOf(page, selector) : atTop(page, tops, number);
  const square = selector.type === 'region' && selector.width > 0 && selector.height > 0;
  const made = square ? addSquare(document, number, note, rect) : addText(document, number, note, rect);
  addReplies(document, number, note, made);
}

/** By page, from 1; nothing where the words are not found. */
async function quadsOf(
  texts: Texts,
  selector: Extract<AnnotatedNote['selector'], { type: 'passage' }>,
): Promise<Map<number, Quad[]>> {
  const pages: Run[][] = [];
  let built = pageText([]);
  // What stands after a passage is compared too.
  for (let page = selector.page; page <= texts.count && built.text.length < selector.position.end + 64; page += 1) {
    pages.push(await texts.runs(page));
    built = pageText(pages);
  }
  const match = matchTextAnchor(built.text, selector);
  const quads = new Map<number, Quad[]>();
  if (match.found === 'gone') return quads;
  for (const { page, run, from, to } of runPieces(pages, built, match.range)) {
    const at = pages[page]?.[run];
    if (at === undefined || at.str.length === 0 || at.width === 0) continue;
    const number = selector.page + page;
    quads.set(number, [...(quads.get(number) ?? []), quadOf(at, from, to)]);
  }
  return quads;
}

/** Letters of a run are taken as equally wide: what that is off by is less than a letter. */
function quadOf({ str, transform, width }: Run, from: number, to: number): Quad {
  const [a = 1, b = 0, c = 0, d = 1, x = 0, y = 0] = transform;
  const [along, up] = [Math.hypot(a, b) || 1, Math.hypot(c, d) || 1];
  const at = (letters: number, height: number): [number, number] => {
    const way = (width * letters) / str.length;
    return [x + (a / along) * way + (c / up) * height * up, y + (b / along) * way + (d / up) * height * up];
  };
  return [...at(from, ABOVE), ...at(to, ABOVE), ...at(from, -BELOW), ...at(to, -BELOW)];
}

type Rect = readonly [left: number, bottom: number, right: number, top: number];

function around(quads: readonly Quad[]): Rect {
  const xs = quads.flatMap((quad) => [quad[0], quad[2], quad[4], quad[6]]);
  const ys = quads.flatMap((quad) => [quad[1], quad[3], quad[5], quad[7]]);
  return [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)];
}

/** From shares of the page as it is shown to its own space, turned pages included. */
function rectOf(
  page: PDFPageProxy,
  { x, y, width, height }: { x: number; y: number; width: number; height: number },
): Rect {
  const view = page.getViewport({ scale: 1 });
  const point = (right: number, down: number) =>
    view.convertToPdfPoint(right * view.width, down * view.height) as [number, number];
  const [one, other] = [point(x, y), point(x + width, y + height)];
  const [left, right] = [Math.min(one[0], other[0]), Math.max(one[0], other[0])];
  const [bottom, top] = [Math.min(one[1], other[1]), Math.max(one[1], other[1])];
  // A point gets a mark around it.
  return right - left < 1
    ? [left - ICON / 2, bottom - ICON / 2, left + ICON / 2, bottom + ICON / 2]
    : [left, bottom, right, top];
}

/** The next free place at the top left. */
function atTop(page: PDFPageProxy, tops: Map<number, number>, number: number): Rect {
  const nth = tops.get(number) ?? 0;
  tops.set(number, nth + 1);
  const view = page.getViewport({ scale: 1 });
  const across = Math.max(1, Math.floor(view.width / (ICON + 4)) - 1);
  const [x, y] = [(nth % across) * (ICON + 4) + 6, Math.floor(nth / across) * (ICON + 4) + 6];
  return rectOf(page, { x: x / view.width, y: y / view.height, width: ICON / view.width, height: ICON / view.height });
}

function common(note: AnnotatedNote, lines: readonly string[]) {
  return {
    ...{ Type: 'Annot', F: PRINTED, C: [...INKS[note.kind]] },
    T: PDFHexString.fromText(note.by),
    Subj: PDFHexString.fromText(KIND_NAMES[note.kind]),
    Contents: PDFHexString.fromText(lines.join('\n')),
  };
}

interface Mark {
  readonly ref: PDFRef;
  readonly rect: Rect;
}

function added(document: PDFDocument, number: number, rect: Rect, made: Record<string, unknown>): Mark {
  const page = document.getPage(number - 1);
  const ref = document.context.register(document.context.obj({ ...made, Rect: [...rect], P: page.ref } as never));
  page.node.addAnnot(ref);
  return { ref, rect };
}

function addQuads(
  document: PDFDocument,
  number: number,
  note: AnnotatedNote,
  quads: readonly Quad[],
  subtype: 'Highlight' | 'StrikeOut',
  says: boolean,
): Mark {
  const rect = around(quads);
  const colour = subtype === 'Highlight' ? TINTS[note.kind] : INKS[note.kind];
  const draw =
    subtype === 'Highlight'
      ? quads.map((q) => `${q[0]} ${q[1]} m ${q[2]} ${q[3]} l ${q[6]} ${q[7]} l ${q[4]} ${q[5]} l h f`)
      : quads.map((q) => {
          const [left, right] = [
            [(q[0] + 2 * q[4]) / 3, (q[1] + 2 * q[5]) / 3],
            [(q[2] + 2 * q[6]) / 3, (q[3] + 2 * q[7]) / 3],
          ];
          return `${left[0]} ${left[1]} m ${right[0]} ${right[1]} l S`;
        });
  const paint = `/Below gs ${colour.join(' ')} ${subtype === 'Highlight' ? 'rg' : 'RG 1 w'}`;
  return added(document, number, rect, {
    ...common(note, says ? noteLines(note) : [KIND_NAMES[note.kind]]),
    ...{ Subtype: subtype, QuadPoints: quads.flat(), C: [...colour] },
    // One note is one name, also where it goes over the edge of a page.
    ...(says && { NM: PDFHexString.fromText(note.id) }),
    AP: { N: appearance(document, rect, [paint, ...draw].join('\n')) },
  });
}

/** How it looks, for readers that draw nothing themselves. */
function appearance(document: PDFDocument, rect: Rect, content: string): PDFRef {
  const below = document.context.obj({ Type: 'ExtGState', BM: 'Multiply' });
  const stream = document.context.stream(content, {
    ...{ Type: 'XObject', Subtype: 'Form', BBox: [...rect] },
    Resources: { ExtGState: { Below: below } },
  });
  return document.context.register(stream);
}

function addCaret(
  document: PDFDocument,
  number: number,
  note: AnnotatedNote,
  quads: readonly Quad[],
  words: string,
  before: boolean,
): void {
  const quad = (before ? quads[0] : quads.at(-1)) as Quad;
  const [x, y] = before ? [quad[4], quad[5]] : [quad[6], quad[7]];
  const rect: Rect = [x - 5, y - 6, x + 5, y + 4];
  added(document, number, rect, {
    ...common(note, [words]),
    ...{ Subtype: 'Caret', Sy: 'None' },
    AP: {
      N: appearance(
        document,
        rect,
        `${INKS[note.kind].join(' ')} rg ${x - 4} ${y - 6} m ${x} ${y + 2} l ${x + 4} ${y - 6} l h f`,
      ),
    },
  });
}

function addSquare(document: PDFDocument, number: number, note: AnnotatedNote, rect: Rect): Mark {
  const [left, bottom, right, top] = rect;
  return added(document, number, rect, {
    ...common(note, noteLines(note)),
    ...{ Subtype: 'Square', NM: PDFHexString.fromText(note.id), BS: { W: 2, S: 'S' } },
    AP: {
      N: appearance(
        document,
        rect,
        `${INKS[note.kind].join(' ')} RG 2 w ${left + 1} ${bottom + 1} ${right - left - 2} ${top - bottom - 2} re S`,
      ),
    },
  });
}

function addText(document: PDFDocument, number: number, note: AnnotatedNote, rect: Rect): Mark {
  return added(document, number, rect, {
    ...common(note, noteLines(note)),
    ...{ Subtype: 'Text', Name: 'Comment', NM: PDFHexString.fromText(note.id) },
  });
}

function addReplies(document: PDFDocument, number: number, note: AnnotatedNote, { ref, rect }: Mark): void {
  for (const { id, by, words } of note.replies) {
    added(document, number, rect, {
      ...{ Type: 'Annot', Subtype: 'Text', F: PRINTED, RT: 'R', IRT: ref },
      ...{ T: PDFHexString.fromText(by), Contents: PDFHexString.fromText(words), NM: PDFHexString.fromText(id) },
    });
  }
}
