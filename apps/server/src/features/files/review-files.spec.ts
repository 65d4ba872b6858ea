import type { DeskView, FeedbackView, PartView, ReviewFileCard, ReviewNamesView } from '@salt-circle/contracts';
import { StoredFile } from '../../model/stored-file.js';
import { begin, sample, send } from '../../testing/uploads.js';
import { fillIn, leaveNote, NOTE_ID, reviewedExchange } from '../../testing/acts.js';
import { ANN, BEN, CHO, INES, PEOPLE } from '../../testing/people.js';
import { AT } from '../../testing/plan.js';
import { World } from '../../testing/world.js';
import { Copies } from '../reading/copies.service.js';
import { Cleaner } from './cleaner.js';

let world: World;
let id: string;
let byAnn: string;
let byBen: string;

beforeEach(async () => {
  world = await World.open();
  ({ id, byAnn, byBen } = await reviewedExchange(world));
});
afterEach(() => world.close());

interface Sent {
  readonly name?: string;
  readonly bytes?: Buffer;
  readonly target?: object;
  readonly reviewId?: string;
}

/** Ann puts a file to her review of Ben. */
async function put({ name = 'ann_berg.docx', bytes, target = { noteId: NOTE_ID }, reviewId = byAnn }: Sent = {}) {
  const sending = { exchangeId: id, deliverableId: reviewId, use: 'remark' as const };
  const upload = await begin(world, ANN, { ...sending, name, bytes: bytes ?? sample('report.docx') });
  if (upload.response.status >= 300) return upload.response;
  await send(world, ANN, upload.id, bytes ?? sample('report.docx'));
  const answer = await world.as(ANN, 'post', `/reviews/${reviewId}/files`, { uploadId: upload.id, ...target });
  await world.app.get(Copies).idle();
  return answer;
}

const desk = (who: number) => world.do<DeskView>(who, 'get', `/reviews/${byAnn}`);
const received = async () => (await world.do<FeedbackView>(BEN, 'get', `/exchanges/${id}/feedback`)).reviews[0];

async function submitted(): Promise<ReviewFileCard> {
  await leaveNote(world, ANN, byAnn);
  await fillIn(world, ANN, byAnn);
  const [file] = (await put()).body as ReviewFileCard[];
  await world.do(ANN, 'post', `/reviews/${byAnn}/submit`);
  return file as ReviewFileCard;
}

