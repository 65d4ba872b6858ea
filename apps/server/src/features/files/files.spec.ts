import { createHash } from 'node:crypto';
import { existsSync, readdirSync } from 'node:fs';
import type { MyDraftView, PartView } from '@salt-circle/contracts';
import ExifReader from 'exifreader';
import { zipSync } from 'fflate';
import { PDFDocument } from '@cantoo/pdf-lib';
import { countWords } from '@salt-circle/core';
import request from 'supertest';
import { htmlToText } from '../../platform/html/html-to-text.js';
import { allocateAll, handInSaved, write } from '../../testing/acts.js';
import { ANN, BEN, CHO, INES, OUT } from '../../testing/people.js';
import { AT } from '../../testing/plan.js';
import { World } from '../../testing/world.js';
import { attach, attached, begin, exchangeOfFiles, sample, send } from '../../testing/uploads.js';
import { Cleaner } from './cleaner.js';
import { FilePicture, StoredFile } from '../../model/stored-file.js';
import { FileStore } from '../../platform/files/file-store.js';

let world: World;
let id: string;
beforeAll(async () => {
  world = await World.open();
  id = await exchangeOfFiles(world);
});
afterAll(() => world.close());

const files = (name: string, bytes = sample(name)) => ({ exchangeId: id, deliverableId: 'files', name, bytes });
const stored = (part: PartView) => world.database.read.findOneByOrFail(StoredFile, { digest: part.digest as string });
const mine = async () => (await world.do<MyDraftView>(ANN, 'get', `/exchanges/${id}/draft`)).parts;
const clear = async () => {
  for (const part of await mine()) await world.do(ANN, 'delete', `/exchanges/${id}/draft/parts/${part.id}`);
};
afterEach(clear);

const fetched = (person: number, path: string, headers: Record<string, string> = {}) =>
  world.file(person, `/exchanges/${id}${path}`, headers);

