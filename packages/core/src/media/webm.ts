import { view, zeros, type ByteSource, type Patch } from './bytes.js';

const SEGMENT = 0x18538067;
const INFO = 0x1549a966;
const CLUSTER = 0x1f43b675;
const TAGS = 0x1254c367;
const ATTACHMENTS = 0x1941a469;
const TITLE = 0x7ba9;
const DATE = 0x4461;
const FILE_NAMES: ReadonlySet<number> = new Set([0x7384, 0x3c83ab, 0x3e83bb]);
const VOID = 0xec;

interface Element {
  readonly id: number;
  readonly at: number;
  readonly header: number;
  /** Of the content; null when the element does not say. */
  readonly size: number | null;
}

/**
 * WebM is Matroska (RFC 9559) in EBML (RFC 8794): tags, attachments, title, file names and date become Void elements of
 * the same length. A live recording does not say how long its parts are; it is walked until its first cluster.
 */
export function webmPatches(source: ByteSource): Patch[] {
  const patches: Patch[] = [];
  walk(source, 0, source.size, patches);
  return patches;
}

function walk(source: ByteSource, from: number, to: number, patches: Patch[]): void {
  let at = from;
  while (at < to) {
    const element = elementAt(source, at);
    if (element === null) return;
    const content = at + element.header;
    const end = element.size === null ? to : content + element.size;
    if (end > to) return;
    if (element.id === SEGMENT || element.id === INFO) walk(source, content, end, patches);
    else if (isMetadata(element.id)) patches.push(...voided(at, end - at));
    else if (element.id === CLUSTER && element.size === null) return;
    at = end;
  }
}

function isMetadata(id: number): boolean {
  return id === TAGS || id === ATTACHMENTS || id === TITLE || id === DATE || FILE_NAMES.has(id);
}

/** A Void element that takes exactly this many bytes, 2 or more. */
function voided(at: number, length: number): Patch[] {
  // The length of the length: one byte holds up to 126, eight hold more than any file.
  const short = length - 2 <= 126;
  const head = new Uint8Array(short ? 2 : 9);
  head[0] = VOID;
  if (short) head[1] = 0x80 | (length - 2);
  else {
    view(head).setBigUint64(1, BigInt(length - 9));
    head[1] = 0x01;
  }
  return [{ at, bytes: head }, ...zeros(at + head.length, length - head.length)];
}

function elementAt(source: ByteSource, at: number): Element | null {
  const head = source.read(at, 12);
  const idLength = leading(head[0]);
  if (idLength === 0 || idLength > 4) return null;
  const sizeLength = leading(head[idLength]);
  if (sizeLength === 0 || head.length < idLength + sizeLength) return null;
  let id = 0;
  for (let index = 0; index < idLength; index += 1) id = id * 256 + (head[index] as number);
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
