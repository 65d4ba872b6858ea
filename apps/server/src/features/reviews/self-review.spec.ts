import type { DeskView, PlanView, ProgressView, ReminderView, ReviewCard, TodayView } from '@salt-circle/contracts';
import { Mail } from '../../model/mail.js';
import { fillIn, reviewedExchange } from '../../testing/acts.js';
import { ANN, INES } from '../../testing/people.js';
import { AT, DATES, DAY } from '../../testing/plan.js';
import { World } from '../../testing/world.js';

let world: World;
beforeEach(async () => {
  world = await World.open();
});
afterEach(() => world.close());

describe('a self-review that is due by a time of its own', () => {
  const day = (days: number) => new Date(AT.reviewing + days * DAY).toISOString();
  const all = async (person: number, id: string) => {
    const cards = await world.do<ReviewCard[]>(person, 'get', `/exchanges/${id}/reviews`);
    const of = (self: boolean) => cards.find((card) => card.self === self)?.id ?? '';
    return { own: of(true), other: of(false), waits: cards.filter(({ waits }) => waits).map((card) => card.self) };
  };

  it('is late by that time, and keeps nobody from the drafts of others any longer', async () => {
    const dates = { ...DATES, selfReviewDue: day(0.5) };
    const { id } = await reviewedExchange(world, { selfReview: 'first', dates });
    const ann = await all(ANN, id);
    expect(ann.waits).toEqual([false]);
    expect(await world.do<DeskView>(ANN, 'get', `/reviews/${ann.own}`)).toMatchObject({
      submittable: true,
      exchange: { reviewsDue: day(0.5) },
    });
    world.clock.goTo(Date.parse(day(0.6)));
    expect((await all(ANN, id)).waits).toEqual([]);
    await fillIn(world, ANN, ann.other);
    const late = await world.as(ANN, 'post', `/reviews/${ann.own}/submit`);
    expect([late.status, late.body.code]).toEqual([403, 'over']);
    const { items } = await world.do<TodayView>(ANN, 'get', '/today');
    expect(items.map(({ kind, due }) => [kind, due])).toContainEqual(['reviews-missed', day(0.5)]);
    await world.do(ANN, 'post', `/reviews/${ann.other}/submit`);
  });

  it('is forgotten where no self-review is asked for, so that it clashes with nothing that one sees', async () => {
    const { id } = await reviewedExchange(world, { dates: { ...DATES, selfReviewDue: day(60) } });
    const { dates } = await world.do<PlanView>(INES, 'get', `/exchanges/${id}/plan`);
    expect(dates.selfReviewDue).toBeNull();
    await world.do(INES, 'put', `/exchanges/${id}/dates`, { dates: { ...dates, selfReviewDue: day(60) }, tell: false });
    world.clock.goTo(AT.checking);
    await world.do(INES, 'post', `/exchanges/${id}/release`, { at: null });
  });

  it('is moved like any other date, with a notice', async () => {
    const { id } = await reviewedExchange(world, { selfReview: 'with', dates: { ...DATES, selfReviewDue: day(0.5) } });
    const { dates } = await world.do<PlanView>(INES, 'get', `/exchanges/${id}/plan`);
    const moved = { dates: { ...dates, selfReviewDue: day(0.8) }, tell: true };
    await world.do(INES, 'put', `/exchanges/${id}/dates`, moved);
    const told = await world.database.read.findBy(Mail, { address: 'ann@example.org' });
    expect(told.at(-1)?.text).toContain('Self-reviews due: ');
    const board = await world.do<ProgressView>(INES, 'get', `/exchanges/${id}/progress`);
    const ask = { participantIds: board.rows.map((row) => row.id), about: 'reviews' };
    const { text } = await world.do<ReminderView>(INES, 'post', `/exchanges/${id}/reminders/preview`, ask);
    expect(text).toMatch(/Due: .* The review of your own draft has its own time: /);
    const early = await world.as(INES, 'put', `/exchanges/${id}/dates`, {
      ...{ ...moved, dates: { ...dates, selfReviewDue: dates.draftsOpen } },
    });
    expect(early.body.fields[0].sentence).toMatch(/^“Self-reviews due” \(.*\) must be after “Reviews open”/);
  });
});
