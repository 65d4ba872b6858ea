/** Pictures inside of a PDF, as they are packed there, with nothing but what their pixels need. Lossless. */
export function barePicture(filter: string, bytes: Uint8Array): Uint8Array {
  if (filter === 'DCTDecode') return bareJpeg(bytes);
  if (filter === 'JPXDecode') return bareJpeg2000(bytes);
  if (filter === 'JBIG2Decode') return bareJbig2(bytes);
  return bytes;
}

const two = (bytes: Uint8Array, at: number) => ((bytes[at] ?? 0) << 8) | (bytes[at + 1] ?? 0);
const four = (bytes: Uint8Array, at: number) => two(bytes, at) * 65_536 + two(bytes, at + 2);
const joined = (parts: readonly Uint8Array[]) => Uint8Array.from(Buffer.concat(parts));

/** Markers that say how pixels are made (ITU-T T.81, table B.1): frames, tables, intervals; and Adobe's for their colours. */
function isNeeded(marker: number): boolean {
  const isFrameOrTable = marker >= 0xc0 && marker <= 0xcf && marker !== 0xc8;
  return isFrameOrTable || marker === 0xda || marker === 0xdb || marker === 0xdd || marker === 0xdc;
}

/** The marker, its length, and what Adobe writes into it: version, flags, transformation. */
const ADOBE = 16;

function bareJpeg(bytes: Uint8Array): Uint8Array {
  const kept: Uint8Array[] = [Uint8Array.of(0xff, 0xd8)];
  let at = 2;
  while (at + 4 <= bytes.length) {
    if (bytes[at] !== 0xff) {
      at += 1;
      continue;
    }
    const marker = bytes[at + 1] ?? 0;
    if (marker === 0xd9) break;
    if (marker === 0xff || marker === 0 || (marker >= 0xd0 && marker <= 0xd8) || marker === 1) {
      at += marker === 0xff ? 1 : 2;
      continue;
    }
    const end = at + 2 + two(bytes, at + 2);
    if (marker === 0xee && Buffer.from(bytes.subarray(at + 4, at + 9)).toString('latin1') === 'Adobe') {
      const part = Uint8Array.from(bytes.subarray(at, Math.min(end, at + ADOBE)));
      part.set([0, part.length - 2], 2);
      kept.push(part);
    } else if (isNeeded(marker)) kept.push(bytes.subarray(at, end));
    at = end;
    if (marker !== 0xda) continue;
    const from = at;
    while (at < bytes.length && !(bytes[at] === 0xff && bytes[at + 1] !== 0 && !isRestart(bytes[at + 1]))) at += 1;
    kept.push(bytes.subarray(from, at));
  }
  kept.push(Uint8Array.of(0xff, 0xd9));
  return joined(kept);
}

const isRestart = (marker: number | undefined) => marker !== undefined && marker >= 0xd0 && marker <= 0xd7;

/** Boxes of JPEG 2000 that pixels need (ITU-T T.800, annex I): signature, kind, head, and the stream of code. */
const BOXES = new Set(['jP  ', 'ftyp', 'jp2h', 'jp2c']);
const HEAD_BOXES = new Set(['ihdr', 'bpcc', 'colr', 'pclr', 'cmap', 'cdef']);

function bareJpeg2000(bytes: Uint8Array): Uint8Array {
  if (two(bytes, 0) === 0xff4f) return bareCode(bytes);
  return boxes(bytes, (kind, inside) => {
    if (!BOXES.has(kind)) return null;
    if (kind === 'jp2c') return bareCode(inside);
    return kind === 'jp2h' ? boxes(inside, (one, same) => (HEAD_BOXES.has(one) ? same : null)) : inside;
  });
}

function boxes(bytes: Uint8Array, choose: (kind: string, inside: Uint8Array) => Uint8Array | null): Uint8Array {
  const kept: Uint8Array[] = [];
  let at = 0;
  while (at + 8 <= bytes.length) {
    const said = four(bytes, at);
    const head = said === 1 ? 16 : 8;
    const length = said === 0 ? bytes.length - at : said === 1 ? four(bytes, at + 12) : said;
    if (length < head) break;
    const kind = Buffer.from(bytes.subarray(at + 4, at + 8)).toString('latin1');
    const chosen = choose(kind, bytes.subarray(at + head, at + length));
    if (chosen !== null) {
      const box = Buffer.alloc(8);
      box.writeUInt32BE(chosen.length + 8);
      box.write(kind, 4, 'latin1');
      kept.push(box, chosen);
    }
    at += length;
  }
  return joined(kept);
}

/** The stream of code without its comments (marker COM, annex A). */
function bareCode(bytes: Uint8Array): Uint8Array {
  const kept: Uint8Array[] = [bytes.subarray(0, 2)];
  let at = 2;
  while (at + 4 <= bytes.length) {
    const marker = two(bytes, at);
    // The tiles follow; their lengths are written in them, so they are taken as they are.
    if (marker === 0xff90) break;
    const end = at + 2 + two(bytes, at + 2);
    if (marker !== 0xff64) kept.push(bytes.subarray(at, end));
    at = end;
  }
  kept.push(bytes.subarray(at));
  return joined(kept);
}

/** Segments without remarks (ITU-T T.88, clause 7.3.1: type 62 is an extension). */
function bareJbig2(bytes: Uint8Array): Uint8Array {
  const kept: Uint8Array[] = [];
  let at = 0;
  while (at + 11 <= bytes.length) {
    const from = at;
    const number = four(bytes, at);
    const flags = bytes[at + 4] ?? 0;
    let count = (bytes[at + 5] ?? 0) >> 5;
    at += 6;
    if (count === 7) {
      count = four(bytes, at - 1) & 0x1fffffff;
      at += 3 + Math.ceil((count + 1) / 8);
    }
    at += count * (number <= 256 ? 1 : number <= 65_536 ? 2 : 4);
    at += (flags & 0x40) === 0 ? 1 : 4;
    const length = four(bytes, at);
    // Of unknown length, which only the last picture of a page may be.
    at = length === 0xffffffff ? bytes.length : at + 4 + length;
    if ((flags & 0x3f) !== 62) kept.push(bytes.subarray(from, Math.min(at, bytes.length)));
  }
  return kept.length === 0 ? bytes : joined(kept);
}
