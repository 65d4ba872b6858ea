import type { ExchangeView, FeedbackView, OutboxView, ReleaseView, TodayView } from '@salt-circle/contracts';
import { leaveNote, NOTE_ID, reviewedExchange, submitFilled } from '../../testing/acts.js';
import { ANN, BEN, CHO, INES, PEOPLE, TOM } from '../../testing/people.js';
import { AT } from '../../testing/plan.js';
import { World } from '../../testing/world.js';
import { ReleaseNews } from '../feedback/release-news.service.js';

let world: World;
let id: string;

beforeEach(async () => {
  world = await World.open();
  const ids = await reviewedExchange(world);
  id = ids.id;
  for (const [who, reviewId, note] of [
    [ANN, ids.byAnn, NOTE_ID],
    [BEN, ids.byBen, '22222222-2222-4222-8222-222222222222'],
  ] as const) {
    await leaveNote(world, who, reviewId, {}, note);
    await submitFilled(world, who, reviewId);
  }
});
afterEach(() => world.close());

const view = () => world.do<ReleaseView>(INES, 'get', `/exchanges/${id}/release`);
const rowOf = async (who: number) => (await view()).rows.find(({ person }) => person.name === PEOPLE[who]?.name);
const set = async (who: number, how: string, reason?: string, by: number = INES) =>
  world.as(by, 'put', `/exchanges/${id}/release/people`, {
    participantIds: [(await rowOf(who))?.participantId ?? ''],
    how,
    ...(reason !== undefined && { reason }),
  });
const feedback = (who: number) => world.as(who, 'get', `/exchanges/${id}/feedback`);
const mailed = async () => {
  await world.app.get(ReleaseNews).look();
  const { mails } = await world.do<OutboxView>(INES, 'get', '/courses/course/outbox');
  return mails.filter(({ subject }) => subject.includes('feedback on your draft')).map(({ to }) => to);
};

describe('the release', () => {
  it('says before it who gets how many, what waits, and what is withheld', async () => {
    const { rows, read } = await view();
    expect(read).toBe(0);
    expect(
      rows.map(({ person, reviews, waiting, withheld, how }) => [person.name, reviews, waiting, withheld, how]),
    ).toEqual([
      [PEOPLE[ANN]?.name, 1, 0, 0, 'as-planned'],
      [PEOPLE[BEN]?.name, 1, 0, 0, 'as-planned'],
    ]);
  });

  it('can come early for some: they read it and hear of it, nobody else does', async () => {
    expect((await set(BEN, 'early')).status).toBe(204);
    expect((await feedback(BEN)).status).toBe(200);
    expect((await feedback(ANN)).status).toBe(403);
    const { items } = await world.do<TodayView>(BEN, 'get', '/today');
    expect(items.map(({ kind }) => kind)).toContain('read-feedback');
    expect(await mailed()).toEqual([PEOPLE[BEN]?.email]);
    world.clock.goTo(AT.closed);
    expect((await mailed()).toSorted()).toEqual([PEOPLE[ANN]?.email, PEOPLE[BEN]?.email].toSorted());
  });

  it('can be held back from some, with a reason that staff alone read, and told to them later', async () => {
    expect((await set(BEN, 'held')).status).toBe(422);
    expect((await set(BEN, 'held', 'A complaint is open.')).status).toBe(204);
    world.clock.goTo(AT.closed);
    expect((await feedback(ANN)).status).toBe(200);
    expect((await feedback(BEN)).status).toBe(403);
    const exchange = await world.do<ExchangeView>(BEN, 'get', `/exchanges/${id}`);
    expect(exchange).toMatchObject({ feedbackOpen: false, feedbackHeld: true, marks: { reviewsReceived: null } });
    expect(JSON.stringify(exchange)).not.toContain('complaint');
    expect(await mailed()).toEqual([PEOPLE[ANN]?.email]);
    expect(await rowOf(BEN)).toMatchObject({ how: 'held', reason: 'A complaint is open.' });
    await set(BEN, 'as-planned');
    expect((await world.do<FeedbackView>(BEN, 'get', `/exchanges/${id}/feedback`)).reviews).toHaveLength(1);
    expect(await mailed()).toContain(PEOPLE[BEN]?.email);
  });

  it('leaves a held-back author a reviewer like any other', async () => {
    await set(BEN, 'held', 'A complaint is open.');
    const mine = await world.do<Array<{ id: string }>>(BEN, 'get', `/exchanges/${id}/reviews`);
    expect((await world.as(BEN, 'post', `/reviews/${mine[0]?.id}/reopen`)).status).toBe(204);
    expect((await world.as(BEN, 'post', `/reviews/${mine[0]?.id}/submit`)).status).toBe(200);
  });

  it('can be taken back until somebody has read it', async () => {
    world.clock.goTo(AT.checking);
    await world.do(INES, 'post', `/exchanges/${id}/release`, { at: null });
    expect((await feedback(ANN)).status).toBe(200);
    const later = new Date(AT.closed).toISOString();
    expect((await world.as(INES, 'post', `/exchanges/${id}/release`, { at: later })).status).toBe(200);
    expect((await feedback(ANN)).status).toBe(403);
    await world.do(INES, 'post', `/exchanges/${id}/release`, { at: null });
    await world.do(ANN, 'post', `/exchanges/${id}/feedback/read`);
    const { status, body } = await world.as(INES, 'post', `/exchanges/${id}/release`, { at: later });
    expect([status, body.code]).toEqual([409, 'already-read']);
    expect(body.sentence).toContain('One author has read');
    // Held back from whoever has not read it; what is read stays.
    await set(ANN, 'held', 'Too late.');
    expect((await feedback(ANN)).status).toBe(200);
  });

  it('is the instructor’s: assistants look, students do not', async () => {
    expect((await set(BEN, 'early', undefined, TOM)).status).toBe(403);
    expect((await world.as(TOM, 'get', `/exchanges/${id}/release`)).status).toBe(200);
    expect((await world.as(CHO, 'get', `/exchanges/${id}/release`)).status).toBe(403);
    const wrong = { participantIds: ['x'], how: 'early' };
    expect((await world.as(INES, 'put', `/exchanges/${id}/release/people`, wrong)).status).toBe(404);
    const none = { participantIds: [], how: 'early' };
    expect((await world.as(INES, 'put', `/exchanges/${id}/release/people`, none)).status).toBe(422);
  });
});
