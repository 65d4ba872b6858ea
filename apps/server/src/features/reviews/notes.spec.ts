import { randomUUID } from 'node:crypto';
import type { DeskView, NoteRequest, OwnRemarkView, PartView, ReviewNamesView } from '@salt-circle/contracts';
import { attached, exchangeOfFiles, sample } from '../../testing/uploads.js';
import { allocateAll, fillIn, handInSaved, write } from '../../testing/acts.js';
import { ANN, BEN, CHO, INES } from '../../testing/people.js';
import { Enrolment } from '../../model/course.js';
import { AT } from '../../testing/plan.js';
import { World } from '../../testing/world.js';

let world: World;
let id: string;
let byBen: string;
let parts: readonly PartView[];

const FILES = ['report.pdf', 'picture.png'] as const;

/** Ann has handed in a text, a PDF, a picture and a film; Ben reviews her. */
beforeAll(async () => {
  world = await World.open();
  id = await exchangeOfFiles(world);
  for (const who of [ANN, BEN]) {
    await write(world, who, id, '<p>The bed rose by four centimetres.</p><p>Geese graze here.</p>');
    const sending = { exchangeId: id, deliverableId: 'files' };
    if (who === ANN) {
      for (const name of FILES) await attached(world, who, { ...sending, name, bytes: sample(name) });
      await attached(world, who, { ...sending, deliverableId: 'talk', name: 't.mp4', bytes: sample('talk.mp4') });
    }
    await handInSaved(world, who, id);
  }
  await allocateAll(world, id);
  world.clock.goTo(AT.reviewing);
  const [review] = await world.do<Array<{ id: string }>>(BEN, 'get', `/exchanges/${id}/reviews`);
  byBen = review?.id ?? '';
  parts = (await desk()).draft.parts;
});
afterAll(() => world.close());

const desk = () => world.do<DeskView>(BEN, 'get', `/reviews/${byBen}`);
const part = (show: PartView['show']) => parts.find((one) => one.show === show)?.id ?? '';

const quote = (exact: string) => ({ type: 'TextQuoteSelector', exact, prefix: '', suffix: '' });
const position = (start: number, end: number) => ({ type: 'TextPositionSelector', start, end });
const words = (exact: string, start: number) => ({
  quote: quote(exact),
  position: position(start, start + exact.length),
});
const REGION = { type: 'region', x: 0.1, y: 0.2, width: 0.3, height: 0.4 };
const note = (partId: string | null, selector: object, more: object = {}) => ({
  revision: 0,
  kind: 'change',
  body: 'Say how deep it was.',
  place: { version: 1, partId, selector },
  ...more,
});
const leave = (body: object, noteId: string = randomUUID()) =>
  world.as(BEN, 'put', `/reviews/${byBen}/notes/${noteId}`, body);

describe('places of notes', () => {
  it('are words, pages, regions, points, moments, spans, whole parts and the whole draft, and come back as they were', async () => {
    const places: Array<[string | null, object]> = [
      [null, { type: 'whole' }],
      [part('html'), { type: 'whole' }],
      [part('html'), { type: 'text', ...words('bed rose', 4) }],
      [part('pdf'), { type: 'page', page: 1 }],
      [part('pdf'), { type: 'passage', page: 1, ...words('eastern basin', 4) }],
      [part('pdf'), { ...REGION, page: 1 }],
      [part('picture'), { ...REGION, page: null }],
      [part('picture'), { ...REGION, page: null, width: 0, height: 0 }],
      [part('video'), { type: 'moment', start: 0.5, end: null }],
      [part('video'), { type: 'moment', start: 0.25, end: 0.75 }],
    ];
    for (const [partId, selector] of places) {
      const { status, body } = await leave(note(partId, selector));
      expect([selector, status, body.place]).toEqual([selector, 200, { version: 1, partId, selector }]);
    }
    const { notes } = await desk();
    expect(notes).toHaveLength(places.length);
    for (const [partId, selector] of places) {
      expect(notes.map(({ place }) => place)).toContainEqual({ version: 1, partId, selector });
    }
    for (const one of notes) await world.do(BEN, 'delete', `/reviews/${byBen}/notes/${one.id}`);
  });

  const show: Record<string, PartView['show']> = { text: 'html', pdf: 'pdf', picture: 'picture', film: 'video' };
  it.each<[string, string, object]>([
    ['a moment of a text', 'text', { type: 'moment', start: 0, end: null }],
    ['a passage of a film', 'film', { type: 'text', ...words('bed', 4) }],
    ['a page that is not there', 'pdf', { type: 'page', page: 900 }],
    ['a region of a page that is not there', 'pdf', { ...REGION, page: 900 }],
    ['a region outside of its page', 'pdf', { ...REGION, page: 1, x: 0.9 }],
    ['a region of a page of a picture', 'picture', { ...REGION, page: 1 }],
    ['a region of no page of a PDF', 'pdf', { ...REGION, page: null }],
    ['words at ten to the ninth of a page', 'pdf', { type: 'passage', page: 1, ...words('bed', 1e9) }],
    [
      'words that do not fit their place',
      'pdf',
      { type: 'passage', page: 1, quote: quote('bed'), position: position(0, 99) },
    ],
    ['a span that ends before it begins', 'film', { type: 'moment', start: 0.7, end: 0.2 }],
    ['a moment after the end', 'film', { type: 'moment', start: 4_000, end: null }],
    ['null in the place of a place', 'film', null as unknown as object],
    ['a list in the place of a place', 'film', []],
    ['a page that is a word', 'pdf', { type: 'page', page: '1; DROP TABLE note' }],
  ])('are not %s', async (_, where, selector) => {
    const { status, body } = await leave(note(part(show[where] as PartView['show']), selector));
    expect([status, body.code, body.fields?.length > 0]).toEqual([422, 'invalid', true]);
    expect((await desk()).notes).toEqual([]);
  });

  it('can be moved: a moment becomes a span', async () => {
    const noteId = randomUUID();
    await leave(note(part('video'), { type: 'moment', start: 0.2, end: null }), noteId);
    const span = { type: 'moment', start: 0.2, end: 0.6 };
    expect((await leave(note(part('video'), span, { revision: 1 }), noteId)).body).toMatchObject({
      revision: 2,
      place: { selector: span },
    });
    await world.do(BEN, 'delete', `/reviews/${byBen}/notes/${noteId}`);
  });
});

