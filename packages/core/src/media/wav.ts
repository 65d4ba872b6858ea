import { ascii, bytesOf, view, zeros, type ByteSource, type Patch } from './bytes.js';

const METADATA = new Set(['LIST', 'bext', 'iXML', 'axml', '_PMX', 'id3 ', 'ID3 ', 'cart', 'aXML']);

/** RIFF/WAVE: chunks that describe become JUNK, which readers pass over. */
export function wavPatches(source: ByteSource): Patch[] {
  const patches: Patch[] = [];
  for (let at = 12; at + 8 <= source.size;) {
    const head = source.read(at, 8);
    const size = view(head).getUint32(4, true);
    if (METADATA.has(ascii(head, 0, 4))) {
      patches.push({ at, bytes: bytesOf('JUNK') }, ...zeros(at + 8, Math.min(size, source.size - at - 8)));
    }
    // Chunks begin at even places.
    at += 8 + size + (size % 2);
  }
  return patches;
}
