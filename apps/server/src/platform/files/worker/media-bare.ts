/**
 * What is left of a track's packets and of the description that its decoder needs, when everything is taken out that is not
 * sound or picture. Lengths are in bytes.
 */

type Description = AllowSharedBufferSource | undefined;

/** How the packets of a track are taken over, and what its decoder is told. */
export interface BareTrack {
  readonly description?: Uint8Array;
  readonly packet: (data: Uint8Array) => Uint8Array;
}

const asItIs = (data: Uint8Array) => data;

/**
 * Without what encoders and cameras write beside: comments of Vorbis, blocks of FLAC, metadata units of AV1, and units of H.264 and
 * H.265 that are neither picture nor needed to show it.
 *
 * @throws Error for a description, and by `packet` for a packet, that is not built as its codec says
 */
export function bareTrack(codec: string, given: Description): BareTrack {
  if (codec === 'avc' || codec === 'hevc') return bareUnits(codec, given);
  if (given === undefined) return { packet: asItIs };
  const bytes = bytesOf(given);
  if (codec === 'vorbis') return { description: withoutComment(bytes), packet: asItIs };
  // Marker, then the block STREAMINFO of 34 bytes with its head of 4 (RFC 9639, clause 8.1), marked as the last.
  if (codec === 'flac') return { description: streamInfo(bytes), packet: asItIs };
  // Sequence headers are repeated in the stream (AV1 in ISO base media, clause 2.3.3): the four fixed bytes are enough.
  if (codec === 'av1') return { description: bytes.slice(0, 4), packet: asItIs };
  return { description: bytes, packet: asItIs };
}

function bytesOf(given: AllowSharedBufferSource): Uint8Array {
  return ArrayBuffer.isView(given)
    ? new Uint8Array(given.buffer, given.byteOffset, given.byteLength)
    : new Uint8Array(given);
}

/** Three packets behind their lengths, laced as Xiph does (Matroska, codec mapping of A_VORBIS); the second is the comment. */
function withoutComment(bytes: Uint8Array): Uint8Array {
  let at = 1;
  const lengths = [0, 0].map(() => {
    let length = 0;
    for (; bytes[at] === 255; at += 1) length += 255;
    length += bytes[at] ?? 0;
    at += 1;
    return length;
  });
  const [first = 0, second = 0] = lengths;
  const head = bytes.subarray(at, at + first);
  const setup = bytes.subarray(at + first + second);
  // Type 3, "vorbis", no vendor, no comments, framing bit (Vorbis I, clause 5.2).
  const comment = [3, ...Buffer.from('vorbis'), 0, 0, 0, 0, 0, 0, 0, 0, 1];
  const laced = (length: number) => [...new Array<number>(Math.floor(length / 255)).fill(255), length % 255];
  return Uint8Array.from([2, ...laced(head.length), ...laced(comment.length), ...head, ...comment, ...setup]);
}

function streamInfo(bytes: Uint8Array): Uint8Array {
  const begin = Buffer.from(bytes.subarray(0, 4)).toString('latin1') === 'fLaC' ? 4 : 0;
  const block = bytes.slice(begin, begin + 38);
  block[0] = 0x80;
  return Uint8Array.from([...Buffer.from('fLaC'), ...block]);
}

/** Slices, their parameters, and what separates pictures (ITU-T H.264, table 7-1; H.265, table 7-1): no filling, nothing unspecified. */
const UNITS = {
  avc: new Set([1, 2, 3, 4, 5, 7, 8, 9, 10, 11, 13, 14, 15, 19, 20]),
  hevc: new Set([0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 16, 17, 18, 19, 20, 21, 32, 33, 34, 35, 36, 37]),
} as const;
/** Messages beside the picture: buffering, timing, points to begin at, packing, turning, and the range of colours (annexes D). */
const MESSAGES = new Set([0, 1, 6, 45, 47, 129, 130, 137, 144, 147]);
/** Profiles of H.264 whose description goes on behind the parameters (ISO/IEC 14496-15, clause 5.3.3.1). */
const HIGH = new Set([100, 110, 122, 144]);

type Units = keyof typeof UNITS;

