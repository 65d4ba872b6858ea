import type { ChangeNews } from '@salt-circle/contracts';
import { handIn, leaveNote, publishedExchange, reviewedExchange, write } from '../../testing/acts.js';
import { ANN, BEN, CHO, INES, OUT, TOM } from '../../testing/people.js';
import { AT, DATES } from '../../testing/plan.js';
import { practiceOn, tryPractice } from '../../testing/practice.js';
import { World } from '../../testing/world.js';
import { ChangesService, MOST_PAGES } from './changes.service.js';

/** Everybody hears of it when dates move: what came before, has come by then. */
const MARK = 'plan';

describe('what open pages hear', () => {
  let world: World;
  beforeEach(async () => {
    world = await World.open();
  });
  afterEach(() => world.close());

  const deliver = () => world.app.get(ChangesService).deliver();

  async function opened(person: number): Promise<ChangeNews[]> {
    const heard: ChangeNews[] = [];
    expect((await world.listen(person, (news) => heard.push(news))).status).toBe(200);
    return heard;
  }

  async function until(what: () => boolean): Promise<void> {
    for (let tries = 0; tries < 200 && !what(); tries += 1) await new Promise((resolve) => setTimeout(resolve, 10));
    expect(what()).toBe(true);
  }

  async function moveDates(id: string): Promise<void> {
    await world.do(INES, 'put', `/exchanges/${id}/dates`, {
      dates: { ...DATES, release: new Date(AT.closed + 3_600_000).toISOString() },
      tell: false,
    });
  }

  /** The topics that each of them has heard of, once the mark has come; without the mark. */
  async function topicsAfterMark(id: string, ...all: readonly ChangeNews[][]): Promise<string[][]> {
    await deliver();
    await moveDates(id);
    await deliver();
    for (const heard of all) await until(() => heard.some(({ topics }) => topics.includes(MARK)));
    return all.map((heard) => {
      const topics = heard.flatMap((news) => news.topics).filter((topic) => topic !== MARK && topic !== 'mail');
      return [...new Set<string>(topics)].sort();
    });
  }

  it('is, for staff, that drafts came in; for a student, that the own one did; and never what they say', async () => {
    const id = await publishedExchange(world);
    world.clock.goTo(AT.drafting);
    const [ines, tom, ann, ben] = [await opened(INES), await opened(TOM), await opened(ANN), await opened(BEN)];
    await deliver();
    await handIn(world, ANN, id, 'Secret words.');
    expect(await topicsAfterMark(id, ines, tom, ann, ben)).toEqual([
      ['allocation', 'drafts'],
      ['allocation', 'drafts'],
      ['own-draft'],
      [],
    ]);
    for (const news of [...ines, ...ann])
      expect(Object.keys(news).sort()).toEqual(['courseId', 'exchangeId', 'topics']);
    expect(JSON.stringify([ines, ann])).not.toMatch(/Secret|p-ann|Mensah/);
  });

  it('is, for the one who is reviewed, nothing, whoever writes, and when', async () => {
    const { id, byBen } = await reviewedExchange(world);
    const [ines, ann, cho] = [await opened(INES), await opened(ANN), await opened(CHO)];
    await deliver();
    await leaveNote(world, BEN, byBen);
    expect(await topicsAfterMark(id, ines, ann, cho)).toEqual([['allocation', 'reviews'], [], []]);
  });

  it('is, of a practice draft that was tried, that the exchange it is for has changed', async () => {
    const id = await publishedExchange(world);
    const { practiceId } = await practiceOn(world, id);
    world.clock.goTo(AT.drafting);
    const ines = await opened(INES);
    await deliver();
    ines.length = 0;
    await tryPractice(world, ANN, practiceId);
    await deliver();
    await until(() => ines.some(({ topics }) => topics.includes('reviews')));
    expect(ines.filter(({ exchangeId }) => exchangeId !== id)).toEqual([]);
  });

  it('is nothing of what was refused, of other courses, and of what somebody outside may not know', async () => {
    const id = await publishedExchange(world);
    world.clock.goTo(AT.afterDue);
    const [ines, out] = [await opened(INES), await opened(OUT)];
    await deliver();
    const { status } = await world.as(ANN, 'post', `/exchanges/${id}/draft/hand-in`, {
      fingerprint: 'x',
      namesSeen: true,
    });
    expect(status).toBeGreaterThanOrEqual(400);
    expect(await topicsAfterMark(id, ines)).toEqual([[]]);
    expect(out).toEqual([]);
  });

  it('comes together: of fifty saves within a moment, one piece of news', async () => {
    const id = await publishedExchange(world);
    world.clock.goTo(AT.drafting);
    const ines = await opened(INES);
    await deliver();
    ines.length = 0;
    const { database } = world;
    for (let save = 0; save < 50; save += 1) {
      database.changes.tell([{ topic: 'drafts', courseId: 'course', exchangeId: id }]);
    }
    await deliver();
    await until(() => ines.length > 0);
    expect(ines).toEqual([{ topics: ['drafts'], courseId: 'course', exchangeId: id }]);
  });

  it('ends with the session, and for the oldest page of somebody who has too many', async () => {
    const id = await publishedExchange(world);
    world.clock.goTo(AT.drafting);
    const pages: ChangeNews[][] = [];
    for (let page = 0; page <= MOST_PAGES; page += 1) pages.push(await opened(INES));
    const tom = await opened(TOM);
    await deliver();
    await world.do(TOM, 'delete', '/session');
    await world.app.get(ChangesService).beat();
    for (const heard of [...pages, tom]) heard.length = 0;
    await write(world, ANN, id, 'A word.');
    await deliver();
    await until(() => pages.slice(1).every((heard) => heard.length > 0));
    expect([pages[0], tom]).toEqual([[], []]);
  });
});
