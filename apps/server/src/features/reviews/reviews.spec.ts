import type { DeskView, FeedbackView, ProgressView } from '@salt-circle/contracts';
import type { EntityManager } from 'typeorm';
import { Draft, DraftVersion } from '../../model/draft.js';
import { Exchange, Participant } from '../../model/exchange.js';
import { AnswerRow, NoteRow, Review } from '../../model/review.js';
import {
  allocateAll,
  fillIn,
  handIn,
  leaveNote,
  NOTE_ID,
  publishedExchange,
  submitFilled,
} from '../../testing/acts.js';
import { ANN, BEN, CHO, INES } from '../../testing/people.js';
import { AT } from '../../testing/plan.js';
import { World } from '../../testing/world.js';

let world: World;
let id: string;
let mine: string[];

/** All three have handed in and review the two others. */
beforeEach(async () => {
  world = await World.open();
  id = await publishedExchange(world, { reviewsPerStudent: 2 });
  world.clock.goTo(AT.drafting);
  for (const person of [ANN, BEN, CHO]) await handIn(world, person, id, `The bed rose by ${person} centimetres.`);
  await allocateAll(world, id, { seed: 5 });
  world.clock.goTo(AT.reviewing);
  mine = (await world.do<Array<{ id: string }>>(ANN, 'get', `/exchanges/${id}/reviews`)).map((review) => review.id);
});
afterEach(() => world.close());

const desk = (person: number, reviewId: string) => world.do<DeskView>(person, 'get', `/reviews/${reviewId}`);

