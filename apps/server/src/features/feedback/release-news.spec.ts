import type { TodayView } from '@salt-circle/contracts';
import { Mail } from '../../model/mail.js';
import { reviewedExchange, submitFilled } from '../../testing/acts.js';
import { ANN, BEN, INES, PEOPLE, type TestPerson } from '../../testing/people.js';
import { AT } from '../../testing/plan.js';
import { World } from '../../testing/world.js';
import { ReleaseNews } from './release-news.service.js';

let world: World;
beforeEach(async () => {
  world = await World.open();
});
afterEach(() => world.close());

const look = () => world.app.get(ReleaseNews).look();
const told = async () =>
  (await world.database.read.find(Mail)).filter(({ subject }) => subject.includes('feedback on your draft'));
const addressOf = (person: number) => (PEOPLE[person] as TestPerson).email;

describe('mail when feedback is released', () => {
  it('goes once to each author who has some, by the date, and says nothing of what is in it', async () => {
    const { byAnn } = await reviewedExchange(world);
    await submitFilled(world, ANN, byAnn);
    world.clock.goTo(AT.checking);
    await look();
    expect(await told()).toEqual([]);
    world.clock.goTo(AT.closed);
    await look();
    await look();
    // Ann reviewed Ben; Ben submitted nothing, so Ann has nothing to read.
    expect((await told()).map(({ address }) => address)).toEqual([addressOf(BEN)]);
    const [letter] = await told();
    expect(letter?.text).toMatch(/^One review of your draft/);
    expect(letter?.text).not.toContain('Ann');
  });

  it('goes out as well when an instructor releases by hand', async () => {
    const { id, byAnn } = await reviewedExchange(world);
    await submitFilled(world, ANN, byAnn);
    world.clock.goTo(AT.checking);
    await world.do(INES, 'post', `/exchanges/${id}/release`, { at: null });
    await look();
    expect(await told()).toHaveLength(1);
  });

  it('is not sent days later, for what was released while the server was down', async () => {
    const { byAnn } = await reviewedExchange(world);
    await submitFilled(world, ANN, byAnn);
    world.clock.goTo(AT.closed + 10 * 24 * 3_600_000);
    await look();
    expect(await told()).toEqual([]);
  });

  it('comes with each review where they are read one by one, under the alias alone', async () => {
    const { id } = await reviewedExchange(world, { feedbackEach: true, selfReview: 'with' });
    const reviewOf = async (person: number, self: boolean) => {
      const all = await world.do<Array<{ id: string; self: boolean }>>(person, 'get', `/exchanges/${id}/reviews`);
      return all.find((one) => one.self === self)?.id ?? '';
    };
    const byAnn = await reviewOf(ANN, false);
    const feedback = () => world.as(BEN, 'get', `/exchanges/${id}/feedback`);
    const todays = async () =>
      (await world.do<TodayView>(BEN, 'get', '/today')).items
        .map(({ kind }) => kind)
        .filter((kind) => /feedback/.test(kind));
    expect((await feedback()).body.reviews).toEqual([]);
    await look();
    expect([await told(), await todays()]).toEqual([[], []]);
    // What somebody wrote of the own draft is no news to that one.
    const self = await reviewOf(BEN, true);
    await submitFilled(world, BEN, self);
    await look();
    expect([await told(), await todays()]).toEqual([[], []]);
    await submitFilled(world, ANN, byAnn);
    await look();
    await look();
    expect((await told()).map(({ address }) => address)).toEqual([addressOf(BEN)]);
    const { body, text } = await feedback();
    expect(body.missing).toBe(0);
    const [other] = body.reviews.filter((review: { self: boolean }) => !review.self);
    expect(other.reviewer.alias).toEqual(expect.any(String));
    expect(text).not.toContain('Ann');
    expect(await todays()).toEqual(['read-feedback']);
    await world.do(BEN, 'post', `/exchanges/${id}/feedback/read`);
    expect(await todays()).toEqual([]);
    // At the release there is no second mail of it.
    world.clock.goTo(AT.closed);
    await look();
    expect(await told()).toHaveLength(1);
  });
});