function bareUnits(codec: Units, given: Description): BareTrack {
  if (given === undefined) throw new Error('a film does not say how it is packed');
  const description = Buffer.from(bytesOf(given));
  const width = ((description[codec === 'avc' ? 4 : 21] ?? 0) & 3) + 1;
  return {
    description: Uint8Array.from(codec === 'avc' ? bareAvc(description) : bareHevc(description)),
    packet: (data) => bareUnitsOf(codec, data, width),
  };
}

/** Parts behind lengths of `width` bytes, from `at` on. @throws RangeError where one does not end */
function* lengthed(bytes: Buffer, at: number, width: number, most = Infinity): Generator<{ from: number; to: number }> {
  for (let count = 0; count < most && at < bytes.length; count += 1) {
    const from = at + width;
    const to = from + bytes.readUIntBE(at, width);
    if (to > bytes.length) throw new RangeError('a unit does not end');
    yield { from, to };
    at = to;
  }
}

function bareUnitsOf(codec: Units, data: Uint8Array, width: number): Uint8Array {
  const bytes = Buffer.from(data.buffer, data.byteOffset, data.byteLength);
  const kept: Buffer[] = [];
  for (const { from, to } of lengthed(bytes, 0, width)) {
    if (isNeeded(codec, bytes.subarray(from, to))) kept.push(bytes.subarray(from - width, to));
  }
  return Uint8Array.from(Buffer.concat(kept));
}

function isNeeded(codec: Units, unit: Buffer): boolean {
  const head = unit[0] ?? 0;
  const type = codec === 'avc' ? head & 0x1f : (head >> 1) & 0x3f;
  const isMessage = codec === 'avc' ? type === 6 : type === 39 || type === 40;
  if (!isMessage) return UNITS[codec].has(type);
  return messagesIn(unit.subarray(codec === 'avc' ? 1 : 2)).every((one) => MESSAGES.has(one));
}

/** Kinds of the messages of one unit (H.264, clause 7.3.2.3.1): kind and size are each a run of 255 and a last byte. */
function messagesIn(escaped: Buffer): number[] {
  const bytes = unescaped(escaped);
  const kinds: number[] = [];
  let at = 0;
  const value = () => {
    let sum = 0;
    for (; bytes[at] === 255; at += 1) sum += 255;
    sum += bytes[at] ?? 0;
    at += 1;
    return sum;
  };
  // A single set bit ends the unit.
  while (at < bytes.length && !(at === bytes.length - 1 && bytes[at] === 0x80)) {
    kinds.push(value());
    at += value();
  }
  return kinds;
}

/** Without the 3 that stands behind two zeros, so that they begin no other unit. */
function unescaped(bytes: Buffer): number[] {
  const plain: number[] = [];
  let zeros = 0;
  for (const byte of bytes) {
    if (zeros >= 2 && byte === 3) {
      zeros = 0;
      continue;
    }
    plain.push(byte);
    zeros = byte === 0 ? zeros + 1 : 0;
  }
  return plain;
}

/** Head, parameters of sequences and of pictures, and four bytes with further ones behind them (ISO/IEC 14496-15, clause 5.3.3.1). */
function bareAvc(bytes: Buffer): Buffer {
  let end = 6;
  const pass = (count: number) => {
    for (const { to } of lengthed(bytes, end, 2, count)) end = to;
  };
  pass((bytes[5] ?? 0) & 0x1f);
  const pictures = bytes[end] ?? 0;
  end += 1;
  pass(pictures);
  if (HIGH.has(bytes[1] ?? 0) && end + 4 <= bytes.length) {
    const further = bytes[end + 3] ?? 0;
    end += 4;
    pass(further);
  }
  return bytes.subarray(0, end);
}

/** Head of 22 bytes, then arrays of units by type, of which parameters stay (ISO/IEC 14496-15, clause 8.3.3.1). */
function bareHevc(bytes: Buffer): Buffer {
  const kept: Buffer[] = [];
  let at = 23;
  for (let count = bytes[22] ?? 0; count > 0; count -= 1) {
    const begin = at;
    let end = at + 3;
    for (const { to } of lengthed(bytes, end, 2, bytes.readUInt16BE(at + 1))) end = to;
    const type = (bytes[begin] ?? 0) & 0x3f;
    if (type >= 32 && type <= 34) kept.push(bytes.subarray(begin, end));
    at = end;
  }
  return Buffer.concat([bytes.subarray(0, 22), Buffer.from([kept.length]), ...kept]);
}