describe('the reviews of a student', () => {
  it('are counted, and lead from one to the next that is not submitted', async () => {
    const [first, second] = mine as [string, string];
    expect(await desk(ANN, first)).toMatchObject({ position: 1, total: 2, nextId: second });
    expect(await desk(ANN, second)).toMatchObject({ position: 2, total: 2, nextId: first });
    await submitFilled(world, ANN, first);
    expect((await desk(ANN, second)).nextId).toBeNull();
    expect((await desk(ANN, first)).nextId).toBe(second);
  });

  it('are of both others, each once, never the own', async () => {
    const texts = await Promise.all(mine.map(async (review) => (await desk(ANN, review)).draft.parts[0]?.html));
    expect(texts.toSorted()).toEqual([
      `<p>The bed rose by ${BEN} centimetres.</p>`,
      `<p>The bed rose by ${CHO} centimetres.</p>`,
    ]);
  });

  it('lead staff on to the next by the same reviewer, submitted or not', async () => {
    const [first, second] = mine as [string, string];
    expect(await desk(INES, second)).toMatchObject({ position: 2, nextId: first });
  });

  it('list notes in the order of the text, not of their making', async () => {
    const [first] = mine as [string];
    const ids = [NOTE_ID, NOTE_ID.replace(/^./, '8'), NOTE_ID.replace(/^./, '9')];
    for (const [index, start] of [9, 1, 5].entries()) {
      await leaveNote(world, ANN, first, { start, end: start + 3 }, ids[index]);
    }
    expect((await desk(ANN, first)).notes.map((note) => note.id)).toEqual([ids[1], ids[2], ids[0]]);
  });

  it('read the version that counts, also when it is handed in later than the first look', async () => {
    world.clock.goTo(AT.drafting);
    await handIn(world, BEN, id, 'A second thought.');
    world.clock.goTo(AT.reviewing);
    const seen = await Promise.all(mine.map((review) => desk(ANN, review)));
    const ofBen = seen.find(({ draft }) => draft.parts[0]?.html?.includes('second thought') === true);
    expect([ofBen?.draft.version, ofBen?.overtaken]).toEqual([2, false]);
    // The author can still read the first one; reviewers cannot.
    expect(await world.do(BEN, 'get', `/exchanges/${id}/draft/versions/1`)).toMatchObject({
      reading: { parts: [{ html: `<p>The bed rose by ${BEN} centimetres.</p>` }] },
    });
  });

  it('stay with the version on which they began, whatever is handed in after that', async () => {
    const first = mine.find((review) => review !== undefined) as string;
    await leaveNote(world, ANN, first);
    const before = await desk(ANN, first);
    const { participantId } = await world.database.read.findOneByOrFail(Draft, { id: before.draft.draftId });
    const author = await authorOf(participantId);
    world.clock.goTo(AT.drafting);
    await handIn(world, author, id, 'Everything is new. Nothing of it was there before.');
    world.clock.goTo(AT.reviewing);
    const after = await desk(ANN, first);
    expect([after.draft, after.notes]).toEqual([before.draft, before.notes]);
    expect([before.overtaken, after.overtaken]).toEqual([false, true]);
    // The other reviewer has not begun, and reads what counts now; the author gets both.
    const other = [BEN, CHO].find((one) => one !== author) as number;
    const reviews = await world.do<Array<{ id: string }>>(other, 'get', `/exchanges/${id}/reviews`);
    const desks = await Promise.all(reviews.map((review) => desk(other, review.id)));
    const late = desks.find(({ draft }) => draft.draftId === before.draft.draftId) as DeskView;
    expect([late.draft.version, before.draft.version]).toEqual([2, 1]);
    await leaveNote(world, other, late.id, { start: 0, end: 10 }, NOTE_ID.replace(/^./, '8'));
    for (const [who, review] of [
      [ANN, first],
      [other, late.id],
    ] as const) {
      await submitFilled(world, who, review);
    }
    world.clock.goTo(AT.closed);
    const { drafts, reviews: got } = await world.do<FeedbackView>(author, 'get', `/exchanges/${id}/feedback`);
    expect(drafts.map(({ version }) => version)).toEqual([2, 1]);
    expect(got.map(({ version, notes }) => [version, notes[0]?.place.version])).toEqual(
      expect.arrayContaining([
        [1, 1],
        [2, 2],
      ]),
    );
  });

  it('begin with the version in view, though another one was handed in since', async () => {
    const [first] = mine as [string];
    const { draft } = await desk(ANN, first);
    const { participantId } = await world.database.read.findOneByOrFail(Draft, { id: draft.draftId });
    world.clock.goTo(AT.drafting);
    await handIn(world, await authorOf(participantId), id, 'Second.');
    world.clock.goTo(AT.reviewing);
    const answer = { revision: 0, text: 'Say how large the site is.' };
    await world.do(ANN, 'put', `/reviews/${first}/answers/first`, { ...answer, version: 1 });
    expect(await desk(ANN, first)).toMatchObject({ draft: { version: 1 }, overtaken: true });
    const stale = await world.as(ANN, 'put', `/reviews/${first}/answers/evidence`, {
      revision: 0,
      version: 2,
      levelId: 'low',
    });
    expect([stale.status, stale.body.code]).toEqual([409, 'draft-changed']);
  });

  it('never read a revision, which is handed in after feedback', async () => {
    const [first] = mine as [string];
    const { draft } = await desk(ANN, first);
    const row = await world.database.read.findOneByOrFail(DraftVersion, { draftId: draft.draftId });
    await world.database.write((manager) =>
      manager.insert(DraftVersion, { ...row, id: 'revision', number: 2, purpose: 'revision' }),
    );
    expect((await desk(ANN, first)).draft.version).toBe(1);
    const stale = await world.as(ANN, 'put', `/reviews/${first}/answers/evidence`, {
      revision: 0,
      version: 2,
      levelId: 'low',
    });
    expect(stale.body.code).toBe('draft-changed');
  });
});

