/** Programs of letters inside of a PDF, without what they say of their makers. Sizes and offsets are bytes. */

const two = (bytes: Buffer, at: number) => (at + 2 <= bytes.length ? bytes.readUInt16BE(at) : 0);
const four = (bytes: Buffer, at: number) => (at + 4 <= bytes.length ? bytes.readUInt32BE(at) : 0);

/** Tables that draw letters (ISO/IEC 14496-22, clause 5); names, notices and signatures are in others. */
const TABLES = new Set([
  'cmap',
  'cvt ',
  'fpgm',
  'gasp',
  'glyf',
  'head',
  'hhea',
  'hmtx',
  'kern',
  'loca',
  'maxp',
  'OS/2',
  'prep',
  'vhea',
  'vmtx',
  'VORG',
  'CFF ',
]);

/** TrueType or OpenType with the tables above; what is neither is taken for compact letters. */
export function bareOpenType(source: Uint8Array): Uint8Array {
  const bytes = Buffer.from(source);
  const kind = bytes.subarray(0, 4).toString('latin1');
  if (!['\0\x01\0\0', 'true', 'OTTO'].includes(kind)) return bareCompact(bytes);
  const kept: Array<{ readonly tag: string; readonly bytes: Buffer }> = [];
  // Tables stand beside each other; a font in which they lie over each other could grow without end.
  let room = bytes.length;
  for (let index = 0; index < two(bytes, 4); index += 1) {
    const at = 12 + index * 16;
    const tag = bytes.subarray(at, at + 4).toString('latin1');
    const from = four(bytes, at + 8);
    const table = bytes.subarray(from, from + four(bytes, at + 12));
    room -= table.length;
    if (room < 0) throw new Error('tables of letters lie over each other');
    if (TABLES.has(tag))
      kept.push({ tag, bytes: tag === 'CFF ' ? bareCompact(table) : tag === 'head' ? timeless(table) : table });
    // Names of letters can be anybody's: version 3 has none.
    else if (tag === 'post') kept.push({ tag, bytes: withoutNames(table) });
  }
  const head = Buffer.alloc(12 + kept.length * 16);
  bytes.copy(head, 0, 0, 4);
  const power = Math.floor(Math.log2(Math.max(1, kept.length)));
  head.writeUInt16BE(kept.length, 4);
  head.writeUInt16BE(2 ** power * 16, 6);
  head.writeUInt16BE(power, 8);
  head.writeUInt16BE(kept.length * 16 - 2 ** power * 16, 10);
  const parts: Buffer[] = [head];
  let from = head.length;
  for (const [index, { tag, bytes: table }] of kept.entries()) {
    const padded = Buffer.concat([table, Buffer.alloc((4 - (table.length % 4)) % 4)]);
    const at = 12 + index * 16;
    head.write(tag, at, 'latin1');
    head.writeUInt32BE(checksum(padded), at + 4);
    head.writeUInt32BE(from, at + 8);
    head.writeUInt32BE(table.length, at + 12);
    parts.push(padded);
    from += padded.length;
  }
  return Buffer.concat(parts);
}

function checksum(table: Buffer): number {
  let sum = 0;
  for (let at = 0; at < table.length; at += 4) sum = (sum + table.readUInt32BE(at)) >>> 0;
  return sum;
}

/** When the letters were made and changed stands at 20 and 28 of the head, 8 bytes each. */
function timeless(head: Buffer): Buffer {
  const copy = Buffer.from(head);
  copy.fill(0, 20, Math.min(36, copy.length));
  return copy;
}

function withoutNames(post: Buffer): Buffer {
  const copy = Buffer.from(post.subarray(0, 32));
  if (copy.length >= 4 && two(post, 0) === 2) copy.writeUInt32BE(0x00030000, 0);
  return copy;
}

interface Index {
  readonly items: ReadonlyArray<readonly [from: number, to: number]>;
  readonly end: number;
}

/** An INDEX of compact letters (Adobe Technical Note 5176, clause 5). */
function indexAt(bytes: Buffer, at: number): Index {
  const count = two(bytes, at);
  if (count === 0) return { items: [], end: at + 2 };
  const size = bytes[at + 2] ?? 1;
  const offset = (nth: number) => (size < 1 || size > 4 ? 1 : bytes.readUIntBE(at + 3 + nth * size, size));
  const data = at + 3 + (count + 1) * size - 1;
  const items = Array.from({ length: count }, (_, nth) => [data + offset(nth), data + offset(nth + 1)] as const);
  return { items, end: data + offset(count) };
}

/** Strings of the top dictionary that are words: version, notice, names, weight; copyright, PostScript, base font. */
const WORDS = new Set([0, 1, 2, 3, 4, 1200, 1221, 1222, 1238]);
const STANDARD_STRINGS = 391;

