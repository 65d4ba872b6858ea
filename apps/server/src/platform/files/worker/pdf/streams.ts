import { constants, deflateSync, inflateSync } from 'node:zlib';
import {
  decodePDFRawStream,
  PDFArray,
  PDFDict,
  PDFName,
  PDFNumber,
  PDFRawStream,
  PDFStream,
  type PDFObject,
} from '@cantoo/pdf-lib';
import { entriesOf, number, type Copying, type Shape } from './shapes.js';

/** Bytes of a picture or a table of numbers, unpacked: more than any camera's. */
const MOST_DATA = 300_000_000;
/** Bytes of a drawing, a function or a table of signs, unpacked: a page has some hundred thousand, a map some millions. */
export const MOST_WORDS = 32_000_000;
/** Bytes. */
const PIECE = 1 << 20;
/** Filters of pictures, which are not undone. */
const PICTURES = new Set(['DCTDecode', 'JPXDecode', 'JBIG2Decode', 'CCITTFaxDecode']);
const SHORT: Readonly<Record<string, string>> = {
  DCT: 'DCTDecode',
  CCF: 'CCITTFaxDecode',
  Fl: 'FlateDecode',
  LZW: 'LZWDecode',
  A85: 'ASCII85Decode',
  AHx: 'ASCIIHexDecode',
  RL: 'RunLengthDecode',
};

interface Filter {
  readonly name: string;
  readonly parms: PDFDict | undefined;
}

/** A stream without its filters, or with the one that is left because it is a picture's. */
export interface Unpacked {
  readonly bytes: Uint8Array;
  readonly dict: PDFDict;
  readonly picture: Filter | null;
  /** Of rows that say how they differ from the one above; null for none. */
  readonly predictor: PDFDict | null;
}

/**
 * @param most bytes that it may have unpacked
 * @throws Error for what cannot be undone, or has more
 */
export function unpacked(stream: PDFStream, most: number = MOST_DATA): Unpacked {
  const { dict } = stream;
  const filters = filtersOf(dict);
  let bytes: Uint8Array = stream.getContents();
  let predictor: PDFDict | null = null;
  for (const [index, filter] of filters.entries()) {
    if (PICTURES.has(filter.name)) {
      if (index !== filters.length - 1) throw new Error('a picture is packed twice');
      return { bytes, dict, picture: filter, predictor: null };
    }
    if (predictor !== null) bytes = unpredicted(bytes, predictor);
    bytes = undone(bytes, filter, most);
    predictor = isPredicted(filter.parms) ? (filter.parms ?? null) : null;
  }
  return { bytes, dict, picture: null, predictor };
}

/** The plain bytes, whatever they were packed with. @throws Error for pictures, and what cannot be undone */
export function plainBytes(stream: PDFStream, most: number = MOST_DATA): Uint8Array {
  const { bytes, picture, predictor } = unpacked(stream, most);
  if (picture !== null) throw new Error('a picture stands where words should be');
  return predictor === null ? bytes : unpredicted(bytes, predictor);
}

function filtersOf(dict: PDFDict): Filter[] {
  const filter = dict.lookup(PDFName.of('Filter')) ?? dict.lookup(PDFName.of('F'));
  const parms = dict.lookup(PDFName.of('DecodeParms')) ?? dict.lookup(PDFName.of('DP'));
  const names = filter instanceof PDFArray ? filter.asArray().map((_, at) => filter.lookup(at)) : [filter];
  return names.flatMap((one, at) => {
    if (!(one instanceof PDFName)) return [];
    const own = parms instanceof PDFArray ? parms.lookup(at) : parms;
    const name = one.decodeText();
    return [{ name: SHORT[name] ?? name, parms: own instanceof PDFDict ? own : undefined }];
  });
}

function undone(bytes: Uint8Array, { name, parms }: Filter, most: number): Uint8Array {
  if (name === 'Crypt') return bytes;
  if (name === 'FlateDecode') {
    try {
      return inflateSync(bytes, { finishFlush: constants.Z_SYNC_FLUSH, maxOutputLength: most });
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code === 'ERR_BUFFER_TOO_LARGE') throw error;
      // Damaged at its end, as readers forgive.
    }
  }
  const dict = PDFDict.withContext((parms ?? PDFDict.withContext({} as never)).context);
  dict.set(PDFName.of('Filter'), PDFName.of(name));
  if (parms !== undefined) dict.set(PDFName.of('DecodeParms'), parms);
  // Piece by piece: room for all of it would be taken at once otherwise.
  const decoding = decodePDFRawStream(PDFRawStream.of(dict, bytes));
  const parts: Uint8Array[] = [];
  let length = 0;
  for (let part = decoding.getBytes(PIECE); part.length > 0; part = decoding.getBytes(PIECE)) {
    length += part.length;
    if (length > most) throw new Error('a stream has more bytes than any of its kind');
    parts.push(Uint8Array.from(part));
  }
  return Buffer.concat(parts);
}

