/** Random access to a file, so that a film need not be held in memory. */
export interface ByteSource {
  /** Bytes. */
  readonly size: number;
  /** Up to `length` bytes from `at` on; fewer at the end of the file. */
  readonly read: (at: number, length: number) => Uint8Array;
}

/** Bytes to write over what is there. A patch never changes the length of a file, so that offsets in it stay true. */
export interface Patch {
  readonly at: number;
  readonly bytes: Uint8Array;
}

export function ascii(bytes: Uint8Array, from = 0, to = bytes.length): string {
  return String.fromCharCode(...bytes.subarray(from, to));
}

export function bytesOf(text: string): Uint8Array {
  return Uint8Array.from(text, (letter) => letter.charCodeAt(0));
}

export function view(bytes: Uint8Array): DataView {
  return new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
}

/** Zeros in pieces, so that blanking a large picture inside of a tag takes little memory. */
export function zeros(at: number, length: number): Patch[] {
  const PIECE = 1 << 20;
  const patches: Patch[] = [];
  for (let done = 0; done < length; done += PIECE) {
    patches.push({ at: at + done, bytes: new Uint8Array(Math.min(PIECE, length - done)) });
  }
  return patches;
}
