import { view, zeros, type ByteSource, type Patch } from './bytes.js';

const SEGMENT = 0x18538067;
const INFO = 0x1549a966;
const TRACKS = 0x1654ae6b;
const TRACK_ENTRY = 0xae;
const TRACK_TYPE = 0x83;
const CLUSTER = 0x1f43b675;
const BLOCK_GROUP = 0xa0;
const BLOCK = 0xa1;
const SIMPLE_BLOCK = 0xa3;
const CLUSTER_TIME = 0xe7;
const TIME_SCALE = 0x2ad7b1;
const DURATION = 0x4489;
const TAGS = 0x1254c367;
const ATTACHMENTS = 0x1941a469;
const TITLE = 0x7ba9;
const DATE = 0x4461;
const FILE_NAMES: ReadonlySet<number> = new Set([0x7384, 0x3c83ab, 0x3e83bb]);
const VOID = 0xec;

/** Elements whose content is walked too; all others are passed over. */
const ENTERED: ReadonlySet<number> = new Set([SEGMENT, INFO, TRACKS, TRACK_ENTRY, CLUSTER, BLOCK_GROUP]);

interface Element {
  readonly id: number;
  readonly at: number;
  readonly header: number;
  /** Of the content; null when the element does not say. */
  readonly size: number | null;
}

/**
 * WebM is Matroska (RFC 9559) in EBML (RFC 8794). A live recording does not say how long its parts are; walked flat, one
 * element after the other with the containers entered, that makes no difference.
 */
function* elements(source: ByteSource, enterClusters: boolean): Generator<Element> {
  for (let at = 0; at < source.size;) {
    const element = elementAt(source, at);
    if (element === null) return;
    yield element;
    const { id, header, size } = element;
    const entered = ENTERED.has(id) && (id !== CLUSTER || enterClusters || size === null);
    if (!entered && size === null) return;
    at += header + (entered ? 0 : (size as number));
  }
}

/** Tags, attachments, title, file names and date become Void elements of the same length. */
export function webmPatches(source: ByteSource): Patch[] {
  const patches: Patch[] = [];
  for (const { id, at, header, size } of elements(source, false)) {
    if (!isMetadata(id) || size === null || at + header + size > source.size) continue;
    patches.push(...voided(at, header + size));
  }
  return patches;
}

export interface WebmFacts {
  readonly hasVideo: boolean;
  readonly hasSound: boolean;
  /** Null when nothing tells. */
  readonly seconds: number | null;
}

/** What is in a file, and how long it plays: as it says itself, or else up to the last block. */
export function webmFacts(source: ByteSource): WebmFacts {
  const types = new Set<number>();
  // Nanoseconds of one tick, unless told otherwise (RFC 9559, section 5.1.2.9).
  let scale = 1_000_000;
  let duration: number | null = null;
  let cluster = 0;
  let last: number | null = null;
  for (const { id, at, header, size } of elements(source, true)) {
    const content = () => source.read(at + header, size ?? 0);
    if (id === TRACK_TYPE) types.add(unsigned(content()));
    else if (id === TIME_SCALE) scale = unsigned(content());
    else if (id === DURATION) duration = float(content());
    else if (id === CLUSTER_TIME) cluster = unsigned(content());
    else if (id === SIMPLE_BLOCK || id === BLOCK) {
      // After the number of the track: a signed time from the cluster's.
      const head = source.read(at + header, 12);
      const track = leading(head[0]);
      if (track > 0 && head.length >= track + 2) last = Math.max(last ?? 0, cluster + view(head).getInt16(track));
    }
  }
  const ticks = duration ?? last;
  return { hasVideo: types.has(1), hasSound: types.has(2), seconds: ticks === null ? null : (ticks * scale) / 1e9 };
}

function unsigned(bytes: Uint8Array): number {
  return bytes.reduce((sum, byte) => sum * 256 + byte, 0);
}

function float(bytes: Uint8Array): number | null {
  if (bytes.length === 4) return view(bytes).getFloat32(0);
  return bytes.length === 8 ? view(bytes).getFloat64(0) : null;
}

function isMetadata(id: number): boolean {
  return id === TAGS || id === ATTACHMENTS || id === TITLE || id === DATE || FILE_NAMES.has(id);
}

/** A Void element that takes exactly this many bytes, 2 or more. */
function voided(at: number, length: number): Patch[] {
  // The length of the length: one byte holds up to 126, eight hold more than any file.
  const short = length - 2 <= 126;
  const head = new Uint8Array(short ? 2 : 9);
  if (short) head[1] = 0x80 | (length - 2);
  else {
    view(head).setBigUint64(1, BigInt(length - 9));
    head[1] = 0x01;
  }
  head[0] = VOID;
  return [{ at, bytes: head }, ...zeros(at + head.length, length - head.length)];
}

function elementAt(source: ByteSource, at: number): Element | null {
  const head = source.read(at, 12);
  const idLength = leading(head[0]);
  if (idLength === 0 || idLength > 4) return null;
  const sizeLength = leading(head[idLength]);
  if (sizeLength === 0 || head.length < idLength + sizeLength) return null;
  const id = unsigned(head.subarray(0, idLength));
  let size = (head[idLength] as number) & (0xff >> sizeLength);
  let unknown = size === 0xff >> sizeLength;
  for (let index = 1; index < sizeLength; index += 1) {
    const byte = head[idLength + index] as number;
    unknown &&= byte === 0xff;
    size = size * 256 + byte;
  }
  return { id, at, header: idLength + sizeLength, size: unknown ? null : size };
}

/** Length of a variable-size integer: one more than its leading zero bits; 0 when there is none. */
function leading(first: number | undefined): number {
  return first === undefined || first === 0 ? 0 : Math.clz32(first) - 23;
}