/** Compact letters (CFF) with their names and notices overwritten in place, so that no offset moves. @throws RangeError */
export function bareCompact(source: Uint8Array): Buffer {
  const bytes = Buffer.from(source);
  const names = indexAt(bytes, bytes[2] ?? 4);
  for (const [from, to] of names.items) bytes.fill('R', from, to);
  const tops = indexAt(bytes, names.end);
  const strings = indexAt(bytes, tops.end);
  for (const [from, to] of tops.items) {
    for (const { operator, operands } of dictAt(bytes, from, to)) {
      const item = WORDS.has(operator) ? strings.items[(operands[0] ?? 0) - STANDARD_STRINGS] : undefined;
      if (item !== undefined) bytes.fill('R', item[0], item[1]);
    }
  }
  return bytes;
}

/** Operators of a dictionary with what stands before them (clause 4); two-byte ones from 1200 on. */
function dictAt(bytes: Buffer, from: number, to: number): Array<{ operator: number; operands: number[] }> {
  const entries: Array<{ operator: number; operands: number[] }> = [];
  let operands: number[] = [];
  for (let at = from; at < to;) {
    const code = bytes[at] ?? 0;
    if (code <= 21) {
      const operator = code === 12 ? 1200 + (bytes[at + 1] ?? 0) : code;
      entries.push({ operator, operands });
      operands = [];
      at += code === 12 ? 2 : 1;
    } else if (code === 28) {
      operands.push(two(bytes, at + 1));
      at += 3;
    } else if (code === 29) {
      operands.push(four(bytes, at + 1));
      at += 5;
    } else if (code === 30) {
      at += 1;
      while (at < to && (bytes[at] ?? 0xff) % 16 !== 15) at += 1;
      at += 1;
      operands.push(NaN);
    } else if (code >= 247) {
      const next = bytes[at + 1] ?? 0;
      operands.push(code <= 250 ? (code - 247) * 256 + next + 108 : -(code - 251) * 256 - next - 108);
      at += 2;
    } else {
      operands.push(code - 139);
      at += 1;
    }
  }
  return entries;
}

/** The part before the letters: what readers need of it, and no more (Adobe Type 1 Font Format, clause 2.2). */
function bareType1Head(text: string): string {
  const matrix = /\/FontMatrix\s*\[([-\d.eE\s]+)\]/.exec(text)?.[1] ?? '0.001 0 0 0.001 0 0';
  const box = /\/FontBBox\s*[{[]([-\d.\s]+)[}\]]/.exec(text)?.[1] ?? '0 0 0 0';
  const own = [...text.matchAll(/\bdup\s+(\d{1,3})\s*\/([\w.]{1,63})\s+put\b/g)];
  const encoding = /\/Encoding\s+StandardEncoding/.test(text)
    ? '/Encoding StandardEncoding def'
    : `/Encoding 256 array\n0 1 255 {1 index exch /.notdef put} for\n${own.map(([, code, name]) => `dup ${code} /${name} put`).join('\n')}\nreadonly def`;
  return [
    '%!PS-AdobeFont-1.0: R 001.000',
    '11 dict begin',
    '/FontName /R def',
    '/PaintType 0 def',
    '/FontType 1 def',
    `/FontMatrix [${matrix}] readonly def`,
    encoding,
    `/FontBBox {${box}} readonly def`,
    'currentdict end',
    'currentfile eexec\n',
  ].join('\n');
}

const ZEROS = 512;
const isSpace = (code: number | undefined) => code === 9 || code === 10 || code === 13 || code === 32;

/** A program in the older form: its open part anew, its closed part as it is, and the usual end. */
export function bareType1(source: Uint8Array): {
  readonly bytes: Uint8Array;
  readonly open: number;
  readonly closed: number;
} {
  const plain = unframed(Buffer.from(source));
  const marker = plain.indexOf('eexec');
  if (marker < 0) throw new Error('letters of an unknown kind');
  let from = marker + 5;
  while (isSpace(plain[from])) from += 1;
  const head = Buffer.from(bareType1Head(plain.subarray(0, marker).toString('latin1')), 'latin1');
  // Zeros and a word to end with, after which anything could stand.
  const tail = plain.lastIndexOf('cleartomark');
  let to = tail < 0 ? plain.length : tail;
  for (
    let zeros = tail < 0 ? ZEROS : 0;
    zeros < ZEROS && to > from && (plain[to - 1] === 48 || isSpace(plain[to - 1]));
    to -= 1
  )
    if (plain[to - 1] === 48) zeros += 1;
  const closed = plain.subarray(from, to);
  const end = Buffer.from(`\n${`${'0'.repeat(64)}\n`.repeat(8)}cleartomark\n`, 'latin1');
  return { bytes: Buffer.concat([head, closed, end]), open: head.length, closed: closed.length };
}

/** Some programs leave the frames of a file around the parts: 0x80, kind, length in four bytes, least first. */
function unframed(bytes: Buffer): Buffer {
  if (bytes[0] !== 0x80) return bytes;
  const parts: Buffer[] = [];
  for (let at = 0; bytes[at] === 0x80 && (bytes[at + 1] ?? 3) < 3 && at + 6 <= bytes.length;) {
    const length = bytes.readUInt32LE(at + 2);
    parts.push(bytes.subarray(at + 6, at + 6 + length));
    at += 6 + length;
  }
  return Buffer.concat(parts);
}
