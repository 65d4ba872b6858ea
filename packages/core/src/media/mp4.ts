import { ascii, bytesOf, view, zeros, type ByteSource, type Patch } from './bytes.js';

interface Box {
  readonly at: number;
  readonly type: string;
  /** Of the whole box, header included. */
  readonly size: number;
  readonly header: number;
}

/** Boxes that hold boxes on the way to what is of interest. */
const CONTAINERS = new Set(['moov', 'trak', 'mdia', 'moof', 'traf']);
/** User data, tags, and private extensions (XMP among them). */
const METADATA = new Set(['udta', 'meta', 'uuid']);
/** Headers with the times of making and changing, which tell when somebody worked. */
const TIMED = new Set(['mvhd', 'tkhd', 'mdhd']);

/** ISO base media file format (ISO/IEC 14496-12, clause 4.2): metadata boxes become free space, times of making zero. */
export function mp4Patches(source: ByteSource): Patch[] {
  const patches: Patch[] = [];
  walk(source, 0, source.size, 0, patches);
  return patches;
}

function walk(source: ByteSource, from: number, to: number, depth: number, patches: Patch[]): void {
  let at = from;
  while (at + 8 <= to) {
    const box = boxAt(source, at, to);
    if (box === null) return;
    if (METADATA.has(box.type)) {
      patches.push({ at: box.at + 4, bytes: bytesOf('free') }, ...zeros(box.at + box.header, box.size - box.header));
    } else if (TIMED.has(box.type)) {
      const version = source.read(box.at + box.header, 1)[0];
      patches.push(...zeros(box.at + box.header + 4, version === 1 ? 16 : 8));
    } else if (CONTAINERS.has(box.type) && depth < 6) {
      walk(source, box.at + box.header, box.at + box.size, depth + 1, patches);
    }
    at += box.size;
  }
}

function boxAt(source: ByteSource, at: number, to: number): Box | null {
  const head = source.read(at, 16);
  if (head.length < 8) return null;
  const type = ascii(head, 4, 8);
  const short = view(head).getUint32(0);
  if (short === 0) return { at, type, size: to - at, header: 8 };
  if (short === 1) {
    if (head.length < 16) return null;
    const size = Number(view(head).getBigUint64(8));
    return size >= 16 && at + size <= to ? { at, type, size, header: 16 } : null;
  }
  return short >= 8 && at + short <= to ? { at, type, size: short, header: 8 } : null;
}
