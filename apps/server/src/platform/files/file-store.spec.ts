import { createHash } from 'node:crypto';
import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, utimesSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Settings } from '../config/settings.js';
import { safeFileName } from './safe-file-name.js';
import { FileStore } from './file-store.js';
import { purposeFrom } from '../../features/files/uploads.service.js';

let dataFolder: string;
let store: FileStore;
beforeEach(() => {
  dataFolder = mkdtempSync(join(tmpdir(), 'salt-circle-'));
  store = new FileStore({ dataFolder } as Settings);
});
afterEach(() => rmSync(dataFolder, { recursive: true, force: true }));

async function put(content: string): Promise<string> {
  const path = join(await store.workFolder(), 'new');
  writeFileSync(path, content);
  return (await store.adopt(path)).digest;
}

describe('the file store', () => {
  it('keeps a file at a place that follows from its content, once', async () => {
    const digest = await put('abc');
    // FIPS 180-4, example of SHA-256 for "abc" (as published with the standard's test values).
    expect(digest).toBe('ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad');
    expect(await put('abc')).toBe(digest);
    expect(readFileSync(store.path(digest), 'utf8')).toBe('abc');
    expect(readdirSync(join(dataFolder, 'files'))).toEqual(['ba']);
  });

  it('takes files of any size, the empty one included', async () => {
    expect(await put('')).toBe(createHash('sha256').digest('hex'));
    const path = join(await store.workFolder(), 'large');
    writeFileSync(path, Buffer.alloc(3_000_000, 7));
    expect(await store.adopt(path)).toMatchObject({ size: 3_000_000 });
    // It has moved, not been copied.
    expect(existsSync(path)).toBe(false);
  });

  it('knows no place for what is no digest', () => {
    for (const bad of ['', '../../etc/passwd', 'A'.repeat(64), 'g'.repeat(64)]) {
      expect(() => store.path(bad)).toThrow('not a digest');
    }
  });

  it('removes what is not named, but nothing that may be on its way in', async () => {
    const [kept, old, young] = [await put('kept'), await put('old'), await put('young')];
    const now = Date.now();
    for (const digest of [kept, old])
      utimesSync(store.path(digest), new Date(now - 7_200_000), new Date(now - 7_200_000));
    expect(await store.removeOthers(new Set([kept]), 3_600_000, now)).toBe(1);
    expect([kept, old, young].map((digest) => store.has(digest))).toEqual([true, false, true]);
  });

  it('begins without what an earlier run left half-done', async () => {
    const folder = await store.workFolder();
    writeFileSync(join(folder, 'half'), 'x');
    expect(existsSync(folder)).toBe(true);
    expect(new FileStore({ dataFolder } as Settings)).toBeDefined();
    expect(existsSync(folder)).toBe(false);
  });
});

describe('names of files', () => {
  const cases: Array<[string, string]> = [
    ['report.docx', 'report.docx'],
    ['C:\\Users\\ann\\report.docx', 'report.docx'],
    ['/home/ann/../report.docx', 'report.docx'],
    // U+202E turns the direction of writing: it would show as "reportexe.pdf".
    ['report\u202Efdp.exe', 'reportfdp.exe'],
    ['a\u0000b\n.txt', 'ab.txt'],
    ['.htaccess', 'htaccess'],
    ['what? "this" <that>|*:.md', 'what- -this- -that----.md'],
    ['Bericht über Wasser. ', 'Bericht über Wasser'],
    ['😀.png', '😀.png'],
  ];
  it.each(cases)('make %j safe to show and to store: %j', (given, wanted) => {
    expect(safeFileName(given)).toBe(wanted);
    expect(safeFileName(wanted)).toBe(wanted);
  });

  it('are shortened in their middle, ending kept, and made up when nothing is left', () => {
    const long = safeFileName(`${'x'.repeat(500)}.docx`);
    expect([long.length, long.endsWith('….docx')]).toEqual([150, true]);
    for (const nothing of ['', '...', '///', '\u202E']) expect(safeFileName(nothing)).toMatch(/^file-[0-9a-f]{8}$/);
  });
});

describe('what an upload is for', () => {
  const base64 = (text: string) => Buffer.from(text).toString('base64');

  it('is read from the metadata of the protocol: pairs of key and base64 value', () => {
    const header = `exchange ${base64('x')},deliverable ${base64('d')}, name ${base64('Bericht über.pdf')},use ${base64('captions')}`;
    expect(purposeFrom(header)).toEqual({
      exchangeId: 'x',
      deliverableId: 'd',
      name: 'Bericht über.pdf',
      use: 'captions',
      participantId: null,
    });
  });

  it.each(['', 'exchange', ',,,', 'use bm90aGluZw==', '%%% %%%'])('is nothing in %j', (header) => {
    expect(purposeFrom(header)).toEqual({
      exchangeId: '',
      deliverableId: '',
      name: '',
      use: 'part',
      participantId: null,
    });
  });
});