function value(parms: PDFDict | undefined, key: string, otherwise: number): number {
  const found = parms?.lookup(PDFName.of(key));
  return found instanceof PDFNumber ? found.asNumber() : otherwise;
}

function isPredicted(parms: PDFDict | undefined): boolean {
  return value(parms, 'Predictor', 1) > 1;
}

/** Undoes the differences between rows: of PNG (RFC 2083, clause 6), and of TIFF for whole bytes. */
function unpredicted(bytes: Uint8Array, parms: PDFDict): Uint8Array {
  const colours = value(parms, 'Colors', 1);
  const bits = value(parms, 'BitsPerComponent', 8);
  const step = Math.max(1, (colours * bits) >> 3);
  const row = Math.ceil((value(parms, 'Columns', 1) * colours * bits) / 8);
  if (value(parms, 'Predictor', 1) === 2) {
    if (bits !== 8) throw new Error('rows of this kind are not known');
    const out = Uint8Array.from(bytes);
    for (let at = 0; at < out.length; at += 1)
      if (at % row >= step) out[at] = ((out[at] ?? 0) + (out[at - step] ?? 0)) & 255;
    return out;
  }
  const rows = Math.ceil(bytes.length / (row + 1));
  const out = new Uint8Array(rows * row);
  for (let y = 0; y < rows; y += 1) {
    const kind = bytes[y * (row + 1)] ?? 0;
    for (let x = 0; x < row; x += 1) {
      const at = y * row + x;
      const left = x >= step ? (out[at - step] ?? 0) : 0;
      const up = y > 0 ? (out[at - row] ?? 0) : 0;
      const corner = x >= step && y > 0 ? (out[at - row - step] ?? 0) : 0;
      out[at] = ((bytes[y * (row + 1) + 1 + x] ?? 0) + guess(kind, left, up, corner)) & 255;
    }
  }
  return out;
}

function guess(kind: number, left: number, up: number, corner: number): number {
  if (kind === 1) return left;
  if (kind === 2) return up;
  if (kind === 3) return (left + up) >> 1;
  if (kind !== 4) return 0;
  const [byLeft, byUp, byCorner] = [Math.abs(up - corner), Math.abs(left - corner), Math.abs(left + up - 2 * corner)];
  if (byLeft <= byUp && byLeft <= byCorner) return left;
  return byUp <= byCorner ? up : corner;
}

/** A stream of the copy: its entries, and its bytes packed anew, so that nothing is left behind them. */
export function streamFrom(
  copy: Copying,
  dict: PDFDict,
  plain: Uint8Array,
  predictor: PDFDict | null = null,
): PDFRawStream {
  dict.set(PDFName.of('Filter'), PDFName.of('FlateDecode'));
  if (predictor !== null) dict.set(PDFName.of('DecodeParms'), entriesOf(predictor, copy, PREDICTOR));
  return PDFRawStream.of(dict, deflateSync(plain));
}

const PREDICTOR = { Predictor: number, Colors: number, BitsPerComponent: number, Columns: number } as const;

/** A stream of these entries, whose bytes mean numbers and are taken over as they are. */
export function dataOf(
  keys: Readonly<Record<string, Shape>>,
  clean: (bytes: Uint8Array) => Uint8Array = (same) => same,
): Shape {
  return (object, copy) => {
    if (!(object instanceof PDFStream)) return undefined;
    return streamFrom(copy, entriesOf(object.dict, copy, keys), clean(plainBytes(object)));
  };
}

/** A stream of these entries, whose bytes are words of a small language and are written anew. */
export function wordsOf(
  keys: Readonly<Record<string, Shape>>,
  write: (bytes: Uint8Array, copy: Copying, dict: PDFDict) => Uint8Array,
): Shape {
  return (object: PDFObject, copy) => {
    if (!(object instanceof PDFStream)) return undefined;
    const dict = entriesOf(object.dict, copy, keys);
    return streamFrom(copy, dict, write(plainBytes(object, MOST_WORDS), copy, object.dict));
  };
}
