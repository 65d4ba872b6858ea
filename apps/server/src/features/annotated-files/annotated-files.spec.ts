import type { DeskView, FeedbackView } from '@salt-circle/contracts';
import { strFromU8, unzipSync } from 'fflate';
import { handIn, leaveNote, NOTE_ID, reviewedExchange, submitFilled } from '../../testing/acts.js';
import { ANN, BEN, CHO, INES, PEOPLE } from '../../testing/people.js';
import { AT } from '../../testing/plan.js';
import { World } from '../../testing/world.js';

let world: World;
let id: string;
let byAnn: string;
let byBen: string;
let draftOfBen: string;

beforeEach(async () => {
  world = await World.open();
  ({ id, byAnn, byBen } = await reviewedExchange(world));
  draftOfBen = (await world.do<DeskView>(ANN, 'get', `/reviews/${byAnn}`)).draft.draftId;
});
afterEach(() => world.close());

const SECOND = NOTE_ID.replace(/^./, '8');
const ofBen = () => `/exchanges/${id}/drafts/${draftOfBen}/feedback`;
const own = () => `/exchanges/${id}/feedback`;

/** Every file of the package one after the other: what is in none of them is not taken along. */
async function documentOf(who: number, path: string): Promise<string> {
  const { status, body } = await world.file(who, `${path}/draft.docx`);
  expect(status).toBe(200);
  const files = Object.values(unzipSync(new Uint8Array(body as Buffer)));
  return files.map((file) => strFromU8(file)).join('\n');
}
async function notesOf(who: number, path: string): Promise<string> {
  const { status, body } = await world.file(who, `${path}/notes.jsonld`);
  expect(status).toBe(200);
  return (body as Buffer).toString('utf8');
}
/** Leaves a note on these words of the version that the review is of. */
async function leave(who: number, review: string, exact: string, body: string, noteId = NOTE_ID): Promise<void> {
  const { draft } = await world.do<DeskView>(who, 'get', `/reviews/${review}`);
  const [part] = draft.parts;
  const text = part?.html?.replace(/<[^>]*>/g, '') ?? '';
  const start = text.indexOf(exact);
  const end = start + exact.length;
  const quote = { type: 'TextQuoteSelector' as const, exact, prefix: text.slice(0, start), suffix: text.slice(end) };
  const position = { type: 'TextPositionSelector' as const, start, end };
  const place = {
    version: draft.version,
    partId: part?.id ?? '',
    selector: { type: 'text' as const, quote, position },
  };
  await leaveNote(world, who, review, { body, kind: 'change', place }, noteId);
}

describe('what somebody takes along', () => {
  beforeEach(async () => {
    await leave(ANN, byAnn, 'Geese', 'Who counted them?');
    await leave(ANN, byAnn, 'bare', 'You should be ashamed.', SECOND);
    await submitFilled(world, ANN, byAnn);
    const kept = { kind: 'note', targetId: SECOND, reason: 'Not about the draft.', told: false, counts: true };
    await world.do(INES, 'put', `/reviews/${byAnn}/withheld`, kept);
    world.clock.goTo(AT.closed);
  });

  it('is, for the author, under aliases and without what is withheld, in every kind of file', async () => {
    const { reviews } = await world.do<FeedbackView>(BEN, 'get', own());
    const alias = reviews[0]?.reviewer.alias ?? 'none';
    for (const text of [await documentOf(BEN, own()), await notesOf(BEN, own())]) {
      expect(text).toContain('Who counted them?');
      expect(text).toContain(alias);
      expect(text).not.toContain('ashamed');
      expect(text).not.toContain(PEOPLE[ANN]?.name ?? '');
      expect(text).not.toContain('Not about the draft.');
    }
  });

  it('is, for staff, under names and with what is withheld', async () => {
    for (const text of [await documentOf(INES, ofBen()), await notesOf(INES, ofBen())]) {
      expect(text).toContain('ashamed');
      expect(text).toContain(PEOPLE[ANN]?.name ?? '');
    }
  });

  it('is, for a reviewer, the own review, and nobody’s name', async () => {
    const path = `/reviews/${byAnn}`;
    for (const text of [await documentOf(ANN, path), await notesOf(ANN, path)]) {
      expect(text).toContain('Who counted them?');
      expect(text).toContain('ashamed');
      expect(text).not.toContain(PEOPLE[BEN]?.name ?? '');
    }
    for (const who of [CHO, BEN])
      expect((await world.as(who, 'get', `/reviews/${byBen}/draft.docx`)).status).toBe(who === BEN ? 200 : 404);
  });

  it('is, of all drafts, for staff alone, and has each draft with its own notes', async () => {
    const { total, label } = JSON.parse(await notesOf(INES, `/exchanges/${id}`)) as { total: number; label: string };
    // Two answers and two notes; what is not submitted is not among them.
    expect([total, label]).toEqual([4, 'Field report']);
  });
});

describe('a draft that was handed in again while it was reviewed', () => {
  const first = 'Geese have grazed the islands bare since 2009.';
  const second = 'Everything is new. Nothing of it was there before.';
  beforeEach(async () => {
    await leave(ANN, byAnn, 'Geese', 'Who counted them?');
    await submitFilled(world, ANN, byAnn);
    world.clock.goTo(AT.drafting);
    await handIn(world, BEN, id, second);
    world.clock.goTo(AT.reviewing);
    const started = await world.do<{ id: string }>(INES, 'post', `/exchanges/${id}/drafts/${draftOfBen}/reviews`);
    await leave(INES, started.id, 'Nothing', 'Begin with what was there.', SECOND);
    await submitFilled(world, INES, started.id);
    world.clock.goTo(AT.closed);
  });

  it.each([
    [1, first, 'Who counted them?', 'Begin with what was there.'],
    [2, second, 'Begin with what was there.', 'Who counted them?'],
  ])('is taken along as version %i with the notes on that version, and no others', async (version, text, has, not) => {
    for (const [who, path] of [
      [BEN, own()],
      [INES, ofBen()],
    ] as const) {
      const { body } = await world.file(who, `${path}/draft.docx?version=${version}`);
      const files = unzipSync(new Uint8Array(body as Buffer));
      const [document, comments] = ['document', 'comments'].map((name) =>
        strFromU8(files[`word/${name}.xml`] as Uint8Array),
      );
      // A comment cuts its words from the rest of their line.
      expect(document?.replace(/<[^>]*>/g, '')).toContain(text);
      expect(comments).toContain(has);
      expect([document, comments].join()).not.toContain(not);
    }
  });

  it('has the notes on both among those for programs, each with its own text as its source', async () => {
    const { first: page } = JSON.parse(await notesOf(BEN, own())) as {
      first: { items: ReadonlyArray<{ motivation: unknown; target: { source?: { id: string } } }> };
    };
    const sources = page.items.flatMap(({ target }) => target.source?.id ?? []);
    const { drafts } = await world.do<FeedbackView>(BEN, 'get', own());
    expect(sources.toSorted()).toEqual(drafts.map(({ parts }) => `urn:uuid:${parts[0]?.id}`).toSorted());
  });

  it('is not there as a version that nobody reviewed', async () => {
    for (const version of ['3', '0', 'x', ''])
      expect((await world.as(BEN, 'get', `${own()}/draft.docx?version=${version}`)).status).toBe(404);
  });
});
