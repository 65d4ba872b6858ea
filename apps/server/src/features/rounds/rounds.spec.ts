import type {
  AllocationView,
  DeskView,
  EarlierView,
  ExchangeView,
  GroupSetView,
  GroupsView,
  InboxView,
  MyDraftView,
  ProgressView,
  ReminderView,
  ReviewCard,
  RoundCard,
  TodayView,
} from '@salt-circle/contracts';
import {
  allocateAll,
  fillIn,
  handIn,
  handInSaved,
  leaveNote,
  publishedExchange,
  reviewedExchange,
  submitFilled,
  write,
} from '../../testing/acts.js';
import { ANN, BEN, CHO, INES, PEOPLE, TOM } from '../../testing/people.js';
import { AT, DATES, DAY } from '../../testing/plan.js';
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

  it('reminds nobody of a draft, and those who have reviews left of these', async () => {
    await revise();
    const next = await round();
    const { rows } = await world.do<ProgressView>(INES, 'get', `/exchanges/${next.id}/progress`);
    const remind = (about: string) =>
      world.do<ReminderView>(INES, 'post', `/exchanges/${next.id}/reminders/preview`, {
        participantIds: rows.map((row) => row.id),
        about,
      });
    const draft = await remind('draft');
    expect([draft.people, draft.leftOut.length]).toEqual([[], rows.length]);
    expect((await remind('reviews')).people).toEqual([PEOPLE[ANN]?.name]);
  });

  it('gives nobody the revision of the group that they have moved to', async () => {
    world.clock.goTo(Date.UTC(2026, 2, 1));
    const sets = '/courses/course/group-sets';
    const { id: setId } = await world.do(INES, 'post', sets, { title: 'Teams' });
    const text = 'Group;ID\nHerons;c-1\nHerons;c-2\nKnots;c-3';
    await world.do(INES, 'post', `${sets}/${setId}/import`, { text, base64: null, apply: true });
    id = await publishedExchange(world, {
      ...{ dates: { ...DATES, revisionDue: iso(33) }, handInAs: 'group', groupSetId: setId },
    });
    world.clock.goTo(AT.drafting);
    for (const who of [ANN, CHO]) await handIn(world, who, id);
    await allocateAll(world, id);
    world.clock.goTo(AT.reviewing);
    for (const who of [ANN, BEN, CHO])
      for (const review of await cards(who, id)) await submitFilled(world, who, review.id);
    world.clock.goTo(REVISING);
    for (const who of [ANN, CHO]) {
      await write(world, who, id, REVISED);
      await handInSaved(world, who, id);
    }
    // Ben, who reviewed the Knots’ draft, is one of them by now.
    const { groups } = (await world.do<GroupsView>(INES, 'get', sets)).sets[0] as GroupSetView;
    const [herons, knots] = ['Herons', 'Knots'].map((title) => groups.find((group) => group.title === title));
    const ben = herons?.members.find(({ name }) => name === PEOPLE[BEN]?.name)?.id;
    const move = { groupId: knots?.id, confirmed: true };
    await world.do(INES, 'put', `${sets}/${setId}/members/${ben}`, move);
    const next = await round();
    const board = await world.do<AllocationView>(INES, 'get', `/exchanges/${next.id}/allocation`);
    const reviewerOf = new Map(board.reviewers.map((one) => [one.id, one.label.name]));
    const groupOf = new Map(board.drafts.map((one) => [one.id, one.author.name]));
    expect(board.pairs.map((one) => [reviewerOf.get(one.reviewerId), groupOf.get(one.draftId)]).sort()).toEqual([
      [PEOPLE[ANN]?.name, 'Knots'],
      [PEOPLE[CHO]?.name, 'Herons'],
    ]);
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
