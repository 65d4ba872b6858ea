import { ascii, view, type ByteSource, type Patch } from './bytes.js';

interface Page {
  readonly at: number;
  readonly bytes: Uint8Array;
  /** Where the content begins. */
  readonly header: number;
  readonly lengths: readonly number[];
}

/** RFC 3533, section 6: polynomial 0x04c11db7, no reflection, begins at 0. */
const CRC_TABLE = Uint32Array.from({ length: 256 }, (_, byte) => {
  let value = byte << 24;
  for (let bit = 0; bit < 8; bit += 1) value = value & 0x80000000 ? (value << 1) ^ 0x04c11db7 : value << 1;
  return value >>> 0;
});

function crc(bytes: Uint8Array): number {
  let value = 0;
  for (const byte of bytes) value = ((value << 8) ^ (CRC_TABLE[((value >>> 24) ^ byte) & 0xff] as number)) >>> 0;
  return value;
}

/**
 * Ogg (RFC 3533) with Vorbis or Opus (RFC 7845): the comment packet keeps its length, but says nothing: its vendor
 * string is made of spaces and it has no comments. Pages that were touched get their checksum anew.
 */
export function oggPatches(source: ByteSource): Patch[] {
  const pages: Page[] = [];
  const places: Array<readonly [page: Page, at: number]> = [];
  let packet = 0;
  for (let at = 0; packet < 2;) {
    const page = pageAt(source, at);
    if (page === null) return [];
    pages.push(page);
    let content = page.header;
    for (const length of page.lengths) {
      if (packet === 1) for (let index = 0; index < length; index += 1) places.push([page, content + index]);
      content += length;
      // A lacing value below 255 ends a packet.
      if (length < 255) packet += 1;
      if (packet === 2) break;
    }
    at += page.bytes.length;
    if (pages.length > 10_000) return [];
  }
  return blanked(places);
}

function blanked(places: ReadonlyArray<readonly [page: Page, at: number]>): Patch[] {
  const magic = places
    .slice(0, 8)
    .map(([page, at]) => String.fromCharCode(page.bytes[at] as number))
    .join('');
  const opus = magic === 'OpusTags';
  if (!opus && magic.slice(1, 7) !== 'vorbis') return [];
  const begin = opus ? 8 : 7;
  // Vorbis has a framing bit after the comments.
  const vendor = places.length - begin - 8 - (opus ? 0 : 1);
  if (vendor < 0) return [];
  const set = (index: number, value: number) => {
    const [page, at] = places[index] as readonly [Page, number];
    page.bytes[at] = value;
  };
  const number = (index: number, value: number) => {
    for (let byte = 0; byte < 4; byte += 1) set(index + byte, (value >>> (8 * byte)) & 0xff);
  };
  number(begin, vendor);
  for (let index = 0; index < vendor; index += 1) set(begin + 4 + index, 0x20);
  number(begin + 4 + vendor, 0);
  if (!opus) set(places.length - 1, 1);
  return [...new Set(places.map(([page]) => page))].map(({ at, bytes }) => {
    view(bytes).setUint32(22, 0, true);
    view(bytes).setUint32(22, crc(bytes), true);
    return { at, bytes };
  });
}

function pageAt(source: ByteSource, at: number): Page | null {
  const head = source.read(at, 27);
  if (head.length < 27 || ascii(head, 0, 4) !== 'OggS') return null;
  const lengths = [...source.read(at + 27, head[26] as number)];
  const content = lengths.reduce((sum, one) => sum + one, 0);
  const header = 27 + lengths.length;
  const bytes = Uint8Array.from(source.read(at, header + content));
  return bytes.length === header + content ? { at, bytes, header, lengths } : null;
}
