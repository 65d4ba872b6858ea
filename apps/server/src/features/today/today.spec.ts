import { handIn, publishedExchange, reviewedExchange, write, submitFilled } from '../../testing/acts.js';
import { ANN, BEN, CHO, INES, TOM } from '../../testing/people.js';
import { AT } from '../../testing/plan.js';
import { World } from '../../testing/world.js';
import { Enrolment } from '../../model/course.js';
import { PersonalDatesRow } from '../../model/exchange.js';
import { ExchangesService } from '../planning/exchanges.service.js';

interface Item {
  readonly kind: string;
  readonly due: string | null;
  readonly done: number;
  readonly of: number;
  readonly reviewId: string | null;
}
interface Today {
  readonly items: readonly Item[];
  readonly waiting: ReadonlyArray<{ readonly next: { readonly date: string } }>;
}

let world: World;
beforeEach(async () => {
  world = await World.open();
});
afterEach(() => world.close());

const today = (person: number) => world.do<Today>(person, 'get', '/today');
const kinds = async (person: number) => (await today(person)).items.map(({ kind }) => kind);
const waitsFor = async (person: number) => (await today(person)).waiting.map(({ next }) => next.date);

describe('Today', () => {
  it('asks an instructor to finish a plan, and tells students nothing of it', async () => {
    await world.do(INES, 'post', '/courses/course/exchanges', { title: 'Field report' });
    expect(await kinds(INES)).toEqual(['finish-plan']);
    expect(await today(ANN)).toEqual({ items: [], waiting: [] });
  });

  it('asks a student to hand in while drafts are open, then waits for what comes next', async () => {
    const id = await publishedExchange(world);
    expect([await kinds(ANN), await waitsFor(ANN)]).toEqual([[], ['draftsOpen']]);
    world.clock.goTo(AT.drafting);
    expect(await today(ANN)).toMatchObject({
      items: [{ kind: 'hand-in', due: '2026-03-12T00:00:00.000Z' }],
      waiting: [],
    });
    await handIn(world, ANN, id);
    expect([await kinds(ANN), await waitsFor(ANN)]).toEqual([[], ['draftsDue']]);
    await write(world, ANN, id, 'Better.');
    expect(await kinds(ANN)).toEqual(['hand-in-again']);
  });

  it('tells staff what is stuck: missing drafts shortly before they are due, then the allocation', async () => {
    const id = await publishedExchange(world);
    world.clock.goTo(AT.drafting);
    await handIn(world, ANN, id);
    expect(await kinds(INES)).toEqual([]);
    world.clock.goTo(Date.UTC(2026, 2, 11));
    expect(await today(INES)).toMatchObject({ items: [{ kind: 'remind-drafts', done: 1, of: 3 }] });
    world.clock.goTo(AT.afterDue);
    expect([await kinds(INES), await kinds(TOM)]).toEqual([['allocate'], ['allocate']]);
  });

  it('lists each review to write, soonest first, and drops those that are submitted', async () => {
    const { byAnn } = await reviewedExchange(world);
    expect(await today(ANN)).toMatchObject({
      items: [{ kind: 'write-review', reviewId: byAnn, done: 1, of: 1, due: '2026-03-20T00:00:00.000Z' }],
    });
    await submitFilled(world, ANN, byAnn);
    expect([await kinds(ANN), await waitsFor(ANN)]).toEqual([[], ['reviewsDue']]);
    // Cho handed in nothing, so there is nothing to review.
    expect(await kinds(CHO)).toEqual(['draft-missed']);
  });

  it('asks staff to check and release, and authors to read, until they have', async () => {
    const { id, byAnn } = await reviewedExchange(world);
    await submitFilled(world, ANN, byAnn);
    world.clock.goTo(Date.UTC(2026, 2, 19));
    expect(await today(INES)).toMatchObject({ items: [{ kind: 'watch-reviews', done: 1, of: 2 }] });
    world.clock.goTo(AT.checking);
    expect(await kinds(INES)).toEqual(['watch-reviews', 'release']);
    expect(await kinds(BEN)).toEqual(['reviews-missed']);
    world.clock.goTo(AT.closed);
    expect(await today(BEN)).toMatchObject({ items: [{ kind: 'read-feedback', done: 1 }], waiting: [] });
    expect(await kinds(ANN)).toEqual([]);
    // It leaves once it was read.
    await world.do(BEN, 'post', `/exchanges/${id}/feedback/read`);
    expect(await today(BEN)).toEqual({ items: [], waiting: [] });
  });

  it('leaves out what is long over, but not for whoever has more time', async () => {
    const { id, byBen } = await reviewedExchange(world);
    await submitFilled(world, BEN, byBen);
    world.clock.goTo(AT.closed + 30 * 24 * 3_600_000);
    const asked = jest.spyOn(world.app.get(ExchangesService), 'one');
    expect(await today(INES)).toEqual({ items: [], waiting: [] });
    expect(await today(ANN)).toEqual({ items: [], waiting: [] });
    expect(asked).not.toHaveBeenCalled();
    const { id: enrolmentId } = await world.database.read.findOneByOrFail(Enrolment, {
      personId: 'p-ann',
      courseId: 'course',
    });
    await world.database.write((manager) =>
      manager.insert(PersonalDatesRow, {
        ...{ id: 'own', exchangeId: id, enrolmentId, groupId: null, draftsDue: null, reviewsDue: null },
        ...{ repliesDue: null, revisionDue: world.clock.now() + 3_600_000, excused: false, reason: 'Ill.' },
      }),
    );
    await today(ANN);
    expect(asked).toHaveBeenCalledTimes(1);
  });

  it('never tells before reviewing opens that drafts have been allocated', async () => {
    const { id } = await reviewedExchange(world);
    world.clock.goTo(AT.drafting);
    expect(await world.do(ANN, 'get', `/exchanges/${id}`)).toMatchObject({ marks: { reviewsAllocated: 0 } });
    expect(await kinds(ANN)).toEqual([]);
  });
});
