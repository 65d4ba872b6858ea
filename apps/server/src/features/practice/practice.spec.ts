import type {
  DeskView,
  PracticeDraftRequest,
  PracticeResultView,
  PracticeView,
  ProgressView,
} from '@salt-circle/contracts';
import type { CriterionItem, FormItem, PracticeRule } from '@salt-circle/core';
import { Copies } from '../reading/copies.service.js';
import { StoredFile } from '../../model/stored-file.js';
import { attached, begin, exchangeOfFiles, sample, send } from '../../testing/uploads.js';
import { allocateAll, handIn, leaveNote, noteFor, publishedExchange, reviewedExchange } from '../../testing/acts.js';
import { ANN, BEN, CHO, INES, TOM } from '../../testing/people.js';
import { AT, FORM, ITEMS, PLAN } from '../../testing/plan.js';
import { World } from '../../testing/world.js';

let world: World;
beforeEach(async () => {
  world = await World.open();
});
afterEach(() => world.close());

const FIRST: PracticeRule = { when: 'first', tries: 2, closeEnough: 1 };
const TEXT: Partial<PracticeDraftRequest> = {
  from: 'text',
  title: 'Tides',
  html: '<p>The bed rose by four metres.</p>',
};
const KEY_NOTE = '11111111-1111-4111-8111-111111111111';

const listFor = (who: number, id: string) => world.do<PracticeView>(who, 'get', `/exchanges/${id}/practice`);

async function add(id: string, request: Partial<PracticeDraftRequest> = TEXT) {
  const { drafts } = await world.do<PracticeView>(INES, 'post', `/exchanges/${id}/practice`, request);
  return drafts.at(-1) as PracticeView['drafts'][number];
}

/** With everything else as it is. */
async function setPractice(id: string, practice: PracticeRule) {
  const { revision } = await world.do(INES, 'get', `/exchanges/${id}/plan`);
  return world.as(INES, 'put', `/exchanges/${id}/plan`, { ...PLAN, practice, revision });
}

/** Fills in the two items of the usual form. */
async function answer(who: number, reviewId: string, levelId: string): Promise<void> {
  const { answers } = await world.do<DeskView>(who, 'get', `/reviews/${reviewId}`);
  const at = (itemId: string) => ({ revision: answers[itemId]?.revision ?? 0 });
  await world.do(who, 'put', `/reviews/${reviewId}/answers/evidence`, { ...at('evidence'), levelId, text: 'Because.' });
  await world.do(who, 'put', `/reviews/${reviewId}/answers/first`, {
    ...at('first'),
    text: 'Give the source of this figure.',
  });
}

/** An exchange in which practice comes first, with one practice draft and its key. */
async function practised(rule: PracticeRule = FIRST): Promise<{ id: string; practiceId: string; keyId: string }> {
  const id = await publishedExchange(world);
  // Three levels, so that two of them are far apart.
  const [evidence, ...rest] = ITEMS as [CriterionItem, ...FormItem[]];
  const levels = ['low', 'middle', 'high'].map((one, points) => ({ id: one, title: one, description: '', points }));
  const { revision } = await world.do(INES, 'get', `/exchanges/${id}/form`);
  await world.do(INES, 'put', `/exchanges/${id}/form`, {
    ...FORM,
    items: [{ ...evidence, levels }, ...rest],
    revision,
  });
  const card = await add(id);
  const keyId = card.staff?.keyReviewId ?? '';
  await answer(INES, keyId, 'high');
  await leaveNote(world, INES, keyId, { body: 'Metres cannot be right.' }, KEY_NOTE);
  await world.do(INES, 'post', `/reviews/${keyId}/submit`);
  await setPractice(id, rule);
  world.clock.goTo(AT.drafting);
  return { id, practiceId: card.id, keyId };
}

async function tryIt(who: number, practiceId: string, levelId: string, again = false): Promise<string> {
  const { reviewId } = await world.do<{ reviewId: string }>(who, 'post', `/practice/${practiceId}/begin`, { again });
  await answer(who, reviewId, levelId);
  await world.do(who, 'post', `/reviews/${reviewId}/submit`);
  return reviewId;
}

