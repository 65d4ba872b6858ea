import type { BroughtInView, BroughtView, DeskView, OpenUploadView } from '@salt-circle/contracts';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { AuditEntry } from '../../model/audit-entry.js';
import { reviewedExchange, submitFilled } from '../../testing/acts.js';
import { ANN, BEN, CHO, INES } from '../../testing/people.js';
import { begin, sample, send } from '../../testing/uploads.js';
import { World } from '../../testing/world.js';
import { Database } from '../../platform/database/database.js';

let world: World;
let id: string;
let byAnn: string;
let byBen: string;

beforeEach(async () => {
  world = await World.open();
  ({ id, byAnn, byBen } = await reviewedExchange(world));
});
afterEach(() => world.close());

/** Uploads a file to a review, as what was marked elsewhere. @returns its id, or the refusal */
async function uploaded(bytes: Buffer, { who = ANN as number, reviewId = byAnn } = {}) {
  const sending = { exchangeId: id, deliverableId: reviewId, use: 'marked' as const, name: 'ann_berg.docx', bytes };
  const upload = await begin(world, who, sending);
  if (upload.response.status >= 300) return { status: upload.response.status, id: '' };
  await send(world, who, upload.id, bytes);
  return { status: 201, id: upload.id };
}
const preview = (uploadId: string, who: number = ANN, reviewId = byAnn) =>
  world.as(who, 'post', `/reviews/${reviewId}/marked/preview`, { uploadId });
const add = (uploadId: string, notes: unknown[], who: number = ANN, reviewId = byAnn) =>
  world.as(who, 'post', `/reviews/${reviewId}/marked`, { uploadId, notes });
const shown = async (bytes: Buffer) => {
  const { id: uploadId } = await uploaded(bytes);
  return { uploadId, view: (await preview(uploadId)).body as BroughtView };
};
const chosen = ({ notes }: BroughtView) => notes.map(({ id: noteId, kind }) => ({ id: noteId, kind }));
const notesOf = async (who = ANN, reviewId = byAnn) =>
  (await world.do<DeskView>(who, 'get', `/reviews/${reviewId}`)).notes;
const passages = (all: BroughtView['notes'] | DeskView['notes']) =>
  all.map((note) => {
    const selector = 'place' in note ? note.place.selector : note.selector;
    return selector.type === 'text' ? selector.quote.exact : selector.type;
  });

