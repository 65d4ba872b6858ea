import type { ByteSource, Patch } from './bytes.js';
import { mediaPatches, type MediaContainer } from './mediaPatches.js';
import { webmFacts } from './webm.js';

const source = (bytes: Uint8Array): ByteSource => ({
  size: bytes.length,
  read: (at, length) => bytes.slice(at, at + Math.max(0, length)),
});

/** The file after the patches, and that none of them changed its length or lies outside of it. */
function patched(container: MediaContainer, bytes: Uint8Array): Uint8Array {
  const result = Uint8Array.from(bytes);
  const patches: Patch[] = mediaPatches(container, source(bytes));
  for (const { at, bytes: next } of patches) {
    expect(at).toBeGreaterThanOrEqual(0);
    expect(at + next.length).toBeLessThanOrEqual(bytes.length);
    result.set(next, at);
  }
  // Patching what is patched changes nothing more.
  const again = Uint8Array.from(result);
  for (const { at, bytes: next } of mediaPatches(container, source(result))) again.set(next, at);
  expect(again).toEqual(result);
  return result;
}

const text = (words: string) => Uint8Array.from(words, (letter) => letter.charCodeAt(0));
const join = (...parts: ReadonlyArray<Uint8Array | number[] | string>) =>
  Uint8Array.from(parts.flatMap((part) => [...(typeof part === 'string' ? text(part) : part)]));
const big = (value: number, length: number) =>
  Array.from({ length }, (_, index) => Math.floor(value / 256 ** (length - 1 - index)) % 256);
const little = (value: number, length: number) => big(value, length).reverse();
const words = (bytes: Uint8Array) => String.fromCharCode(...bytes);

describe('MP4 (ISO/IEC 14496-12, clause 4.2: size, type, content)', () => {
  const box = (type: string, ...content: ReadonlyArray<Uint8Array | number[] | string>) => {
    const inside = join(...content);
    return join(big(inside.length + 8, 4), type, inside);
  };
  const header = box('mvhd', [0, 0, 0, 0], big(3_900_000_000, 4), big(3_900_000_001, 4), 'duration');

  it('makes user data free space and the times of making zero, and leaves the rest', () => {
    const film = join(
      box('ftyp', 'isom'),
      box('moov', header, box('trak', box('tkhd', [1, 0, 0, 0], big(7, 8), big(8, 8), 'rest')), box('udta', 'by Ann')),
      box('uuid', 'Ann in XMP'),
      box('mdat', 'Ann is said in the sound'),
    );
    const result = patched('mp4', film);
    expect(words(result)).not.toContain('by Ann');
    expect(words(result)).not.toContain('XMP');
    expect(words(result)).toContain('Ann is said in the sound');
    expect(words(result).match(/free/g)).toHaveLength(2);
    expect(words(result)).toContain('duration');
    expect(words(result)).toContain('rest');
    const at = words(result).indexOf('mvhd') + 8;
    expect([...result.slice(at, at + 8)]).toEqual(Array(8).fill(0));
  });

  it('reads boxes with a long size, and one that goes on to the end', () => {
    const long = join(big(1, 4), 'udta', big(16 + 6, 8), 'by Ann');
    const open = join(big(0, 4), 'meta', 'by Ann again');
    const result = words(patched('mp4', join(box('ftyp', 'isom'), long, open)));
    expect(result).not.toContain('Ann');
  });

  it.each([
    ['nothing', new Uint8Array()],
    ['half a header', text('abc')],
    ['a box longer than the file', join(big(99_999, 4), 'moov', 'x')],
    ['a box of no length', join(big(4, 4), 'moov', 'x')],
  ])('makes no patch outside of %s', (_, bytes) => {
    expect(patched('mp4', bytes)).toEqual(bytes);
  });
});

describe('WebM (RFC 9559 in EBML, RFC 8794)', () => {
  const HEAD = [0x1a, 0x45, 0xdf, 0xa3];
  const SEGMENT = [0x18, 0x53, 0x80, 0x67];
  const INFO = [0x15, 0x49, 0xa9, 0x66];
  const TAGS = [0x12, 0x54, 0xc3, 0x67];
  const CLUSTER = [0x1f, 0x43, 0xb6, 0x75];
  const UNKNOWN = [0x01, 0xff, 0xff, 0xff, 0xff, 0xff, 0xff, 0xff];
  const element = (id: number[], ...content: ReadonlyArray<Uint8Array | number[] | string>) => {
    const inside = join(...content);
    return join(id, [0x80 | inside.length], inside);
  };
  const tracks = (...types: number[]) =>
    element([0x16, 0x54, 0xae, 0x6b], ...types.map((type) => element([0xae], element([0x83], [type]))));
  const block = (time: number) => element([0xa3], [0x81], big(time, 2), [0x80], 'Ann');
  const live = join(
    element(HEAD, 'webm'),
    join(SEGMENT, UNKNOWN),
    element(INFO, element([0x7b, 0xa9], 'Talk of Ann'), element([0x2a, 0xd7, 0xb1], big(1_000_000, 3))),
    tracks(2),
    join(CLUSTER, UNKNOWN),
    element([0xe7], big(1_000, 2)),
    block(0),
    block(740),
    join(CLUSTER, UNKNOWN),
    element([0xe7], big(2_000, 2)),
    block(500),
  );

  it('makes tags and titles Void of the same length, also where nothing says how long it is', () => {
    const whole = join(
      element(HEAD, 'webm'),
      element(SEGMENT, element(INFO, element([0x7b, 0xa9], 'Talk of Ann')), tracks(1), element(TAGS, 'by Ann')),
    );
    for (const film of [whole, live]) {
      const result = patched('webm', film);
      expect(words(result)).not.toMatch(/Talk of Ann|by Ann/);
      expect(result.length).toBe(film.length);
    }
    // What is in a block is sound, whatever it spells.
    expect(words(patched('webm', live))).toContain('Ann');
  });

  it('voids what is longer than 128 bytes with a long length', () => {
    const tags = join(TAGS, [0x40 | 1, 0x2c], 'x'.repeat(300));
    const result = patched('webm', join(element(HEAD, 'webm'), join(SEGMENT, UNKNOWN), tags));
    expect(words(result)).not.toContain('xx');
    const at = result.length - tags.length;
    // Void, and a length of eight bytes: 306 less nine of its own.
    expect([...result.slice(at, at + 9)]).toEqual([0xec, 0x01, ...big(306 - 9, 7)]);
  });

  it('tells what is in it and how long it plays: as it says, or up to the last block', () => {
    expect(webmFacts(source(live))).toEqual({ hasVideo: false, hasSound: true, seconds: 2.5 });
    const float = new Uint8Array(8);
    new DataView(float.buffer).setFloat64(0, 90_000);
    const said = join(
      element(HEAD, 'webm'),
      element(SEGMENT, element(INFO, element([0x44, 0x89], float)), tracks(1, 2)),
    );
    expect(webmFacts(source(said))).toEqual({ hasVideo: true, hasSound: true, seconds: 90 });
    expect(webmFacts(source(text('no film')))).toEqual({ hasVideo: false, hasSound: false, seconds: null });
  });
});

