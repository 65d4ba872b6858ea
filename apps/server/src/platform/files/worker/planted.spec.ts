import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { PDF_PLACES, plantedPdf, sayingsOf, wordOf } from '../../../testing/planted-pdf.js';
import { sample } from '../../../testing/uploads.js';
import { inspect } from './inspect.js';
import { bareTrack } from './media-bare.js';
import { convertFile } from './worker.js';
import { MessageChannel } from 'node:worker_threads';

let folder: string;
beforeEach(async () => {
  folder = await mkdtemp(join(tmpdir(), 'planted-'));
});
afterEach(() => rm(folder, { recursive: true, force: true }));

/** As a file that was handed in goes through: looked at, then copied. */
async function copied(name: string, bytes: Uint8Array) {
  const path = join(folder, name);
  await writeFile(path, bytes);
  const { mime } = await inspect(path, name);
  const { port1, port2 } = new MessageChannel();
  const answer = await convertFile({ path, mime, folder, port: port2 });
  port1.close();
  if (!('done' in answer)) throw new Error(answer.refused.sentence);
  const { copyFile, copyHtml = '' } = answer.done;
  return {
    ...answer.done,
    copy: copyFile === undefined ? Buffer.from(copyHtml) : await readFile(join(folder, copyFile)),
  };
}

const PLANT = /Sekrit\d+/g;
const planted = (bytes: Uint8Array) => new Set(Buffer.from(bytes).toString('latin1').match(PLANT) ?? []);

// Written by FFmpeg 5.1 and ExifTool 12.57 (scripts/make-planted.mjs); how many words each has, by a search of its bytes.
const FILES: ReadonlyArray<readonly [name: string, words: number, what: string]> = [
  ['planted.mp4', 18, 'handlers, chapters, a track of words, user data of pictures, XMP, Keys, free boxes'],
  ['planted.mov', 17, 'the same in QuickTime'],
  ['planted.webm', 8, 'names of tracks, chapters, tags, comment inside of the description of the sound'],
  ['planted.mp3', 9, 'ID3 of both kinds, APE, words between them'],
  ['planted.ogg', 4, 'comments of Vorbis'],
  ['planted.opus', 4, 'comments of Opus'],
  ['chained.ogg', 5, 'comments of a second stream'],
  ['planted.wav', 9, 'INFO, broadcast extension, DISP, iXML, XMP, ID3'],
  ['planted.jpg', 10, 'Exif, XMP, IPTC, comment, bytes behind the end'],
  ['planted.png', 10, 'Exif, XMP, texts, bytes behind the end'],
  ['planted.webp', 7, 'Exif, XMP'],
];