/** Words alone: programs differ in marks of lists, notes and tables, not in what was written. */
const words = (text: string) => text.match(/\p{L}[\p{L}’']+/gu) ?? [];

describe('reading copies', () => {
  // Text of the same document as LibreOffice 7.4 writes it (Text, UTF-8), and as pdftotext of Poppler 22.12 reads it.
  const documents: Array<[string, string, string[]]> = [
    ['report.docx', 'report.txt', []],
    ['report.odt', 'report.txt', []],
    ['report.pdf', 'report.pdf.txt', []],
  ];
  it.each(documents)('of %s say what the document says', async (name, reference) => {
    const part = await attached(world, ANN, files(name));
    const { copyHtml, copyText, copyState, facts } = await stored(part);
    expect(copyState).toBe('ready');
    const text = copyHtml === null ? (copyText ?? '') : htmlToText(copyHtml);
    // Footnotes stand at the end of the copy, and not at all in LibreOffice's text.
    const told = words(reference === 'report.txt' ? text.replace('Read from the gauge at the sluice.', '') : text);
    const wanted = words(sample(reference).toString('utf8'));
    expect(wanted.length).toBeGreaterThan(35);
    expect(told.filter((word) => (wanted as string[]).includes(word)).sort()).toEqual([...wanted].sort());
    expect(text).toContain('Read from the gauge at the sluice.');
    expect(facts.words).toBe(countWords(text));
    // Remarks are no part of the text.
    expect(text).not.toContain('Ask the warden');
  });

  it.each(['report.docx', 'report.odt'])(
    'of %s keep headings, lists, tables, pictures, notes and links',
    async (name) => {
      const { copyHtml, digest } = await stored(await attached(world, ANN, files(name)));
      const pictures = await world.database.read.findBy(FilePicture, { fileDigest: digest });
      for (const tag of [
        '<h1>',
        '<h2>',
        '<ol><li>',
        '<ul><li>',
        '<td>',
        '<strong>rose</strong>',
        '<em>four</em>',
        '<sup>',
      ]) {
        expect(copyHtml).toContain(tag);
      }
      expect(copyHtml).toContain('href="https://example.org/gauge"');
      expect(copyHtml).toMatch(/<a href="#[\w-]+"[^>]*>\[?1\]?<\/a>/);
      expect(copyHtml).toContain(`<img src="picture:${pictures[0]?.digest}"`);
      expect(world.app.get(FileStore).has(pictures[0]?.digest ?? '')).toBe(true);
    },
  );

  it('of text in UTF-16, or with the quotes of Windows-1252, are texts with all their signs', async () => {
    const text = '“Zoë” – 5 €';
    const ansi = Buffer.from([0x93, 0x5a, 0x6f, 0xeb, 0x94, 0x20, 0x96, 0x20, 0x35, 0x20, 0x80]);
    for (const bytes of [
      Buffer.from(`\uFEFF${text}`, 'utf16le'),
      Buffer.from(`\uFEFF${text}`, 'utf16le').swap16(),
      ansi,
    ]) {
      expect((await stored(await attached(world, ANN, files('notes.txt', bytes)))).copyHtml).toBe(`<p>${text}</p>`);
    }
  });

  it('of Markdown and plain text are made of their own marks', async () => {
    const markdown =
      '# Basin\n\nThe *bed* rose.[^1]\n\n- one\n\n<script>x()</script>\n\n![x](https://evil.example/x.png)\n\n[^1]: Read.';
    const one = await stored(await attached(world, ANN, files('notes.md', Buffer.from(markdown))));
    expect(one.copyHtml).toContain('<h1>Basin</h1>');
    expect(one.copyHtml).toContain('<em>bed</em>');
    expect(one.copyHtml).not.toMatch(/<script|evil/);
    const latin = await stored(
      await attached(world, ANN, files('old.txt', Buffer.from('M\xfcller <b>\n\nzwei', 'latin1'))),
    );
    expect(latin.copyHtml).toBe('<p>Müller &lt;b&gt;</p><p>zwei</p>');
  });

  const media: Array<[string, string, number]> = [
    ['talk.mp4', 'video/mp4', 2],
    ['talk.webm', 'video/webm', 2],
    ['talk-sound.webm', 'audio/webm', 2],
    ['talk.mp3', 'audio/mpeg', 2],
    ['talk.ogg', 'audio/ogg', 2],
    ['talk.opus', 'audio/ogg', 2],
    ['talk.wav', 'audio/wav', 2],
  ];
  it.each(media)('of %s play as before, and say nothing of who made them', async (name, mime, seconds) => {
    const part = await attached(world, ANN, files(name));
    const file = await stored(part);
    expect([file.mime, file.metadata.some(({ value }) => value.includes('Adjoa Mensah'))]).toEqual([mime, true]);
    expect(Math.abs((file.facts.seconds ?? 0) - seconds)).toBeLessThan(0.3);
    const copy = await fetched(ANN, `/drafts/${await draftId()}/parts/${part.id}/copy`);
    expect(sample(name).toString('latin1')).toContain('Adjoa');
    expect((copy.body as Buffer).toString('latin1')).not.toMatch(/Adjoa|Mensah/);
    expect((copy.body as Buffer).length).toBeGreaterThan(sample(name).length * 0.8);
    // A general reader of media still finds the same stream in it.
    const { parseBuffer } = await import('music-metadata');
    const read = await parseBuffer(copy.body as Buffer, { mimeType: mime }, { duration: true });
    const before = await parseBuffer(sample(name), { mimeType: mime }, { duration: true });
    expect(read.format.codec).toBe(before.format.codec);
    expect(read.format.duration).toBeCloseTo(before.format.duration ?? 0, 1);
    expect([read.common.title, read.common.artist]).toEqual([undefined, undefined]);
  });

  // As a browser records: without lengths, and without a duration.
  it.each(['live-audio.webm', 'live-video.webm'])('of %s, a live recording, know how long it plays', async (name) => {
    const { facts, family, copyState } = await stored(await attached(world, ANN, files(name)));
    expect([family, copyState]).toEqual([name.slice(5, 10), 'ready']);
    expect(Math.abs((facts.seconds ?? 0) - 2)).toBeLessThan(0.3);
  });

  it.each(['picture.jpg', 'picture.png', 'picture.webp'])(
    'of %s are the same picture without its data',
    async (name) => {
      const part = await attached(world, ANN, files(name));
      const { facts, metadata } = await stored(part);
      expect(facts).toMatchObject({ width: 64, height: 48 });
      expect(metadata.map(({ value }) => value)).toContain('Adjoa Mensah');
      const copy = await fetched(ANN, `/drafts/${await draftId()}/parts/${part.id}/copy`);
      // A general reader finds the size and nothing that anybody wrote.
      const { exif, iptc, xmp } = ExifReader.load(copy.body as Buffer, { expanded: true });
      expect([exif, iptc, xmp]).toEqual([undefined, undefined, undefined]);
      expect((copy.body as Buffer).toString('latin1')).not.toMatch(/Adjoa|Mensah/);
    },
  );

  it('of a PDF have its pages, and no properties, XMP or remarks of anybody', async () => {
    const part = await attached(world, ANN, files('report.pdf'));
    const { metadata, facts } = await stored(part);
    expect(metadata.map(({ value }) => value)).toContain('Adjoa Mensah');
    expect(facts.pages).toBe(1);
    const copy = await fetched(ANN, `/drafts/${await draftId()}/parts/${part.id}/copy`);
    const pdf = await PDFDocument.load(copy.body as Buffer, { updateMetadata: false });
    expect([pdf.getPageCount(), pdf.getAuthor(), pdf.getTitle(), pdf.getProducer()]).toEqual([
      1,
      undefined,
      undefined,
      undefined,
    ]);
    expect((copy.body as Buffer).toString('latin1')).not.toMatch(/x:xmpmeta|Adjoa/);
  });
});

async function draftId(): Promise<string> {
  return (await world.do<MyDraftView>(ANN, 'get', `/exchanges/${id}/draft`)).id as string;
}

describe('what is handed in', () => {
  it('stays byte for byte, with the digest that sha256sum gives', async () => {
    const part = await attached(world, ANN, files('report.docx'));
    expect(part.digest).toBe(createHash('sha256').update(sample('report.docx')).digest('hex'));
    const original = await fetched(ANN, `/drafts/${await draftId()}/parts/${part.id}/original`);
    expect((original.body as Buffer).equals(sample('report.docx'))).toBe(true);
    expect(original.headers['content-disposition']).toContain('attachment; filename="report.docx"');
    expect(original.headers['content-security-policy']).toContain('sandbox');
  });

  it('goes on after a lost connection, from where it was', async () => {
    const bytes = sample('report.pdf');
    const { id: upload } = await begin(world, ANN, files('report.pdf'));
    await send(world, ANN, upload, bytes.subarray(0, 10_000));
    const early = await world.as(ANN, 'post', `/exchanges/${id}/draft/files`, { uploadId: upload });
    expect([early.status, early.body.code]).toEqual([409, 'upload-unfinished']);
    const head = await request(world.app.getHttpServer())
      .head(`/api/uploads/${upload}`)
      .set('cookie', await world.cookieOf(ANN))
      .set('tus-resumable', '1.0.0');
    expect(head.headers['upload-offset']).toBe('10000');
    expect((await send(world, ANN, upload, bytes.subarray(10_000), 10_000)).status).toBe(204);
    const twice = await Promise.all(
      [1, 2].map(() => world.as(ANN, 'post', `/exchanges/${id}/draft/files`, { uploadId: upload })),
    );
    expect(twice.some(({ status }) => status === 201)).toBe(true);
    expect(await mine()).toHaveLength(1);
    // Its answer may have been lost: asked again it is the same.
    const again = await world.do<PartView>(ANN, 'post', `/exchanges/${id}/draft/files`, { uploadId: upload });
    expect((await mine()).map((part) => part.id)).toEqual([again.id]);
  });

  it('is nobody else’s to go on with, and cannot be read back', async () => {
    const { id: upload } = await begin(world, ANN, files('report.pdf'));
    expect((await send(world, BEN, upload, sample('report.pdf'))).status).toBe(404);
    expect((await world.as(ANN, 'get', `/uploads/${upload}`)).status).toBe(404);
  });

  it('is kept once when two hand in the same, and removed when nobody has it any more', async () => {
    const [one, two] = await Promise.all([ANN, BEN].map((who) => attached(world, who, files('picture.png'))));
    expect(one?.digest).toBe(two?.digest);
    const store = world.app.get(FileStore);
    const path = store.path(one?.digest as string);
    await world.do(ANN, 'delete', `/exchanges/${id}/draft/parts/${one?.id}`);
    await world.app.get(Cleaner).clean(-1);
    expect(existsSync(path)).toBe(true);
    await world.do(BEN, 'delete', `/exchanges/${id}/draft/parts/${two?.id}`);
    // A table that a later version adds: what refers to a file keeps it, without being listed anywhere.
    const { database } = world;
    await database.write((manager) =>
      manager.query(`CREATE TABLE later (digest text REFERENCES stored_file (digest))`),
    );
    await database.write((manager) => manager.query('INSERT INTO later VALUES (?)', [one?.digest]));
    await world.app.get(Cleaner).clean(-1);
    expect(existsSync(path)).toBe(true);
    await database.write((manager) => manager.query('DROP TABLE later'));
    await world.app.get(Cleaner).clean(-1);
    expect(existsSync(path)).toBe(false);
  });

  it('has a tame name, whatever it was called', async () => {
    const name = `../../${'x'.repeat(500)}\u202Efdp.docx`;
    const part = await attached(world, ANN, files(name, sample('report.docx')));
    expect(part.name).toMatch(/^x{100,}….docx$/);
    expect(part.name.length).toBeLessThanOrEqual(150);
  });
});

describe('refused, with the reason, and the draft unchanged', () => {
  const docx = (members: Record<string, string | Uint8Array>) =>
    Buffer.from(
      zipSync(
        Object.fromEntries(
          Object.entries({
            '[Content_Types].xml':
              '<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Override PartName="/word/document.xml" ContentType="application/vnd.openxmlformats-officedocument.wordprocessingml.document.main+xml"/></Types>',
            ...members,
          }).map(([key, value]) => [key, typeof value === 'string' ? Buffer.from(value) : value]),
        ),
      ),
    );
  const entities =
    '<?xml version="1.0"?><!DOCTYPE x [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;&a;">]><w:document xmlns:w="x">&b;</w:document>';
  const bomb = () => docx({ 'word/document.xml': new Uint8Array(60_000_000) });
  const cases: Array<[what: string, name: string, bytes: () => Buffer, reason: RegExp]> = [
    ['nothing', 'a.pdf', () => Buffer.alloc(0), /empty/],
    ['a locked PDF', 'a.pdf', () => sample('locked.pdf'), /protected by a password/],
    ['half a PDF', 'a.pdf', () => sample('damaged.pdf'), /damaged/],
    ['half a picture', 'a.png', () => sample('picture.png').subarray(0, 400), /damaged/],
    ['half a document', 'a.docx', () => sample('report.docx').subarray(0, 5000), /damaged|cannot be reviewed|archive/],
    ['a document that unpacks without end', 'a.docx', bomb, /unpacks to far more/],
    ['entities in XML', 'a.docx', () => docx({ 'word/document.xml': entities }), /damaged inside/],
    [
      'members with paths',
      'a.docx',
      () => docx({ 'word/document.xml': '<w/>', '../../x.xml': '<x/>' }),
      /damaged inside/,
    ],
    [
      'a document in name only',
      'a.docx',
      () => Buffer.from('MZ\x00\x01\x02\x03 not a document'),
      /cannot be reviewed|damaged/,
    ],
    ['a drawing', 'a.svg', () => Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" onload="x()"/>'), /SVG/],
    ['a web page', 'a.html', () => Buffer.from('<!doctype html><script>x()</script>'), /web page/],
    ['a program', 'a.pdf', () => Buffer.concat([Buffer.from('\x7fELF'), Buffer.alloc(200)]), /cannot be reviewed/],
    ['more than the plan takes', 'a.txt', () => Buffer.alloc(5_000_001, 'a'), /up to 5 MB/],
  ];
  it.each(cases)('%s', async (_, name, bytes, reason) => {
    const before = await mine();
    const { status, body } = await attach(world, ANN, files(name, bytes()));
    expect([status, body.code]).toEqual([422, 'file-refused']);
    expect(body.sentence).toMatch(reason);
    expect(body.whatToDo).toContain('Everything else is as it was.');
    expect(await mine()).toEqual(before);
  });

  it('a PDF of ten thousand pages', async () => {
    const pdf = await PDFDocument.create();
    for (let page = 0; page < 10_000; page += 1) pdf.addPage([100, 100]);
    const { body } = await attach(world, ANN, files('a.pdf', Buffer.from(await pdf.save())));
    expect(body.sentence).toContain('10000 pages; up to 1000');
  });

  it('a kind that the deliverable does not take, and more than ten files', async () => {
    const { body } = await attach(world, ANN, { ...files('picture.png'), deliverableId: 'papers' });
    expect(body.sentence).toBe('“picture.png” is a picture, which is not taken for “Paper”.');
    for (let count = 0; count < 10; count += 1)
      await attach(world, ANN, files(`${count}.txt`, Buffer.from(`text ${count}`)));
    expect((await attach(world, ANN, files('a.txt', Buffer.from('one more')))).body.code).toBe('too-many-files');
  });

  it('a picture that also is an archive is a picture to reviewers, and nothing else', async () => {
    const both = Buffer.concat([sample('picture.jpg'), Buffer.from(zipSync({ 'x.html': Buffer.from('<script>') }))]);
    const part = await attached(world, ANN, files('both.jpg', both));
    const copy = await fetched(ANN, `/drafts/${await draftId()}/parts/${part.id}/copy`);
    expect((copy.body as Buffer).includes(Buffer.from('PK\u0003\u0004'))).toBe(false);
    expect(copy.headers['content-type']).toBe('image/jpeg');
    expect(copy.headers['x-content-type-options']).toBe('nosniff');
  });
});

describe('a reviewer', () => {
  it('reads copies under neutral names, in ranges, and never what was handed in', async () => {
    const own = await World.open();
    const exchange = await exchangeOfFiles(own);
    const send = (who: number, name: string) =>
      attached(own, who, { exchangeId: exchange, deliverableId: 'files', name, bytes: sample(name) });
    for (const who of [ANN, BEN]) {
      await write(own, who, exchange, `The bed rose by ${who} centimetres.`);
      await send(who, 'report.pdf');
      await send(who, 'report.docx');
      await handInSaved(own, who, exchange);
    }
    await allocateAll(own, exchange);
    own.clock.goTo(AT.reviewing);
    const [review] = await own.do<Array<{ id: string }>>(ANN, 'get', `/exchanges/${exchange}/reviews`);
    const desk = await own.do<{ draft: { parts: PartView[]; draftId: string } }>(ANN, 'get', `/reviews/${review?.id}`);
    const [, pdf, document] = desk.draft.parts;
    expect(pdf).toMatchObject({
      name: 'Files 1.pdf',
      show: 'pdf',
      size: null,
      digest: null,
      original: false,
      copy: { state: 'ready' },
    });
    expect(document?.html).toContain('The eastern basin');
    const board = await own.do<{ rows: Array<{ person: { name: string }; draft: { id: string } }> }>(
      INES,
      'get',
      `/exchanges/${exchange}/progress`,
    );
    const draft = board.rows.find(({ person }) => person.name.startsWith('Ben'))?.draft.id;
    const get = async (who: number, path: string, headers: Record<string, string> = {}) =>
      request(own.app.getHttpServer())
        .get(`/api/exchanges/${exchange}/drafts/${draft}/parts/${path}`)
        .set('cookie', await own.cookieOf(who))
        .set(headers);
    const copy = await get(ANN, `${pdf?.id}/copy`);
    expect([copy.status, copy.headers['content-disposition']]).toEqual([200, 'inline; filename="Files 1.pdf"']);
    const range = await get(ANN, `${pdf?.id}/copy`, { range: 'bytes=0-4' });
    expect([range.status, range.headers['content-range']?.split('/')[0]]).toEqual([206, 'bytes 0-4']);
    expect((await get(ANN, `${pdf?.id}/copy`, { 'if-none-match': String(copy.headers['etag']) })).status).toBe(304);
    expect((await get(ANN, `${pdf?.id}/original`)).status).toBe(404);
    for (const who of [CHO, OUT]) expect((await get(who, `${pdf?.id}/copy`)).status).toBe(404);
    expect((await get(INES, `${pdf?.id}/original`)).status).toBe(200);
    await own.close();
  });
});

describe('a server that stopped in the middle', () => {
  it('goes on with copies that were waiting, and clears what was half-done', async () => {
    const part = await attached(world, ANN, files('report.odt'));
    await world.database.write((manager) =>
      manager.update(StoredFile, { digest: part.digest as string }, { copyState: 'waiting', copyHtml: null }),
    );
    const { Copies } = await import('../reading/copies.service.js');
    const copies = world.app.get(Copies);
    await copies.onApplicationBootstrap();
    await copies.idle();
    expect(await stored(part)).toMatchObject({ copyState: 'ready' });
    expect(readdirSync(`${world.dataFolder}/working`)).toEqual([]);
  });
});