describe('MP3', () => {
  const sound = [0xff, 0xfb, 0x90, 0x64, 1, 2, 3];
  const v1 = join('TAG', 'Talk of Ann'.padEnd(125, '\0'));

  it('makes ID3v2 padding, and ID3v1 and APE zeros', () => {
    // Size in four times seven bits: 0x01 0x05 is 133.
    const v2 = join('ID3', [4, 0, 0x80, 0, 0, 1, 5], 'by Ann'.padEnd(133, 'n'));
    const ape = join(
      'by Ann in APE',
      'APETAGEX',
      little(2000, 4),
      little(32 + 13, 4),
      little(1, 4),
      little(0, 4),
      Array(8).fill(0),
    );
    const result = patched('mp3', join(v2, sound, ape, v1));
    expect(words(result)).not.toContain('Ann');
    expect([...result.slice(0, 10)]).toEqual([...text('ID3'), 4, 0, 0, 0, 0, 1, 5]);
    expect([...result.slice(v2.length, v2.length + sound.length)]).toEqual(sound);
  });

  it('leaves a sound without tags as it is', () => {
    expect(patched('mp3', Uint8Array.from(sound))).toEqual(Uint8Array.from(sound));
  });
});

describe('WAV', () => {
  const chunk = (name: string, content: string) =>
    join(name, little(content.length, 4), content, content.length % 2 ? [0] : []);

  it('makes descriptions JUNK, chunks of odd length included', () => {
    const wave = join(
      'RIFF',
      little(0, 4),
      'WAVE',
      chunk('fmt ', 'x'.repeat(16)),
      chunk('LIST', 'by Ann!'),
      chunk('data', 'Ann'),
      chunk('bext', 'Ann'),
    );
    const result = words(patched('wav', wave));
    expect(result.match(/JUNK/g)).toHaveLength(2);
    expect(result).toContain('dataAnn'.replace('data', `data${String.fromCharCode(3, 0, 0, 0)}`));
    expect(result).not.toContain('by Ann!');
  });

  it('stops at the end of a file that was cut off', () => {
    const cut = join('RIFF', little(0, 4), 'WAVE', 'LIST', little(500, 4), 'by Ann');
    expect(words(patched('wav', cut))).not.toContain('Ann');
  });
});

describe('Ogg (RFC 3533)', () => {
  /** A page without a checksum: what is touched gets one. */
  const page = (content: Uint8Array, lengths: number[]) =>
    join(
      'OggS',
      [0, 2],
      Array(8).fill(0),
      little(7, 4),
      little(0, 4),
      little(0, 4),
      [lengths.length],
      lengths,
      content,
    );

  it('blanks the comments of Opus over several pages, and keeps their length', () => {
    const vendor = join(little(3, 4), 'enc');
    const comment = `ARTIST=Ann${'n'.repeat(300)}`;
    const tags = join('OpusTags', vendor, little(1, 4), little(comment.length, 4), comment);
    const first = page(text('OpusHead'), [8]);
    const second = page(tags.slice(0, 255), [255]);
    const third = page(tags.slice(255), [tags.length - 255]);
    const result = patched('ogg', join(first, second, third, page(text('sound of Ann'), [12])));
    expect(words(result)).not.toContain('ARTIST');
    expect(words(result)).toContain('sound of Ann');
    // The first page was not touched: it still has no checksum; the others have got theirs.
    const checksum = (at: number) => [...result.slice(at + 22, at + 26)].some((byte) => byte !== 0);
    expect([0, first.length, first.length + second.length].map(checksum)).toEqual([false, true, true]);
  });

  it('leaves what is neither Vorbis nor Opus, and what is cut off', () => {
    const other = join(page(text('fishead'), [7]), page(text('Ann'), [3]));
    expect(patched('ogg', other)).toEqual(other);
    const cut = page(text('OpusHead'), [8]).slice(0, 30);
    expect(patched('ogg', cut)).toEqual(cut);
  });
});
