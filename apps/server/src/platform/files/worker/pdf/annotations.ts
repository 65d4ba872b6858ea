import {
  PDFArray,
  PDFDict,
  PDFHexString,
  PDFName,
  PDFNumber,
  PDFStream,
  PDFString,
  type PDFObject,
} from '@cantoo/pdf-lib';
import { drawable } from './page-shapes.js';
import type { Copying } from './shapes.js';

const key = (name: string) => PDFName.of(name);

/** Flags of an annotation that keep it from being seen (ISO 32000-2, table 167): hidden, and not viewed. */
const UNSEEN = 2 | 32;
/** They are not drawn themselves: links become links again, the others only open something. */
const UNDRAWN = new Set(['Link', 'Popup', 'FileAttachment', 'Movie', 'Sound', 'Screen', '3D', 'RichMedia', 'TrapNet']);

/** What lies on a page besides its drawing. */
export interface OnPage {
  /** Operators that draw what is seen of it, and what they call by name. */
  readonly drawing: string;
  readonly drawn: ReadonlyMap<string, PDFObject>;
  readonly links: readonly PDFDict[];
  /** Kinds that have words or marks that could not be drawn. */
  readonly undrawn: readonly string[];
}

/** Annotations are drawn into the page: form fields as they are filled in, remarks as they are seen. */
export function onPage(
  annotations: PDFArray | undefined,
  copy: Copying,
  link: (annotation: PDFDict) => PDFDict | undefined,
): OnPage {
  const drawn = new Map<string, PDFObject>();
  const links: PDFDict[] = [];
  const undrawn: string[] = [];
  let drawing = '';
  for (let index = 0; index < (annotations?.size() ?? 0); index += 1) {
    const annotation = annotations?.lookup(index);
    if (!(annotation instanceof PDFDict) || (numberOf(annotation, 'F') & UNSEEN) !== 0) continue;
    const kind = nameOf(annotation, 'Subtype');
    if (kind === 'Link') {
      const made = link(annotation);
      if (made !== undefined) links.push(made);
    }
    if (UNDRAWN.has(kind)) continue;
    const form = appearanceOf(annotation);
    const place = form === undefined ? null : placed(form.stream, rectOf(annotation, 'Rect'));
    if (form === undefined || place === null) {
      const plain = plainMark(kind, annotation);
      drawing += plain ?? '';
      if (plain === null) undrawn.push(kind);
      continue;
    }
    const name = copy.renamed(`annotation ${copy.to.largestObjectNumber} ${index}`);
    const made = copy.take(form.given, drawable);
    if (made === undefined) continue;
    drawn.set(name, made);
    drawing += `q ${place.join(' ')} cm /${name} Do Q\n`;
  }
  return { drawing, drawn, links, undrawn };
}

function nameOf(dict: PDFDict, name: string): string {
  const found = dict.lookup(key(name));
  return found instanceof PDFName ? found.decodeText() : '';
}

function numberOf(dict: PDFDict, name: string): number {
  const found = dict.lookup(key(name));
  return found instanceof PDFNumber ? found.asNumber() : 0;
}

function numbersOf(dict: PDFDict, name: string): number[] {
  const found = dict.lookup(key(name));
  if (!(found instanceof PDFArray)) return [];
  return found.asArray().flatMap((_, index) => {
    const one = found.lookup(index);
    return one instanceof PDFNumber ? [one.asNumber()] : [];
  });
}

type Box = readonly [left: number, bottom: number, right: number, top: number];

function rectOf(dict: PDFDict, name: string): Box | null {
  const [a, b, c, d] = numbersOf(dict, name);
  if (a === undefined || b === undefined || c === undefined || d === undefined) return null;
  return [Math.min(a, c), Math.min(b, d), Math.max(a, c), Math.max(b, d)];
}

/** The normal appearance, of the state that it is in. */
function appearanceOf(annotation: PDFDict): { readonly given: PDFObject; readonly stream: PDFStream } | undefined {
  const appearances = annotation.lookup(key('AP'));
  if (!(appearances instanceof PDFDict)) return undefined;
  const normal = appearances.lookup(key('N'));
  const holder = normal instanceof PDFDict ? normal : appearances;
  const name = normal instanceof PDFDict ? key(nameOf(annotation, 'AS') || 'Off') : key('N');
  const stream = holder.lookup(name);
  const given = holder.get(name);
  return stream instanceof PDFStream && given !== undefined ? { given, stream } : undefined;
}