describe('a submitted review', () => {
  const submitted = async (): Promise<string> => {
    const [first] = mine as [string];
    await submitFilled(world, ANN, first);
    return first;
  };

  it('is given back by an instructor who says why, also after reviews were due, and submitted again until release', async () => {
    const first = await submitted();
    world.clock.goTo(AT.checking);
    const at = `/reviews/${first}/reopen`;
    expect((await world.as(INES, 'post', at, { reason: ' ' })).body.fields).toMatchObject([{ path: 'reason' }]);
    expect((await world.as(ANN, 'post', at)).body.code).toBe('over');
    await world.do(INES, 'post', at, { reason: 'The author asks which table you mean.' });
    expect(await desk(ANN, first)).toMatchObject({
      changing: true,
      editable: true,
      submittable: true,
      reopenReason: 'The author asks which table you mean.',
    });
    // Staff read what was submitted, and not what they said to the reviewer, in the reviewer's words.
    expect((await desk(INES, first)).reopenReason).toBeNull();
    const { items } = await world.do<{ items: object[] }>(ANN, 'get', '/today');
    expect(items).toContainEqual(expect.objectContaining({ kind: 'submit-again', reviewId: first }));
    const { mails } = await world.do<{ mails: Array<{ id: string; to: string; subject: string }> }>(
      INES,
      'get',
      '/courses/course/outbox',
    );
    const mail = mails.find(({ subject }) => subject.includes('has been reopened'));
    expect(mail?.to).toBe('ann@example.org');
    const { text } = await world.do<{ text: string }>(INES, 'get', `/courses/course/outbox/${mail?.id}`);
    expect(text).toContain('The author asks which table you mean.');
    await world.do(ANN, 'put', `/reviews/${first}/answers/first`, {
      revision: 1,
      text: 'The first table on page two.',
    });
    await world.do(ANN, 'post', `/reviews/${first}/submit`);
    expect(await desk(ANN, first)).toMatchObject({ changing: false, reopenReason: null, editable: false });
    world.clock.goTo(AT.closed);
    expect((await world.as(INES, 'post', at, { reason: 'Once more.' })).body.code).toBe('over');
  });

  it('is given back until a time of its own, and not after that', async () => {
    const first = await submitted();
    world.clock.goTo(AT.checking);
    const at = `/reviews/${first}/reopen`;
    const until = (time: number) => ({ reason: 'Which table?', until: new Date(time).toISOString() });
    expect((await world.as(INES, 'post', at, until(AT.checking - 1))).body.fields).toMatchObject([{ path: 'until' }]);
    await world.do(INES, 'post', at, until(AT.checking + 3_600_000));
    expect(await desk(ANN, first)).toMatchObject({
      submittable: true,
      reopenUntil: new Date(AT.checking + 3_600_000).toISOString(),
    });
    world.clock.goTo(AT.checking + 2 * 3_600_000);
    expect((await world.as(ANN, 'post', `/reviews/${first}/submit`)).body.code).toBe('over');
  });

  it('is final for its writer where the plan says so', async () => {
    const first = await submitted();
    await world.database.write((manager) => manager.update(Exchange, { id }, { reviewsFinal: true }));
    expect(await desk(ANN, first)).toMatchObject({ reopenable: false, editable: false });
    expect((await world.as(ANN, 'post', `/reviews/${first}/reopen`)).body.code).toBe('already-submitted');
    await world.do(INES, 'post', `/reviews/${first}/reopen`, { reason: 'Please say more.' });
    expect((await desk(ANN, first)).submittable).toBe(true);
  });
});