describe('a draft that was marked elsewhere', () => {
  it('is shown first, added as chosen, and adds nothing twice', async () => {
    const { uploadId, view } = await shown(sample('marked.docx'));
    expect(passages(view.notes)).toEqual(['Geese have', 'grazed', 'islands bare', 'since 2009', '2009.']);
    // The rest of that document is no part of this draft.
    expect(view.unplaced.map(({ passage, reason }) => [passage, reason.slice(0, 30)])).toContainEqual([
      'First the grass',
      'it is not on the draft itself,',
    ]);
    expect(await notesOf()).toEqual([]);
    const [first, second, ...rest] = chosen(view);
    const taken = [{ ...first, kind: 'keep' }, second, ...rest.slice(1)];
    const added = await add(uploadId, taken);
    expect([added.status, (added.body as BroughtInView).added]).toEqual([200, 4]);
    const notes = await notesOf();
    expect(notes.find(({ body }) => body === 'Who counted them?')?.kind).toBe('keep');
    expect(passages(notes)).not.toContain('islands bare');
    expect(JSON.stringify(notes)).not.toContain('Mensah');

    const again = await shown(sample('marked.docx'));
    expect([passages(again.view.notes), again.view.known]).toEqual([['islands bare'], 4]);
    // Chosen once more, by a page that has not looked: what is there stays as it is.
    const repeated = await add(again.uploadId, taken);
    expect((repeated.body as BroughtInView).added).toBe(0);
    expect(await notesOf()).toHaveLength(4);
    const record = await world.app.get(Database).read.findBy(AuditEntry, { action: 'notes-brought' });
    expect(record.map(({ details }) => details)).toEqual([{ review: byAnn, notes: 4 }]);
  });

  it('comes back from what was taken along, with what was written into it', async () => {
    const first = await shown(sample('marked.docx'));
    await add(first.uploadId, chosen(first.view));
    const { body } = await world.file(ANN, `/reviews/${byAnn}/draft.docx`);
    const files = unzipSync(new Uint8Array(body as Buffer));
    const was = await shown(body as Buffer);
    expect([was.view.notes, was.view.known, was.view.remarks]).toEqual([[], 5, []]);
    const change = (name: string, make: (xml: string) => string) =>
      zipSync({ ...files, [name]: strToU8(make(strFromU8(files[name] as Uint8Array))) });
    const typed = change('word/document.xml', (xml) => xml.replace('>Geese have<', '>Goats have<'));
    expect((await shown(Buffer.from(typed))).view.remarks.join()).toContain('not word by word that of the draft');
  });

  it('is for its reviewer alone, while it can be written, and as a file for that', async () => {
    const { id: uploadId } = await uploaded(sample('marked.docx'));
    const refused = await Promise.all([
      preview(uploadId, BEN),
      preview(uploadId, CHO),
      preview(uploadId, INES),
      preview(uploadId, BEN, byBen),
      preview('00000000-0000-4000-8000-000000000000'),
      add(uploadId, [], BEN, byBen),
    ]);
    expect(refused.map(({ status }) => status)).toEqual([404, 404, 403, 404, 404, 404]);
    expect((await uploaded(sample('marked.docx'), { who: BEN })).status).toBe(404);
    const sending = { exchangeId: id, deliverableId: byAnn, use: 'remark' as const, name: 'a.docx' };
    const remark = await begin(world, ANN, { ...sending, bytes: sample('marked.docx') });
    await send(world, ANN, remark.id, sample('marked.docx'));
    expect((await preview(remark.id)).status).toBe(404);
    await submitFilled(world, ANN, byAnn);
    expect((await preview(uploadId)).status).toBe(409);
    expect((await uploaded(sample('marked.docx'))).status).toBe(409);
    expect((await add(uploadId, [])).status).toBe(409);
    // A file that is read and forgotten is nothing to go on with.
    const open = await world.do<OpenUploadView[]>(ANN, 'get', '/uploads');
    expect(open.map(({ name }) => name)).toEqual(['a.docx']);
  });

  it('adds all or nothing, and says what is wrong', async () => {
    const { uploadId, view } = await shown(sample('marked.docx'));
    const wrong = chosen(view).map((one) => ({ ...one, kind: 'ask' }));
    const praised = await add(uploadId, wrong);
    expect([praised.status, praised.body.fields[0].sentence]).toEqual([
      422,
      expect.stringContaining('An edit is proposed with a Change or a Fix note.'),
    ]);
    expect((await add(uploadId, [{ id: 'x', kind: 'praise' }])).status).toBe(422);
    expect((await add(uploadId, [{ id: 'x', kind: 'fix' }])).body).toEqual({ added: 0 });
    expect(await notesOf()).toEqual([]);
    const files: ReadonlyArray<readonly [Buffer, string]> = [
      [sample('marked.pdf'), 'This draft holds no PDF.'],
      [sample('picture.png'), 'This is neither a Word document (.docx) nor a PDF.'],
      [sample('report.odt'), 'This is not a document that can be read (DOCX).'],
      [sample('report.docx'), 'This is not the text of this draft.'],
    ];
    for (const [bytes, sentence] of files) {
      const { id: wrongId } = await uploaded(bytes);
      expect((await preview(wrongId)).body).toMatchObject({ code: 'file-refused', sentence });
    }
    const record = await world.app.get(Database).read.findBy(AuditEntry, { action: 'notes-refused' });
    expect(record).toHaveLength(files.length);
  });
});