/** How an appearance is moved and stretched into its rectangle (ISO 32000-2, clause 12.5.5, algorithm 1). */
function placed({ dict }: PDFStream, rect: Box | null): readonly string[] | null {
  const box = rectOf(dict, 'BBox');
  if (box === null || rect === null) return null;
  const [a = 1, b = 0, c = 0, d = 1, e = 0, f = 0] = numbersOf(dict, 'Matrix');
  const corners = [
    [box[0], box[1]],
    [box[2], box[1]],
    [box[0], box[3]],
    [box[2], box[3]],
  ].map(([x = 0, y = 0]) => [a * x + c * y + e, b * x + d * y + f] as const);
  const xs = corners.map(([x]) => x);
  const ys = corners.map(([, y]) => y);
  const [left, bottom] = [Math.min(...xs), Math.min(...ys)];
  const [width, height] = [Math.max(...xs) - left, Math.max(...ys) - bottom];
  if (width === 0 || height === 0) return null;
  const [sx, sy] = [(rect[2] - rect[0]) / width, (rect[3] - rect[1]) / height];
  return [sx, 0, 0, sy, rect[0] - left * sx, rect[1] - bottom * sy].map(told);
}

const told = (value: number) => String(Number(value.toFixed(5)));

/** Marks that readers draw by themselves where no appearance comes with them; null for kinds that are not drawn here. */
function plainMark(kind: string, annotation: PDFDict): string | null {
  const [red = 1, green = 0.8, blue = 0] = numbersOf(annotation, 'C');
  const colour = `${told(red)} ${told(green)} ${told(blue)}`;
  const quads = numbersOf(annotation, 'QuadPoints');
  const lines = (from: (quad: readonly number[]) => readonly number[]) => {
    let drawn = `q ${colour} RG 1 w\n`;
    for (let at = 0; at + 8 <= quads.length; at += 8) {
      const [x1 = 0, y1 = 0, x2 = 0, y2 = 0] = from(quads.slice(at, at + 8));
      drawn += `${told(x1)} ${told(y1)} m ${told(x2)} ${told(y2)} l S\n`;
    }
    return `${drawn}Q\n`;
  };
  switch (kind) {
    case 'Widget':
      return fieldIsEmpty(annotation) ? '' : null;
    case 'Highlight':
    case 'Underline':
    case 'Squiggly':
      // A fill would cover the words; a line under them says the same.
      return lines(([, , , , x3 = 0, y3 = 0, x4 = 0, y4 = 0]) => [x3, y3, x4, y4]);
    case 'StrikeOut':
      return lines(([x1 = 0, y1 = 0, x2 = 0, y2 = 0, x3 = 0, y3 = 0, x4 = 0, y4 = 0]) => [
        (x1 + x3) / 2,
        (y1 + y3) / 2,
        (x2 + x4) / 2,
        (y2 + y4) / 2,
      ]);
    case 'Square': {
      const rect = rectOf(annotation, 'Rect');
      if (rect === null) return '';
      const size = [rect[0], rect[1], rect[2] - rect[0], rect[3] - rect[1]].map(told).join(' ');
      return `q ${colour} RG 1 w ${size} re S Q\n`;
    }
    case 'Ink': {
      const list = annotation.lookup(key('InkList'));
      if (!(list instanceof PDFArray)) return '';
      const strokes = list.asArray().map((_, index) => stroke(list.lookup(index)));
      return `q ${colour} RG 1 w\n${strokes.join('')}Q\n`;
    }
    default:
      return null;
  }
}

function stroke(points: PDFObject | undefined): string {
  if (!(points instanceof PDFArray)) return '';
  const values = points.asArray().flatMap((one) => (one instanceof PDFNumber ? [told(one.asNumber())] : []));
  let drawn = '';
  for (let at = 0; at + 2 <= values.length; at += 2)
    drawn += `${values[at]} ${values[at + 1]} ${at === 0 ? 'm' : 'l'}\n`;
  return `${drawn}S\n`;
}

function fieldIsEmpty(field: PDFDict): boolean {
  const value = field.lookup(key('V'));
  const words = value instanceof PDFString || value instanceof PDFHexString ? value.decodeText().trim() : '';
  return words === '' && nameOf(field, 'AS') !== 'Yes';
}