describe('practice', () => {
  it('is played through: tried, compared with the key, tried again, and kept', async () => {
    const { id, practiceId } = await practised();
    const [card] = (await listFor(ANN, id)).drafts;
    expect(card).toMatchObject({ title: 'Tides', own: { state: 'not-begun', result: false }, staff: null });
    expect((await world.as(ANN, 'get', `/practice/${practiceId}/result`)).status).toBe(404);
    const reviewId = await tryIt(ANN, practiceId, 'low');
    const result = await world.do<PracticeResultView>(ANN, 'get', `/practice/${practiceId}/result`);
    expect(result.closeness).toMatchObject({ share: 0, items: [{ itemId: 'evidence', near: false, gives: 'less' }] });
    expect(result.key.notes.map(({ body }) => body)).toEqual(['Metres cannot be right.']);
    expect(result.yours.answers['evidence']?.levelId).toBe('low');
    expect(result.draft.parts[0]?.html).toContain('four metres');
    expect(result.own).toMatchObject({ state: 'again', again: true, shares: [0] });
    expect((await listFor(ANN, id)).drafts[0]?.own).toEqual(result.own);
    // What is submitted cannot be written in, nor reopened.
    const late = { revision: 1, text: 'More.' };
    expect((await world.as(ANN, 'put', `/reviews/${reviewId}/answers/first`, late)).status).toBe(409);
    await world.do(ANN, 'post', `/practice/${practiceId}/begin`, { again: true });
    // Anew, and with revisions that go on: a page that was open all the while can save.
    const desk = await world.do<DeskView>(ANN, 'get', `/reviews/${reviewId}`);
    expect(desk.answers['first']).toMatchObject({ text: '', revision: 2 });
    await tryIt(ANN, practiceId, 'high');
    const once = await world.do<PracticeResultView>(ANN, 'get', `/practice/${practiceId}/result`);
    expect(once.own).toMatchObject({ state: 'done', again: false, shares: [0, 1] });
    const third = await world.as(ANN, 'post', `/practice/${practiceId}/begin`, { again: true });
    expect(third.body.code).toBe('already-submitted');
    const [staff] = (await listFor(INES, id)).drafts;
    expect(staff?.staff).toMatchObject({ key: 'submitted', tried: 1, meanShare: 1 });
  });

  it('comes first: reviews open once it is done, or no try is left, and staff see who has not', async () => {
    const { id, practiceId } = await practised();
    for (const who of [ANN, BEN]) await handIn(world, who, id);
    await allocateAll(world, id);
    world.clock.goTo(AT.reviewing);
    expect((await world.as(ANN, 'get', `/exchanges/${id}/reviews`)).body.code).toBe('practice-first');
    const rows = async () => (await world.do<ProgressView>(INES, 'get', `/exchanges/${id}/progress`)).rows;
    expect((await rows()).map(({ practised: one }) => one?.done)).toEqual([0, 0, 0]);
    await tryIt(ANN, practiceId, 'low');
    expect((await world.as(ANN, 'get', `/exchanges/${id}/reviews`)).body.code).toBe('practice-first');
    await tryIt(ANN, practiceId, 'low', true);
    const mine = await world.do<Array<{ id: string }>>(ANN, 'get', `/exchanges/${id}/reviews`);
    expect(mine).toHaveLength(1);
    expect((await rows()).map(({ practised: one }) => one?.done).toSorted()).toEqual([0, 0, 1]);
    // Ben has not practised, and cannot get past it by the address of his review either.
    const board = (await rows()).find(({ reviews }) => reviews.some((one) => one.id !== mine[0]?.id));
    const his = board?.reviews[0]?.id ?? '';
    expect((await world.as(BEN, 'get', `/reviews/${his}`)).body.code).toBe('practice-first');
  });

  it('is between a student and the key: nobody sees another’s try, assistants write no key, borrowed eyes do nothing', async () => {
    const { id, practiceId, keyId } = await practised();
    const byAnn = await tryIt(ANN, practiceId, 'low');
    for (const path of [`/reviews/${byAnn}`, `/reviews/${keyId}`])
      expect([path, (await world.as(BEN, 'get', path)).status]).toEqual([path, 404]);
    expect((await world.as(ANN, 'get', `/reviews/${keyId}`)).status).toBe(404);
    expect((await world.as(BEN, 'get', `/practice/${practiceId}/result`)).status).toBe(404);
    expect((await world.as(TOM, 'post', `/reviews/${keyId}/reopen`, {})).status).toBe(403);
    expect((await world.as(ANN, 'post', `/exchanges/${id}/practice`, TEXT)).status).toBe(403);
    expect((await world.as(ANN, 'delete', `/practice/${practiceId}`)).status).toBe(403);
    // It stands in an exchange of its own, which is none for anything else.
    for (const path of ['', '/plan', '/progress', '/feedback'])
      for (const who of [INES, ANN]) {
        const { status } = await world.as(who, 'get', `/exchanges/${practiceId}${path}`);
        expect([path, who, status]).toEqual([path, who, 404]);
      }
    const publish = await world.as(INES, 'post', `/exchanges/${practiceId}/publish`);
    expect(publish.status).toBe(404);
    const note = await noteFor(world, ANN, byAnn);
    expect((await world.as(BEN, 'put', `/reviews/${byAnn}/notes/${KEY_NOTE}`, note)).status).toBe(404);
    const course = await world.do<{ exchanges: unknown[] }>(INES, 'get', '/courses/course');
    expect(course.exchanges).toHaveLength(1);
  });

  it('is not there for students without a key, nor while it is off; and says so before publishing', async () => {
    const id = await publishedExchange(world);
    const card = await add(id);
    const refused = await setPractice(id, FIRST);
    expect(refused.body.fields[0].sentence).toContain('“Tides” has no key yet');
    world.clock.goTo(AT.drafting);
    expect((await listFor(ANN, id)).drafts).toEqual([]);
    expect((await world.as(ANN, 'post', `/practice/${card.id}/begin`, { again: false })).status).toBe(404);
    await world.do(INES, 'delete', `/practice/${card.id}`);
    expect((await listFor(INES, id)).drafts).toEqual([]);
  });

  it('keeps the key as it was submitted while an instructor changes it', async () => {
    const { practiceId, keyId } = await practised();
    await world.do(INES, 'post', `/reviews/${keyId}/reopen`, {});
    await answer(INES, keyId, 'low');
    await tryIt(ANN, practiceId, 'high');
    const { closeness } = await world.do<PracticeResultView>(ANN, 'get', `/practice/${practiceId}/result`);
    expect(closeness.share).toBe(1);
  });

  it('takes a file, cleaned like any other draft', async () => {
    const id = await publishedExchange(world);
    const bytes = sample('report.docx');
    const sending = { exchangeId: id, deliverableId: 'practice', use: 'attachment' as const, name: 'ines.docx', bytes };
    const upload = await begin(world, INES, sending);
    await send(world, INES, upload.id, bytes);
    const card = await add(id, { from: 'file', title: 'A report', uploadId: upload.id });
    const desk = await world.do<DeskView>(INES, 'get', `/reviews/${card.staff?.keyReviewId}`);
    expect(desk).toMatchObject({ editable: true, practice: { forId: id, key: true }, reviewer: { you: true } });
    expect(desk.draft.parts[0]).toMatchObject({ show: 'html' });
    // It cannot go with the brief instead.
    expect((await world.as(INES, 'post', `/exchanges/${id}/attachments`, { uploadId: upload.id })).status).toBe(404);
  });

  it('gives the pages of a file to whoever writes the key and whoever tries it, as a copy under a neutral name', async () => {
    const { id } = await practised();
    const bytes = sample('report.pdf');
    const sending = { exchangeId: id, deliverableId: 'practice', use: 'attachment' as const, name: 'ines.pdf', bytes };
    const upload = await begin(world, INES, sending);
    await send(world, INES, upload.id, bytes);
    const card = await add(id, { from: 'file', title: 'Pages', uploadId: upload.id });
    await world.app.get(Copies).idle();
    const { draft } = await world.do<DeskView>(INES, 'get', `/reviews/${card.staff?.keyReviewId}`);
    const at = `/exchanges/${card.id}/drafts/${draft.draftId}/parts/${draft.parts[0]?.id}`;
    for (const who of [INES, TOM]) expect((await world.as(who, 'get', `${at}/copy`)).status).toBe(200);
    expect((await world.as(ANN, 'get', `${at}/copy`)).status).toBe(404);
    await answer(INES, card.staff?.keyReviewId ?? '', 'high');
    await world.do(INES, 'post', `/reviews/${card.staff?.keyReviewId}/submit`);
    const { reviewId } = await world.do<{ reviewId: string }>(ANN, 'post', `/practice/${card.id}/begin`, {
      again: false,
    });
    const desk = await world.do<DeskView>(ANN, 'get', `/reviews/${reviewId}`);
    expect(desk.draft.parts[0]?.name).toBe('File 1.pdf');
    expect((await world.as(ANN, 'get', `${at}/copy`)).status).toBe(200);
    expect((await world.as(ANN, 'get', `${at}/original`)).status).toBe(404);
    expect((await world.as(BEN, 'get', `${at}/copy`)).status).toBe(404);
  });

  it('takes a draft of an earlier exchange without its author’s name, with the consent on record', async () => {
    const second = await publishedExchange(world);
    const { byAnn } = await reviewedExchange(world);
    const { draft } = await world.do<DeskView>(INES, 'get', `/reviews/${byAnn}`);
    const given = { from: 'draft' as const, title: 'Geese', draftId: draft.draftId };
    const without = await world.as(INES, 'post', `/exchanges/${second}/practice`, given);
    expect(without.body.fields[0].sentence).toContain('how the author agreed');
    const card = await add(second, { ...given, consent: 'By mail, 3 March.' });
    expect(card.staff?.consent).toBe('By mail, 3 March.');
    const desk = await world.do<DeskView>(INES, 'get', `/reviews/${card.staff?.keyReviewId}`);
    expect(desk.draft.parts[0]?.html).toContain('Geese have grazed');
    expect((await world.as(ANN, 'post', `/exchanges/${second}/practice`, { ...given, consent: 'x' })).status).toBe(403);
  });

  it('hides the author’s name in it wherever it stands, in a new title too', async () => {
    const into = await publishedExchange(world);
    const id = await publishedExchange(world);
    world.clock.goTo(AT.drafting);
    // More often than an author is ever shown.
    await handIn(world, BEN, id, 'Readings taken by Ben Kiss. '.repeat(230));
    const { rows } = await world.do<ProgressView>(INES, 'get', `/exchanges/${id}/progress`);
    const draftId = rows.find(({ draft }) => draft.state === 'handed-in')?.draft.id ?? '';
    const given = { from: 'draft' as const, title: 'What Ben Kiss read', draftId, consent: 'In the seminar.' };
    const card = await add(into, given);
    expect(card.title).toBe('What [hidden] read');
    const desk = await world.do<DeskView>(INES, 'get', `/reviews/${card.staff?.keyReviewId}`);
    expect(desk.draft.title).toBe('What [hidden] read');
    const html = desk.draft.parts[0]?.html ?? '';
    expect([html.split('[hidden]').length - 1, html.includes('Kiss')]).toEqual([230, false]);
  });

  it('takes no draft with a file in which nobody could look for its author’s name', async () => {
    const into = await publishedExchange(world);
    const id = await exchangeOfFiles(world);
    const report = { deliverableId: 'files', name: 'report.docx', bytes: sample('report.docx') };
    await attached(world, ANN, { exchangeId: id, ...report });
    await handIn(world, ANN, id);
    const { rows } = await world.do<ProgressView>(INES, 'get', `/exchanges/${id}/progress`);
    const draftId = rows.find(({ draft }) => draft.state === 'handed-in')?.draft.id ?? '';
    const given = { from: 'draft' as const, title: 'A report', draftId, consent: 'In the seminar.' };
    for (const copyState of ['waiting', 'failed'] as const) {
      await world.database.write((manager) => manager.updateAll(StoredFile, { copyState }));
      const refused = await world.as(INES, 'post', `/exchanges/${into}/practice`, given);
      expect([copyState, refused.body.code]).toEqual([copyState, 'file-unreadable']);
      expect(refused.body.sentence).toContain('“report.docx”');
    }
    expect((await listFor(INES, into)).drafts).toEqual([]);
  });

  it('goes along when its exchange is copied: draft, key and rule, and nothing that was tried', async () => {
    const { id, practiceId } = await practised();
    await tryIt(ANN, practiceId, 'low');
    const copied = await world.do(INES, 'post', '/courses/course/exchanges/copies', {
      ...{ from: 'exchange', sourceId: id, title: 'Again', shift: 'days', days: 60, firstAt: null, keepWeekdays: true },
    });
    await world.do(INES, 'post', `/exchanges/${copied.id}/publish`);
    const { drafts, rule } = await listFor(INES, copied.id);
    expect([rule, drafts.length]).toEqual([FIRST, 1]);
    expect(drafts[0]?.staff).toMatchObject({ key: 'submitted', tried: 0 });
    const desk = await world.do<DeskView>(INES, 'get', `/reviews/${drafts[0]?.staff?.keyReviewId}`);
    expect(desk.notes.map(({ body, place }) => [body, place.partId])).toEqual([
      ['Metres cannot be right.', desk.draft.parts[0]?.id],
    ]);
    expect(desk.answers['evidence']?.levelId).toBe('high');
  });

  it('has its key written while the exchange has no dates yet', async () => {
    const { id } = await world.do(INES, 'post', '/courses/course/exchanges', { title: 'Not planned yet' });
    const card = await add(id);
    const desk = await world.do<DeskView>(INES, 'get', `/reviews/${card.staff?.keyReviewId}`);
    expect(desk).toMatchObject({ editable: true, exchange: { reviewsDue: null } });
    expect((await listFor(INES, id)).until).toBeNull();
  });

  it('has three drafts at most, and refuses what is none', async () => {
    const id = await publishedExchange(world);
    for (const title of ['One', 'Two', 'Three']) await add(id, { ...TEXT, title });
    expect((await world.as(INES, 'post', `/exchanges/${id}/practice`, TEXT)).body.code).toBe('too-many-files');
    for (const wrong of [{ ...TEXT, html: ' ' }, { ...TEXT, title: '' }, { from: 'file', title: 'x' }, { from: 'all' }])
      expect((await world.as(INES, 'post', `/exchanges/${id}/practice`, wrong)).status).toBe(422);
    const unknown = { from: 'draft', title: 'x', draftId: id, consent: 'y' };
    expect((await world.as(INES, 'post', `/exchanges/${id}/practice`, unknown)).status).toBe(404);
    expect((await world.as(CHO, 'post', `/practice/${id}/begin`, { again: false })).status).toBe(404);
  });
});