describe('files of notes and answers', () => {
  it('reach the author after release, as copies and under neutral names; nobody else, and not before', async () => {
    const file = await submitted();
    expect(file).toMatchObject({ noteId: NOTE_ID, itemId: null, name: 'ann_berg.docx', family: 'document' });
    const at = `/reviews/${byAnn}/files/${file.id}`;
    for (const who of [BEN, CHO]) expect((await world.as(who, 'get', at)).status).toBe(404);
    expect((await world.do<PartView>(INES, 'get', at)).name).toBe('ann_berg.docx');
    world.clock.goTo(AT.closed);
    expect((await received())?.files).toEqual([{ ...file, name: 'Attachment 1' }]);
    const part = await world.do<PartView>(BEN, 'get', at);
    expect(part).toMatchObject({ name: 'Attachment 1', size: null, digest: null, original: false });
    expect(part.html).toContain('The eastern basin');
    // What the file says of its maker is not in the copy; what it was handed in as cannot be had.
    expect(part.html).not.toContain('docProps');
    expect((await world.as(BEN, 'get', `${at}/original`)).status).toBe(404);
    expect((await world.as(CHO, 'get', at)).status).toBe(404);
  });

  it('go with an answer or the overall comment as well, at most three each, sound and pictures too', async () => {
    await fillIn(world, ANN, byAnn);
    for (const [name, file] of [
      ['s.wav', 'talk.wav'],
      ['p.png', 'picture.png'],
      ['r.pdf', 'report.pdf'],
    ] as const) {
      const { status } = await put({ name, bytes: sample(file), target: { itemId: 'evidence' } });
      expect([name, status]).toEqual([name, 201]);
    }
    const fourth = await put({ target: { itemId: 'evidence' } });
    expect([fourth.status, fourth.body.code]).toEqual([409, 'too-many-files']);
    const { files } = await desk(ANN);
    expect(files.map(({ family, itemId }) => `${family} ${itemId}`).toSorted()).toEqual([
      ...['audio evidence', 'image evidence', 'pdf evidence'],
    ]);
    const pdf = files.find(({ family }) => family === 'pdf');
    const copy = await world.as(ANN, 'get', `/reviews/${byAnn}/files/${pdf?.id}/copy`);
    expect(copy.headers['content-type']).toBe('application/pdf');
    await world.do(ANN, 'delete', `/reviews/${byAnn}/files/${files[0]?.id}`);
    expect((await desk(ANN)).files).toHaveLength(2);
  });

  it.each<[string, Sent, number]>([
    ['of a note that is not there', { target: { noteId: '11111111-1111-4111-8111-111111111111' } }, 422],
    ['of no item', { target: { itemId: 'nowhere' } }, 422],
    ['of a note and an answer at once', { target: { itemId: 'evidence', noteId: NOTE_ID } }, 422],
    ['of neither', { target: {} }, 422],
    ['that are broken', { name: 'x.pdf', bytes: sample('damaged.pdf') }, 422],
    [
      'that are programs',
      { name: 'x.png', bytes: Buffer.concat([Buffer.from('\u007fELF\u0002\u0001'), Buffer.alloc(400, 1)]) },
      422,
    ],
    ['that are empty', { bytes: Buffer.alloc(0) }, 422],
  ])('are refused: %s', async (_, sent, status) => {
    await leaveNote(world, ANN, byAnn);
    expect((await put(sent)).status).toBe(status);
    expect((await desk(ANN)).files).toEqual([]);
  });

  it('are looked through for what tells who somebody is before the review is submitted', async () => {
    await leaveNote(world, ANN, byAnn);
    const text = Buffer.from(`Written down by ${PEOPLE[ANN]?.name} at the sluice.`);
    await put({ name: 'notes.txt', bytes: text });
    await put({ name: 's.wav', bytes: sample('talk.wav') });
    const found = await world.do<ReviewNamesView>(ANN, 'get', `/reviews/${byAnn}/names`);
    expect(found).toMatchObject({ unread: 1, names: [{ noteId: NOTE_ID, exact: PEOPLE[ANN]?.name, own: true }] });
  });

  it('wait for words: a review is not begun by a file', async () => {
    expect((await put({ target: { itemId: 'evidence' } })).body.fields[0].sentence).toContain('write something');
  });

  it('do not go into reviews of others, under whatever name they were sent', async () => {
    await leaveNote(world, ANN, byAnn);
    expect((await put({ reviewId: byBen })).status).toBe(404);
    const own = await begin(world, ANN, {
      ...{ exchangeId: id, deliverableId: byAnn, use: 'remark' as const },
      ...{ name: 'a.docx', bytes: sample('report.docx') },
    });
    await send(world, ANN, own.id, sample('report.docx'));
    const target = { uploadId: own.id, itemId: 'evidence' };
    expect((await world.as(BEN, 'post', `/reviews/${byBen}/files`, target)).status).toBe(404);
    expect((await world.as(BEN, 'post', `/reviews/${byAnn}/files`, target)).status).toBe(404);
  });

  it('stay as they were submitted while their review is being changed', async () => {
    const file = await submitted();
    await world.do(ANN, 'post', `/reviews/${byAnn}/reopen`);
    world.clock.goTo(AT.reviewing + 60_000);
    await world.do(ANN, 'delete', `/reviews/${byAnn}/files/${file.id}`);
    await put({ name: 'second.docx', target: { itemId: 'evidence' } });
    expect((await desk(ANN)).files.map(({ name }) => name)).toEqual(['second.docx']);
    expect((await desk(INES)).files.map(({ name }) => name)).toEqual(['ann_berg.docx']);
    await world.do(ANN, 'post', `/reviews/${byAnn}/submit`);
    expect((await desk(INES)).files.map(({ name }) => name)).toEqual(['second.docx']);
  });

  it('are kept from the author with a withheld note, also while its reviewer takes that note out again', async () => {
    await submitted();
    await world.database.write((manager) => manager.query(`UPDATE note SET "withheldAt" = 1 WHERE id = ?`, [NOTE_ID]));
    await world.do(ANN, 'post', `/reviews/${byAnn}/reopen`);
    await world.do(ANN, 'delete', `/reviews/${byAnn}/notes/${NOTE_ID}`);
    world.clock.goTo(AT.closed);
    expect((await received())?.files).toEqual([]);
  });

  it('are added once, also when the same is asked for twice at once', async () => {
    await leaveNote(world, ANN, byAnn);
    const bytes = sample('report.docx');
    const upload = await begin(world, ANN, {
      ...{ exchangeId: id, deliverableId: byAnn, use: 'remark' as const, name: 'a.docx', bytes },
    });
    await send(world, ANN, upload.id, bytes);
    const add = () => world.as(ANN, 'post', `/reviews/${byAnn}/files`, { uploadId: upload.id, noteId: NOTE_ID });
    await Promise.all([add(), add()]);
    expect((await desk(ANN)).files).toHaveLength(1);
  });

  it('are kept from the author with their note, and cleaned away with their review', async () => {
    const file = await submitted();
    await world.database.write((manager) => manager.query(`UPDATE note SET "withheldAt" = 1 WHERE id = ?`, [NOTE_ID]));
    world.clock.goTo(AT.closed);
    expect((await received())?.files).toEqual([]);
    expect((await world.as(BEN, 'get', `/reviews/${byAnn}/files/${file.id}`)).status).toBe(404);
    await world.app.get(Cleaner).clean(0);
    expect(await world.database.read.count(StoredFile)).toBe(1);
    await world.database.write((manager) => manager.query(`DELETE FROM review WHERE id = ?`, [byAnn]));
    await world.app.get(Cleaner).clean(0);
    expect(await world.database.read.count(StoredFile)).toBe(0);
  });
});
