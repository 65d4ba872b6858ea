import { ascii, view, zeros, type ByteSource, type Patch } from './bytes.js';

/** ID3v2 at the beginning becomes padding; ID3v1 and an APE tag at the end become zeros, which players skip. */
export function mp3Patches(source: ByteSource): Patch[] {
  const patches: Patch[] = [];
  const head = source.read(0, 10);
  if (head.length === 10 && ascii(head, 0, 3) === 'ID3') {
    // Four times seven bits ("synchsafe", ID3v2.4 structure, section 6.2).
    const size = head.subarray(6, 10).reduce((sum, byte) => sum * 128 + (byte & 0x7f), 0);
    // Flags: no extended header, no footer, nothing unsynchronised; all of it is padding.
    patches.push({ at: 5, bytes: new Uint8Array(1) }, ...zeros(10, Math.min(size, source.size - 10)));
  }
  let end = source.size;
  if (end >= 128 && ascii(source.read(end - 128, 3)) === 'TAG') {
    patches.push(...zeros(end - 128, 128));
    end -= 128;
  }
  const foot = source.read(end - 32, 32);
  if (end >= 32 && ascii(foot, 0, 8) === 'APETAGEX') {
    const size = view(foot).getUint32(12, true);
    const hasHeader = (view(foot).getUint32(20, true) & 0x80000000) !== 0;
    const from = end - size - (hasHeader ? 32 : 0);
    if (from >= 0) patches.push(...zeros(from, end - from));
  }
  return patches;
}