describe('a word planted wherever a file can say who made it', () => {
  it.each(FILES)('%s has %i of them, and its copy none (%s)', async (name, words) => {
    const original = sample(`planted/${name}`);
    expect(planted(original).size).toBe(words);
    const { copy } = await copied(name, original);
    expect(copy.length).toBeGreaterThan(original.length * 0.1);
    expect([...planted(copy)]).toEqual([]);
  });

  it('H.264: messages for programs go wherever they stand, filling and units of no known kind too', () => {
    const unit = (width: number, ...bytes: number[]) => [
      ...new Array<number>(width - 1).fill(0),
      bytes.length,
      ...bytes,
    ];
    const secret = [...Buffer.from('Sekrit1')];
    // Width of lengths, one set of parameters each, and words behind the end.
    const description = (width: number) =>
      Uint8Array.of(1, 66, 0, 30, 0xfc | (width - 1), 0xe1, 0, 2, 0x67, 1, 1, 0, 1, 0x68, ...secret);
    for (const width of [1, 2, 4]) {
      const timing = unit(width, 0x06, 1, 1, 0, 0x80);
      const picture = unit(width, 0x65, 7, 7);
      const track = bareTrack('avc', description(width));
      const packet = track.packet(
        Uint8Array.from([
          ...timing,
          ...unit(width, 0x06, 1, 1, 0, 5, secret.length, ...secret, 0x80),
          ...unit(width, 0x06, 0, 1, 3, 255, 0, 0, 0x80),
          ...unit(width, 0x0c, ...secret),
          ...unit(width, 0x1e, ...secret),
          ...picture,
        ]),
      );
      expect([...packet]).toEqual([...timing, ...picture]);
      expect([...planted(track.description ?? new Uint8Array())]).toEqual([]);
      expect(() => track.packet(Uint8Array.of(0, 0, 0, 200, 1))).toThrow();
    }
  });

  it('says no time of its making: MP4 has the same bytes whenever it is copied', async () => {
    const first = (await copied('a.mp4', sample('planted/planted.mp4'))).copy;
    await new Promise((go) => setTimeout(go, 1_100));
    expect((await copied('b.mp4', sample('planted/planted.mp4'))).copy.equals(first)).toBe(true);
  });

  it.each(['flac.ogg', 'speex.ogg'])('%s is not taken: no copy could be made of it', async (name) => {
    await writeFile(join(folder, name), sample(`planted/${name}`));
    await expect(inspect(join(folder, name), name)).rejects.toThrow(/cannot be (played|reviewed)|nothing to play/);
  });

  it('PDF: at sixty places and more, and its copy has none', async () => {
    expect(PDF_PLACES.length).toBeGreaterThanOrEqual(60);
    const original = await plantedPdf();
    const said = await sayingsOf(original);
    expect(PDF_PLACES.filter((place) => !said.includes(wordOf(place)))).toEqual([]);
    const { copy, copyText, metadata } = await copied('planted.pdf', original);
    const left = await sayingsOf(copy);
    expect(PDF_PLACES.filter((place) => left.includes(wordOf(place)))).toEqual([]);
    expect(left).not.toMatch(/sekrit/i);
    expect(copyText).toContain('Seen on the page.');
    expect(left).toContain('https://example.org/gauge');
    // What the author is told of, so that it can be looked for.
    const told = metadata.map(({ value }) => value).join('\n');
    for (const place of [
      'Info Author',
      'remark Contents',
      'field T',
      'signature Name',
      'layer Name',
      'link to a mailbox',
    ] as const)
      expect(told).toContain(wordOf(place));
  });

  const documents: Array<[string, Record<string, (xml: string) => string>]> = [
    [
      'report.docx',
      {
        'docProps/core.xml': (xml) =>
          xml
            .replace(/<dc:title>[^<]*|<dc:title\/>/, '<dc:title>Sekrit1')
            .replace(/<\/cp:coreProperties>/, '<cp:category>Sekrit2</cp:category></cp:coreProperties>'),
        'word/document.xml': (xml) =>
          xml
            .replace(
              /(<w:body>)/,
              '$1<w:p><w:bookmarkStart w:id="77" w:name="Sekrit3"/><w:hyperlink w:anchor="Sekrit3"><w:r><w:t>up</w:t></w:r></w:hyperlink></w:p>',
            )
            .replace(/(<w:body>)/, '$1<w:p><w:r><w:rPr><w:vanish/></w:rPr><w:t>seen</w:t></w:r><!-- Sekrit4 --></w:p>')
            .replace(/<w:ins /, '<w:ins w:initials="Sekrit5" '),
        'customXml/item1.xml': () => '<a>Sekrit6</a>',
        'docProps/custom.xml': () =>
          '<Properties><property name="Sekrit7"><vt:lpwstr>Sekrit8</vt:lpwstr></property></Properties>',
      },
    ],
    [
      'report.odt',
      {
        'meta.xml': (xml) =>
          xml.replace(
            /<\/office:meta>/,
            '<meta:user-defined meta:name="Sekrit1">Sekrit2</meta:user-defined></office:meta>',
          ),
        'content.xml': (xml) =>
          xml
            .replace(
              /<office:text[^>]*>/,
              '$&<text:p><text:bookmark text:name="Sekrit3"/><text:a xlink:href="#Sekrit3" office:name="Sekrit4">up</text:a></text:p>',
            )
            .replace(/<office:annotation /, '<office:annotation office:name="Sekrit5" '),
        'settings.xml': () => '<office:document-settings>Sekrit6</office:document-settings>',
      },
    ],
  ];
  it.each(documents)('%s: properties, bookmarks, remarks, parts of programs', async (name, plants) => {
    const members = unzipSync(sample(name));
    for (const [member, plant] of Object.entries(plants)) {
      const old = members[member];
      members[member] = strToU8(plant(old === undefined ? '' : strFromU8(old)));
    }
    const all = Object.values(members)
      .map((bytes) => strFromU8(bytes, true))
      .join('\n');
    expect(new Set(all.match(PLANT)).size).toBeGreaterThanOrEqual(6);
    const { copy, metadata } = await copied(name, zipSync(members));
    expect(copy.toString('utf8')).toContain('The eastern basin');
    expect([...planted(copy)]).toEqual([]);
    expect(metadata.map(({ value }) => value)).toEqual(expect.arrayContaining(['Sekrit3']));
  });
});
