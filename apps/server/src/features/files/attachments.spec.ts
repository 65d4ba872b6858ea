import type { AttachmentCard, CourseView, ExchangeView, PartView, AuditRow } from '@salt-circle/contracts';
import { ExchangeAttachment } from '../../model/attachment.js';
import { StoredFile } from '../../model/stored-file.js';
import { FileStore } from '../../platform/files/file-store.js';
import { begin, exchangeOfFiles, sample, send } from '../../testing/uploads.js';
import { ANN, INES, OUT, TOM } from '../../testing/people.js';
import { World } from '../../testing/world.js';
import { Copies } from '../reading/copies.service.js';
import { Cleaner } from './cleaner.js';

let world: World;
let id: string;
beforeEach(async () => {
  world = await World.open();
  id = await exchangeOfFiles(world);
});
afterEach(() => world.close());

const given = (name: string, deliverableId = 'guide') =>
  ({ exchangeId: id, deliverableId, name, bytes: sample(name), use: 'attachment' }) as const;

async function give(name: string, place = 'guide'): Promise<AttachmentCard> {
  const { id: uploadId } = await begin(world, INES, given(name, place));
  await send(world, INES, uploadId, sample(name));
  const add = () => world.do<AttachmentCard[]>(INES, 'post', `/exchanges/${id}/attachments`, { uploadId });
  const cards = await add();
  // An answer that was lost on the way is asked for again.
  expect(await add()).toEqual(cards);
  await world.app.get(Copies).idle();
  return cards.at(-1) as AttachmentCard;
}

const fetched = (person: number, path: string) => world.file(person, `/exchanges/${id}/attachments/${path}`);

describe('attachments of brief and guide', () => {
  it('are read by students in the browser, pictures included, and taken along byte for byte', async () => {
    const card = await give('report.docx', 'brief');
    expect(card).toMatchObject({ place: 'brief', name: 'report.docx', size: sample('report.docx').length });
    expect((await world.do<ExchangeView>(ANN, 'get', `/exchanges/${id}`)).attachments).toEqual([card]);
    const part = await world.do<PartView>(ANN, 'get', `/exchanges/${id}/attachments/${card.id}`);
    expect([part.show, part.copy?.state]).toEqual(['html', 'ready']);
    const [, picture = ''] = /src="\/api\/exchanges\/[^/]+\/attachments\/([^"]+)"/.exec(part.html ?? '') ?? [];
    expect((await fetched(ANN, picture)).headers['content-type']).toMatch(/^image\//);
    const original = await fetched(ANN, `${card.id}/original`);
    expect((original.body as Buffer).equals(sample('report.docx'))).toBe(true);
    expect(original.headers).toMatchObject({
      'content-disposition': 'attachment; filename="report.docx"',
      'content-security-policy': expect.stringContaining('sandbox'),
    });
    for (const path of [card.id, `${card.id}/original`, picture]) expect((await fetched(OUT, path)).status).toBe(404);
    const record = await world.do<AuditRow[]>(INES, 'get', `/exchanges/${id}/activity`);
    expect(record[0]).toMatchObject({ action: 'attachment-added' });
  });

  it('are given by instructors alone, as what they were sent for, and only of kinds that can be read', async () => {
    for (const person of [TOM, ANN, OUT]) {
      const { status } = (await begin(world, person, given('report.pdf'))).response;
      expect({ person, status }).toEqual({ person, status: person === OUT ? 404 : 403 });
    }
    expect((await begin(world, INES, given('report.pdf', 'elsewhere'))).response.status).toBe(404);
    const program = { ...given('report.pdf'), name: 'run.pdf', bytes: Buffer.from('MZ\x90\x00 not a document') };
    const { id: uploadId } = await begin(world, INES, program);
    await send(world, INES, uploadId, program.bytes);
    expect(await world.as(INES, 'post', `/exchanges/${id}/attachments`, { uploadId })).toMatchObject({ status: 422 });
    // What a student sent for a draft is no attachment, whoever asks.
    const { id: mine } = await begin(world, ANN, { ...given('report.pdf', 'files'), use: 'part' });
    await send(world, ANN, mine, sample('report.pdf'));
    expect((await world.as(INES, 'post', `/exchanges/${id}/attachments`, { uploadId: mine })).status).toBe(404);
    expect(await world.database.read.count(ExchangeAttachment)).toBe(0);
  });

  it('go along with a copy of the exchange, and their file stays until nothing names it', async () => {
    const card = await give('report.pdf');
    const { id: courseId } = (await world.do<ExchangeView>(INES, 'get', `/exchanges/${id}`)).course;
    const copy = { from: 'exchange', sourceId: id, title: 'Again', shift: 'none', days: 0, firstAt: null };
    const { id: again } = await world.do(INES, 'post', `/courses/${courseId}/exchanges/copies`, {
      ...{ ...copy, keepWeekdays: true },
    });
    await world.do(INES, 'delete', `/exchanges/${id}/attachments/${card.id}`);
    const { digest } = await world.database.read.findOneByOrFail(ExchangeAttachment, { exchangeId: again });
    const { copyDigest } = await world.database.read.findOneByOrFail(StoredFile, { digest });
    const there = () => [digest, copyDigest as string].map((one) => world.app.get(FileStore).has(one));
    await world.app.get(Cleaner).clean(-1);
    expect(there()).toEqual([true, true]);
    const view = await world.do<ExchangeView>(INES, 'get', `/exchanges/${again}`);
    expect(view.attachments.map(({ name, place }) => [name, place])).toEqual([['report.pdf', 'guide']]);
    await world.do(INES, 'delete', `/exchanges/${again}/attachments/${view.attachments[0]?.id}`);
    await world.app.get(Cleaner).clean(-1);
    expect(there()).toEqual([false, false]);
    expect((await world.do<CourseView>(INES, 'get', `/courses/${courseId}`)).exchanges.length).toBe(2);
  });
});
