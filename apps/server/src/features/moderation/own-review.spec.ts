import type {
  AllocationView,
  DeskView,
  DraftFeedbackView,
  ExchangeView,
  FeedbackView,
  InboxView,
  ProgressView,
  QueueView,
  ThreadsView,
} from '@salt-circle/contracts';
import { fillIn, leaveNote, reviewedExchange, submitFilled } from '../../testing/acts.js';
import { ANN, BEN, CHO, INES, PEOPLE, TOM } from '../../testing/people.js';
import { AT } from '../../testing/plan.js';
import { World } from '../../testing/world.js';

let world: World;
let id: string;
let byAnn: string;
let draftOfBen: string;

beforeEach(async () => {
  world = await World.open();
  ({ id, byAnn } = await reviewedExchange(world));
  draftOfBen = (await world.do<DeskView>(ANN, 'get', `/reviews/${byAnn}`)).draft.draftId;
});
afterEach(() => world.close());

const begin = (who: number) => world.as(who, 'post', `/exchanges/${id}/drafts/${draftOfBen}/reviews`);
const own = async (who: number = TOM) => (await begin(who)).body.id as string;
const feedback = () => world.do<FeedbackView>(BEN, 'get', `/exchanges/${id}/feedback`);
const sideBySide = (who: number) =>
  world.do<DraftFeedbackView>(who, 'get', `/exchanges/${id}/drafts/${draftOfBen}/feedback`);

describe('an own review by staff', () => {
  it('stands beside the others under the own name and role, and reaches the author with them', async () => {
    await submitFilled(world, ANN, byAnn);
    const byTom = await own();
    expect(await own()).toBe(byTom);
    await leaveNote(world, TOM, byTom);
    expect(await sideBySide(TOM)).toMatchObject({ ownId: byTom, mayReview: true, missing: 0 });
    await submitFilled(world, TOM, byTom);
    const { reviews } = await sideBySide(INES);
    const name = PEOPLE[TOM]?.name;
    expect(reviews.map(({ reviewer }) => reviewer)).toContainEqual({ name, role: 'assistant' });
    expect((await world.as(BEN, 'get', `/exchanges/${id}/feedback`)).status).toBe(403);
    world.clock.goTo(AT.closed);
    const read = await feedback();
    const told = read.reviews.find((one) => one.id === byTom);
    expect(told).toMatchObject({ reviewer: { name, role: 'assistant' }, self: false });
    expect(told?.notes).toHaveLength(1);
    // It is no matter of being helped by a peer.
    expect(await world.do<ThreadsView>(BEN, 'get', `/reviews/${byTom}/replies`)).toMatchObject({ mayRate: false });
    expect((await world.as(BEN, 'put', `/reviews/${byTom}/rating`, { helped: 'much', words: '' })).status).not.toBe(
      200,
    );
  });

  it('counts for nothing that is asked of students, is not allocated, and is not checked', async () => {
    const before = await world.do<ExchangeView>(INES, 'get', `/exchanges/${id}`);
    const board = await world.do<AllocationView>(INES, 'get', `/exchanges/${id}/allocation`);
    await submitFilled(world, INES, await own(INES));
    await fillIn(world, TOM, await own());
    expect((await world.do<ExchangeView>(INES, 'get', `/exchanges/${id}`)).figures).toEqual(before.figures);
    const after = await world.do<AllocationView>(INES, 'get', `/exchanges/${id}/allocation`);
    expect([after.reviewers, after.pairs]).toEqual([board.reviewers, board.pairs]);
    expect((await world.do<QueueView>(INES, 'get', `/exchanges/${id}/queue`)).rows).toEqual([]);
    const { rows } = await world.do<ProgressView>(INES, 'get', `/exchanges/${id}/progress`);
    expect(rows.map(({ received }) => received)).toEqual(rows.map(() => 0));
    // What is not submitted is nobody’s to know.
    world.clock.goTo(AT.closed);
    const { reviews, missing } = await feedback();
    expect([reviews.map(({ reviewer }) => reviewer.role), missing]).toEqual([['instructor'], 1]);
  });

  it('goes by no due time, and can be changed by whoever wrote it alone', async () => {
    world.clock.goTo(AT.closed);
    const byTom = await own();
    await submitFilled(world, TOM, byTom);
    expect((await world.as(INES, 'post', `/reviews/${byTom}/reopen`, { reason: 'Shorter.' })).status).toBe(404);
    expect((await world.as(TOM, 'post', `/reviews/${byTom}/reopen`, {})).status).toBeLessThan(300);
    const answer = (await world.do<DeskView>(TOM, 'get', `/reviews/${byTom}`)).answers['first'];
    const changed = { revision: answer?.revision, text: 'Give the size of the site, and its source.' };
    await world.do(TOM, 'put', `/reviews/${byTom}/answers/first`, changed);
    const text = async () => (await feedback()).reviews.find((one) => one.id === byTom)?.answers['first']?.text;
    expect(await text()).toBe('Say how large the site is.');
    await world.do(TOM, 'post', `/reviews/${byTom}/submit`);
    expect(await text()).toBe(changed.text);
  });

  it('is told of to authors who read their feedback by now, once, and not before that', async () => {
    const news = async (who: number) =>
      (await world.do<InboxView>(who, 'get', '/inbox')).news.filter(({ words }) => words.includes('has a review by'));
    await submitFilled(world, INES, await own(INES));
    expect(await news(BEN)).toEqual([]);
    world.clock.goTo(AT.closed);
    const byTom = await own();
    await submitFilled(world, TOM, byTom);
    expect((await news(BEN)).map(({ words }) => words)).toEqual([
      'Coastal Restoration: your feedback for “Field report” has a review by your assistant now',
    ]);
    // Reopened and submitted again it is the same review, and it is nobody else’s news.
    await world.do(TOM, 'post', `/reviews/${byTom}/reopen`, {});
    await world.do(TOM, 'post', `/reviews/${byTom}/submit`);
    expect([(await news(BEN)).length, (await news(ANN)).length]).toEqual([1, 0]);
  });

  it('is begun by staff, of what is handed in, and not beside a review under an alias', async () => {
    for (const who of [ANN, BEN, CHO]) expect((await begin(who)).status).toBe(403);
    expect((await world.as(INES, 'post', `/exchanges/${id}/drafts/none/reviews`)).status).toBe(404);
    const extra = { personId: PEOPLE[TOM]?.id, reviews: 1 };
    const view = await world.do<AllocationView>(INES, 'put', `/exchanges/${id}/allocation/extra`, extra);
    const tom = view.reviewers.find(({ label }) => label.name === PEOPLE[TOM]?.name)?.id;
    const pair = { reviewerId: tom, draftId: draftOfBen };
    const byHand = (part: object) => world.as(INES, 'post', `/exchanges/${id}/allocation/acts`, part);
    await byHand({ add: [pair] });
    const refused = await begin(TOM);
    expect([refused.status, refused.body.sentence]).toEqual([422, expect.stringContaining('under an alias')]);
    await byHand({ remove: [pair] });
    await own();
    const again = await byHand({ add: [pair] });
    expect([again.status, again.body.sentence]).toEqual([422, expect.stringContaining('under the own name')]);
    // No longer a reviewer under an alias, Tom keeps the own review.
    await world.do(INES, 'put', `/exchanges/${id}/allocation/extra`, { ...extra, reviews: null });
    expect((await sideBySide(TOM)).ownId).not.toBeNull();
  });
});