describe('proposed edits', () => {
  const passage = () => note(part('html'), { type: 'text', ...words('four', 16) }, { body: '' });

  it('are kept with their note, count as something said, and are part of what makes it the same note', async () => {
    const noteId = randomUUID();
    const edits = [
      { type: 'replace', text: 'five' },
      { type: 'insert', side: 'after', text: ' or five' },
      { type: 'delete' },
      { type: 'split' },
      { type: 'join' },
      { type: 'move', side: 'before', to: words('Geese', 34) },
    ];
    for (const [revision, edit] of edits.entries()) {
      const { status, body } = await leave({ ...passage(), edit, revision }, noteId);
      expect([edit, status, body.edit, body.revision]).toEqual([edit, 200, edit, revision + 1]);
    }
    const [row] = await world.do<Array<{ notes: number }>>(BEN, 'get', `/exchanges/${id}/reviews`);
    expect(row?.notes).toBe(1);
    // Sent again, its answer lost on the way.
    expect((await leave({ ...passage(), edit: edits.at(-1), revision: 2 }, noteId)).body.revision).toBe(6);
    expect((await leave({ ...passage(), edit: edits[0], revision: 2 }, noteId)).status).toBe(409);
    await world.do(BEN, 'delete', `/reviews/${byBen}/notes/${noteId}`);
  });

  it.each<[string, object]>([
    ['of a Keep note', { kind: 'keep', edit: { type: 'delete' } }],
    ['of an unknown kind', { edit: { type: 'translate' } }],
    ['without words', { edit: { type: 'replace', text: '' } }],
    ['of a hundred thousand letters', { edit: { type: 'replace', text: 'x'.repeat(100_000) } }],
    ['to no place', { edit: { type: 'move', side: 'before', to: null } }],
    ['in a list', { edit: [] }],
    ['on no side', { edit: { type: 'insert', side: 'above', text: 'x' } }],
    ['with more in it', { edit: { type: 'delete', script: 'x' } }],
  ])('are refused %s', async (_, more) => {
    expect((await leave({ ...passage(), ...more })).status).toBe(422);
    expect((await desk()).notes).toEqual([]);
  });

  it('are refused where there are no words', async () => {
    const { body } = await leave(note(part('picture'), { ...REGION, page: null }, { edit: { type: 'delete' } }));
    expect(body.sentence).toBe('An edit is proposed for a passage. Select its words, or say in the note what to do.');
  });

  it('are left out by pages from before there were any', async () => {
    const { edit: _edit, ...old } = passage() as NoteRequest;
    const noteId = randomUUID();
    expect((await leave({ ...old, body: 'How?' }, noteId)).body).toMatchObject({ edit: null, itemId: null });
    await world.do(BEN, 'delete', `/reviews/${byBen}/notes/${noteId}`);
  });
});

