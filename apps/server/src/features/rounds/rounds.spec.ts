import type {
  AllocationView,
  DeskView,
  EarlierView,
  ExchangeView,
  InboxView,
  MyDraftView,
  ReviewCard,
  RoundCard,
  TodayView,
} from '@salt-circle/contracts';
import { fillIn, handInSaved, leaveNote, reviewedExchange, submitFilled, write } from '../../testing/acts.js';
import { ANN, BEN, CHO, INES, PEOPLE, TOM } from '../../testing/people.js';
import { DATES, DAY } from '../../testing/plan.js';
import { World } from '../../testing/world.js';

const iso = (day: number) => new Date(Date.UTC(2026, 2, day)).toISOString();
const REVISING = Date.UTC(2026, 2, 28);
const REVISED = 'The bed rose by four centimetres a decade, as the levels of 1962 and 2021 show.';
const ASKED = { title: 'Second look', reviewers: 'same', earlierShown: false, reviewsDue: iso(40), release: null };

let world: World;
let id: string;
let byAnn: string;

const make = (part: object = {}, who: number = INES) =>
  world.as(who, 'post', `/exchanges/${id}/rounds`, { ...ASKED, ...part });
const round = async (part: object = {}) => (await make(part)).body as RoundCard;
const cards = (who: number, exchangeId: string) =>
  world.do<ReviewCard[]>(who, 'get', `/exchanges/${exchangeId}/reviews`);
const earlier = (who: number, reviewId: string) => world.do<EarlierView>(who, 'get', `/reviews/${reviewId}/earlier`);

beforeEach(async () => {
  world = await World.open();
  const dates = { ...DATES, revisionDue: iso(33) };
  const made = await reviewedExchange(world, { dates });
  ({ id, byAnn } = made);
  await leaveNote(world, ANN, byAnn, { body: 'Say who levelled it.' });
  await submitFilled(world, ANN, byAnn);
  await submitFilled(world, BEN, made.byBen);
  world.clock.goTo(REVISING);
});
afterEach(() => world.close());

/** Ben revises; Ann does not. */
async function revise(): Promise<void> {
  await write(world, BEN, id, REVISED);
  await handInSaved(world, BEN, id);
}

describe('a second round', () => {
  it('takes revisions over as they were handed in, to the same reviewers, with their earlier review beside', async () => {
    await revise();
    const next = await round();
    expect(await world.do<RoundCard[]>(INES, 'get', `/exchanges/${id}/rounds`)).toEqual([next]);
    const view = await world.do<ExchangeView>(INES, 'get', `/exchanges/${next.id}`);
    expect([view.title, view.stage, view.figures?.handedIn, view.figures?.allocated]).toEqual([
      'Second look',
      'reviewing',
      1,
      1,
    ]);
    const [mine, ...more] = await cards(ANN, next.id);
    expect(more).toEqual([]);
    const desk = await world.do<DeskView>(ANN, 'get', `/reviews/${mine?.id}`);
    expect(desk.draft.parts[0]?.html).toBe(`<p>${REVISED}</p>`);
    expect([desk.earlier, desk.author.name]).toEqual([true, undefined]);
    const told = await earlier(ANN, desk.id);
    expect(told.exchangeTitle).toBe('Field report');
    expect(told.reviews.map(({ reviewer, notes }) => [reviewer, notes.map(({ body }) => body)])).toEqual([
      [{ you: true }, ['Say who levelled it.']],
    ]);
    await submitFilled(world, ANN, desk.id);
    // What was handed in counts as it is, and nothing of it has been changed since.
    const draft = await world.do<MyDraftView>(BEN, 'get', `/exchanges/${next.id}/draft`);
    expect([draft.versions.length, draft.title]).toEqual([1, 'On the basin']);
    const { marks } = await world.do<ExchangeView>(BEN, 'get', `/exchanges/${next.id}`);
    expect([marks?.draft, marks?.savedSinceHandIn]).toEqual(['handed-in', false]);
    expect((await world.do<InboxView>(BEN, 'get', '/inbox')).news[0]?.words).toContain(
      'your revision is reviewed once more',
    );
  });

  it('shows earlier feedback to others only where that is wished, by number, and nothing withheld', async () => {
    await revise();
    /** Given to Cho, who has not reviewed it before. */
    const allocated = async (earlierShown: boolean) => {
      const next = await round({ reviewers: 'others', earlierShown });
      const board = await world.do<AllocationView>(INES, 'get', `/exchanges/${next.id}/allocation`);
      const reviewerId = board.reviewers.find(({ label }) => label.name === PEOPLE[CHO]?.name)?.id;
      const add = [{ reviewerId, draftId: board.drafts[0]?.id }];
      await world.do(INES, 'post', `/exchanges/${next.id}/allocation/acts`, { add });
      return (await cards(CHO, next.id))[0]?.id ?? '';
    };
    expect((await earlier(CHO, await allocated(false))).reviews).toEqual([]);
    const reviewId = await allocated(true);
    const told = await earlier(CHO, reviewId);
    expect(told.reviews.map(({ reviewer, notes }) => [reviewer, notes.length])).toEqual([[{ alias: 'Reviewer 1' }, 1]]);
    expect((await world.as(BEN, 'get', `/reviews/${reviewId}/earlier`)).status).toBe(404);
    const reason = { reason: 'Wrong.', told: false, counts: true };
    await world.do(INES, 'put', `/reviews/${byAnn}/withheld`, { kind: 'review', targetId: '', ...reason });
    expect((await earlier(CHO, reviewId)).reviews).toEqual([]);
    expect((await earlier(INES, reviewId)).reviews).toHaveLength(1);
  });

  it('asks nothing of those who have no revision in it, and is not made without any', async () => {
    expect((await make()).body).toMatchObject({ code: 'draft-empty' });
    await revise();
    await round();
    const { items } = await world.do<TodayView>(ANN, 'get', '/today');
    expect(JSON.stringify(items)).not.toContain('missed');
  });

  it('is made by instructors, with dates that can be', async () => {
    await revise();
    for (const who of [TOM, ANN]) expect((await make({}, who)).status).toBe(403);
    const past = await make({ reviewsDue: iso(20) });
    expect([past.status, past.body.fields[0].path]).toEqual([422, 'dates.reviewsDue']);
    expect((await make({ title: ' ' })).status).toBe(422);
    expect((await world.do<RoundCard[]>(INES, 'get', `/exchanges/${id}/rounds`)).length).toBe(0);
    // It is planned, and can be changed, like any other.
    const next = await round();
    world.clock.goTo(REVISING + DAY);
    await fillIn(world, ANN, (await cards(ANN, next.id))[0]?.id ?? '');
    expect((await world.as(INES, 'get', `/exchanges/${next.id}/plan`)).status).toBe(200);
  });
});