describe('time at work', () => {
  const spend = (review: string, seconds: unknown) => world.as(ANN, 'post', `/reviews/${review}/time`, { seconds });
  const minutes = async () => {
    const { rows } = await world.do<ProgressView>(INES, 'get', `/exchanges/${id}/progress`);
    return rows.map((row) => row.minutes);
  };

  it('is added up, never more than has passed, shown to the reviewer and in whole minutes to staff', async () => {
    const [first] = mine as [string];
    await spend(first, 90);
    expect((await desk(ANN, first)).spentSeconds).toBe(90);
    // A second tab tells of the same minute.
    await spend(first, 60);
    expect((await desk(ANN, first)).spentSeconds).toBe(90);
    world.clock.goTo(AT.reviewing + 10 * 60_000);
    await spend(first, 60);
    expect((await desk(ANN, first)).spentSeconds).toBe(150);
    expect((await minutes()).toSorted()).toEqual([0, 0, 3]);
    expect((await desk(INES, first)).spentSeconds).toBe(150);
    // It makes no work of looking.
    expect(await world.do(ANN, 'get', `/exchanges/${id}/reviews`)).toMatchObject([{ state: 'not-begun' }, {}]);
    for (const wrong of [0, -5, 1.5, 1e9, '60']) expect((await spend(first, wrong)).status).toBe(422);
  });

  it('is not measured where the course does not, and nothing of it is told', async () => {
    const [first] = mine as [string];
    await spend(first, 90);
    await world.do(INES, 'put', '/courses/course', {
      title: 'Course',
      timeZone: 'UTC',
      holidays: [],
      measuresTime: false,
    });
    await spend(first, 90);
    expect((await desk(ANN, first)).spentSeconds).toBeNull();
    expect(await minutes()).toEqual([null, null, null]);
  });

  it('is not told to the author, who reads the review later', async () => {
    const [first] = mine as [string];
    const { draft } = await desk(ANN, first);
    const { participantId } = await world.database.read.findOneByOrFail(Draft, { id: draft.draftId });
    await fillIn(world, ANN, first);
    await spend(first, 90);
    await world.do(ANN, 'post', `/reviews/${first}/submit`);
    world.clock.goTo(AT.closed);
    expect((await desk(await authorOf(participantId), first)).spentSeconds).toBeNull();
  });
});

/** The place in the list of people of a participant. */
async function authorOf(participantId: string): Promise<number> {
  const { personId } = await world.database.read.findOneByOrFail(Participant, { id: participantId });
  return world.people.findIndex((person) => person.id === personId);
}

describe('what staff keep from an author', () => {
  const withheldAt = AT.checking;
  let byAnn: string;
  const received = async (): Promise<FeedbackView> => {
    world.clock.goTo(AT.closed);
    return world.do<FeedbackView>(await authorOfFirst(), 'get', `/exchanges/${id}/feedback`);
  };
  const authorOfFirst = async () => {
    const review = await world.database.read.findOneByOrFail(Review, { id: byAnn });
    const draft = await world.database.read.findOneByOrFail(Draft, { id: review.draftId });
    return authorOf(draft.participantId);
  };

  beforeEach(async () => {
    [byAnn = ''] = mine;
    await leaveNote(world, ANN, byAnn);
    await submitFilled(world, ANN, byAnn);
  });

  it.each<[string, (manager: EntityManager) => Promise<unknown>, [number, string[], number]]>([
    ['nothing', () => Promise.resolve(), [1, ['evidence', 'first'], 1]],
    [
      'a note',
      (manager) => manager.update(NoteRow, { reviewId: byAnn }, { withheldAt }),
      [1, ['evidence', 'first'], 0],
    ],
    [
      'an answer',
      (manager) => manager.update(AnswerRow, { reviewId: byAnn, itemId: 'first' }, { withheldAt }),
      [1, ['evidence'], 1],
    ],
    ['a whole review', (manager) => manager.update(Review, { id: byAnn }, { withheldAt }), [0, [], 0]],
  ])(
    '%s is not told of, and its reviewer and staff see it as before',
    async (_, withhold, [reviews, answers, notes]) => {
      const before = await Promise.all([ANN, INES].map((who) => desk(who, byAnn)));
      await world.database.write(withhold);
      expect(await Promise.all([ANN, INES].map((who) => desk(who, byAnn)))).toEqual(before);
      const feedback = await received();
      const [review] = feedback.reviews;
      expect([feedback.reviews.length, Object.keys(review?.answers ?? {}), review?.notes.length ?? 0]).toEqual([
        reviews,
        answers,
        notes,
      ]);
      const seen = await world.as(await authorOfFirst(), 'get', `/reviews/${byAnn}`);
      expect(seen.status).toBe(reviews === 1 ? 200 : 404);
    },
  );
});
