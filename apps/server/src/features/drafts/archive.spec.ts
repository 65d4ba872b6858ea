import { crc32 } from 'node:zlib';
import type { HandInCheck, PartView } from '@salt-circle/contracts';
import { parse } from 'csv-parse/sync';
import { fromBufferPromise, type Entry } from 'yauzl';
import { attached, exchangeOfFiles, sample } from '../../testing/uploads.js';
import { handIn, handInSaved, write } from '../../testing/acts.js';
import { ANN, BEN, CHO, TOM } from '../../testing/people.js';
import { World } from '../../testing/world.js';

let world: World;
beforeEach(async () => {
  world = await World.open();
});
afterEach(() => world.close());

/** Members of the archive, read by another package than the one that wrote it. */
async function unzipped(id: string, names: 'name' | 'alias'): Promise<Map<string, Buffer>> {
  const { body } = await world.file(TOM, `/exchanges/${id}/archive?names=${names}`);
  const zip = await fromBufferPromise(body as Buffer);
  const members = new Map<string, Buffer>();
  for await (const entry of zip.eachEntry() as AsyncIterable<Entry>) {
    const parts: Buffer[] = [];
    for await (const chunk of await zip.openReadStreamPromise(entry)) parts.push(chunk as Buffer);
    const bytes = Buffer.concat(parts);
    // What "unzip -t" checks: length and CRC-32 of every member.
    expect([bytes.length, crc32(bytes)]).toEqual([entry.uncompressedSize, entry.crc32]);
    expect(members.has(entry.fileName)).toBe(false);
    members.set(entry.fileName, bytes);
  }
  return members;
}

const indexOf = (members: Map<string, Buffer>) =>
  parse<Record<string, string>>(members.get('index.csv')?.toString('utf8').replace('\uFEFF', '') ?? '', {
    columns: true,
  });
const words = (members: Map<string, Buffer>) =>
  [...members].filter(([name]) => /\.(html|csv|vtt)$/.test(name)).map(([, bytes]) => bytes.toString('utf8'));
/** The member of a folder whose name is known, whatever the folder is called. */
const member = (members: Map<string, Buffer>, name: string) =>
  [...members].find(([path]) => path.endsWith(`/${name}`))?.[1].toString('utf8') ?? '';

describe('the archive of hand-ins', () => {
  let id: string;
  let document: PartView;
  beforeEach(async () => {
    id = await exchangeOfFiles(world);
    const into = (deliverableId: string, name: string, from: string) =>
      attached(world, ANN, { exchangeId: id, deliverableId, name, bytes: sample(from) });
    document = await into('files', '=cmd.docx', 'report.docx');
    await into('papers', 'paper.pdf', 'report.pdf');
    await write(world, ANN, id, 'The bed rose.<sup data-footnote="By the gauge of 2024."></sup>');
  });

  it('by name has the files as they came, and a table that runs nothing', async () => {
    await handInSaved(world, ANN, id);
    await handIn(world, BEN, id, 'Text of Ben.');
    await write(world, CHO, id, 'Saved, not handed in.');
    const members = await unzipped(id, 'name');
    const index = indexOf(members);
    expect(index.map(({ folder, file }) => `${folder}/${file}`).sort()).toEqual([
      "Ann Mensah/'=cmd.docx",
      'Ann Mensah/Report.html',
      'Ann Mensah/paper.pdf',
      'Ben Kiss/Report.html',
    ]);
    expect(members.get('Ann Mensah/=cmd.docx')?.equals(sample('report.docx'))).toBe(true);
    expect(members.get('Ann Mensah/paper.pdf')?.equals(sample('report.pdf'))).toBe(true);
    expect(index.every(({ author, alias }) => author !== '' && alias !== '')).toBe(true);
  });

  it('by alias has what reviewers read: passages hidden, no file names, pictures beside the pages', async () => {
    const { finds, fingerprint } = await world.do<HandInCheck>(ANN, 'get', `/exchanges/${id}/draft/check`);
    const key = finds.find(({ partId, hideable }) => partId === document.id && hideable)?.key;
    await world.do(ANN, 'post', `/exchanges/${id}/draft/hide`, { fingerprint, key });
    await handInSaved(world, ANN, id);
    const members = await unzipped(id, 'alias');
    expect(words(members).join()).not.toMatch(/Mensah|cmd\.docx/);
    const page = member(members, 'Files 1.html');
    expect(page).toContain('Written by Adjoa [hidden].');
    const pictures = [...page.matchAll(/src="([^"]+)"/g)].map(([, src = '']) => src);
    expect(pictures.length).toBeGreaterThan(0);
    for (const picture of pictures) expect(member(members, picture)).not.toBe('');
    const rows = indexOf(members).map(({ folder, file }) => `${folder}/${file}`);
    expect(rows.sort()).toEqual([...members.keys()].filter((name) => name !== 'index.csv').sort());
  });

  it('keeps footnotes readable where the text is', async () => {
    await handInSaved(world, ANN, id);
    const page = member(await unzipped(id, 'name'), 'Report.html');
    expect(page).toContain('<p>The bed rose.<sup>');
    expect(page).toContain('<ol><li id="fn-1">By the gauge of 2024.</li></ol>');
    expect(page).toContain('<a href="#fn-1" id="fnref-1">1</a>');
  });
});