describe('notes under items of the form', () => {
  it('are filed and taken out again; an item that is not there is refused', async () => {
    const noteId = randomUUID();
    const filed = note(null, { type: 'whole' }, { itemId: 'evidence' });
    expect((await leave(filed, noteId)).body).toMatchObject({ itemId: 'evidence', revision: 1 });
    expect((await leave({ ...filed, itemId: null, revision: 1 }, noteId)).body).toMatchObject({ itemId: null });
    expect((await leave({ ...filed, itemId: 'nowhere', revision: 2 }, noteId)).status).toBe(422);
    await world.do(BEN, 'delete', `/reviews/${byBen}/notes/${noteId}`);
  });
});

describe('what was written', () => {
  it('is looked through for what the writer may know, and is no way to look people up', async () => {
    const noteId = randomUUID();
    await leave(note(null, { type: 'whole' }, { body: 'Ben Kiss asks Cho Lam and Ann Berg, says somebody.' }), noteId);
    const { names, ...rest } = await world.do<ReviewNamesView>(BEN, 'get', `/reviews/${byBen}/names`);
    expect(rest).toEqual({ policy: 'both-ways', searched: 'all', unread: 0 });
    expect(names).toEqual([{ itemId: null, noteId, exact: 'Ben Kiss', own: true }]);
    // Ids and addresses are called out whether anybody has them or not.
    await world.database.write((manager) => manager.update(Enrolment, { id: `e-${CHO}` }, { campusId: 'cr-4101' }));
    const guesses = 'I saw CR-4101, CR 4102 and CR4103, but no 2024; write to cho@example.org or nobody@example.net.';
    await leave(note(null, { type: 'whole' }, { body: guesses, revision: 1 }), noteId);
    const called = (await world.do<ReviewNamesView>(BEN, 'get', `/reviews/${byBen}/names`)).names;
    expect(called.map(({ exact, own }) => [exact, own])).toEqual(
      ['CR-4101', 'CR 4102', 'CR4103', 'cho@example.org', 'nobody@example.net'].map((exact) => [exact, false]),
    );
    await world.do(BEN, 'delete', `/reviews/${byBen}/notes/${noteId}`);
    expect(await world.do(BEN, 'get', `/reviews/${byBen}/names`)).toMatchObject({ names: [] });
    expect(await world.do(INES, 'get', `/reviews/${byBen}/names`)).toMatchObject({ searched: 'none', names: [] });
  });

  it('is offered again once submitted: to its writer alone, changed and removed without touching the note', async () => {
    const remarks = (who: number) => world.do<OwnRemarkView[]>(who, 'get', '/own-remarks');
    await fillIn(world, BEN, byBen);
    await leave(note(null, { type: 'whole' }, { body: 'Say how deep it was measured.' }));
    await leave(note(part('html'), { type: 'whole' }, { body: 'Source?' }));
    expect(await remarks(BEN)).toEqual([]);
    await world.do(BEN, 'post', `/reviews/${byBen}/submit`);
    const [remark, ...more] = await remarks(BEN);
    expect([remark, more]).toEqual([
      {
        id: expect.any(String),
        title: 'Say how deep it was measured.',
        body: 'Say how deep it was measured.',
        courseTitle: expect.any(String),
        uses: 1,
      },
      [],
    ]);
    for (const who of [ANN, CHO, INES]) expect(await remarks(who)).toEqual([]);
    const at = `/own-remarks/${remark?.id}`;
    expect((await world.as(ANN, 'put', at, { title: 'Mine', body: 'Mine.' })).status).toBe(404);
    expect((await world.as(ANN, 'delete', at)).status).toBe(404);
    expect((await world.as(BEN, 'put', at, { title: '', body: 'x' })).status).toBe(422);
    await world.do(BEN, 'put', at, { title: 'Depth', body: 'How deep?' });
    expect(await remarks(BEN)).toMatchObject([{ title: 'Depth', body: 'How deep?', uses: 1 }]);
    expect((await desk()).notes.map(({ body }) => body)).toContain('Say how deep it was measured.');
    // Submitted again it counts nothing twice, and what was changed is a remark of its own by now.
    await world.do(BEN, 'post', `/reviews/${byBen}/reopen`);
    await world.do(BEN, 'post', `/reviews/${byBen}/submit`);
    expect((await remarks(BEN)).map(({ body, uses }) => [body, uses])).toEqual([
      ['How deep?', 1],
      ['Say how deep it was measured.', 1],
    ]);
    // Removed, it does not come back by being submitted again.
    for (const { id: one } of await remarks(BEN)) await world.do(BEN, 'delete', `/own-remarks/${one}`);
    await world.do(BEN, 'post', `/reviews/${byBen}/reopen`);
    await world.do(BEN, 'post', `/reviews/${byBen}/submit`);
    expect((await remarks(BEN)).map(({ body }) => body)).toEqual([]);
  });
});
