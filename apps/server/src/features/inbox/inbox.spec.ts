import type { InboxView } from '@salt-circle/contracts';
import { News } from '../../model/news.js';
import { reviewedExchange } from '../../testing/acts.js';
import { ANN, BEN, CHO, PEOPLE } from '../../testing/people.js';
import { DAY } from '../../testing/plan.js';
import { World } from '../../testing/world.js';
import { DayLetters } from './day-letters.service.js';

let world: World;

beforeEach(async () => {
  world = await World.open();
});
afterEach(() => world.close());

const inbox = (who: number) => world.do<InboxView>(who, 'get', '/inbox');
const markRead = (who: number, ids: readonly string[]) => world.do<InboxView>(who, 'post', '/inbox/read', { ids });
const unread = ({ news }: InboxView) => news.filter(({ read }) => !read).map(({ id }) => id);
const wish = (who: number, mailWish: string) => world.as(who, 'put', '/inbox/mail', { mailWish });
const subjects = async (who: number) => {
  const rows = await world.database.read.query<Array<{ subject: string }>>(
    'SELECT subject FROM mail WHERE address = ? ORDER BY rowid',
    [PEOPLE[who]?.email],
  );
  return rows.map(({ subject }) => subject);
};

describe('the inbox', () => {
  it('is its person’s own, and read by nobody else', async () => {
    const { id } = await reviewedExchange(world);
    const mine = await inbox(BEN);
    expect(mine.news.map(({ path, read }) => [path, read])).toContainEqual([`/exchanges/${id}`, false]);
    await markRead(CHO, unread(mine));
    expect((await inbox(BEN)).unread).toBe(mine.unread);
    expect((await inbox(CHO)).news.filter((one) => mine.news.some((own) => own.id === one.id))).toEqual([]);
    expect(await markRead(BEN, unread(mine))).toMatchObject({ unread: 0 });
    // What is read stays.
    expect((await inbox(BEN)).news.map((one) => one.id)).toEqual(mine.news.map((one) => one.id));
    expect((await world.as(BEN, 'post', '/inbox/read', { ids: Array(501).fill('x') })).status).toBe(422);
  });

  it('can be read to the end, however much there is, the newest first', async () => {
    const many = Array.from({ length: 450 }, (_, n) => ({
      ...{ id: `news-${n}`, personId: PEOPLE[BEN]?.id ?? '', at: world.clock.now() - n, courseId: 'course' },
      ...{ exchangeId: null, words: `Number ${n}`, path: '/', readAt: null, mailDay: false },
    }));
    await world.database.write((manager) => manager.insert(News, many));
    const first = await inbox(BEN);
    expect([first.unread, first.news[0]?.words, first.news.length]).toEqual([450, 'Number 0', 400]);
    const second = await markRead(BEN, unread(first));
    expect([second.unread, unread(second).length, second.news.at(-1)?.words]).toEqual([50, 50, 'Number 449']);
    expect(await markRead(BEN, unread(second))).toMatchObject({ unread: 0 });
  });

  it('is mailed as its person wishes: each time, once a day, or not', async () => {
    expect((await wish(BEN, 'daily')).status).toBe(200);
    expect((await wish(BEN, 'hourly')).status).toBe(422);
    await reviewedExchange(world);
    const before = await Promise.all([ANN, BEN].map(subjects));
    // What somebody may have to show later comes at once all the same.
    const receipt = 'Receipt: your draft for “Field report”';
    expect(before).toEqual([['Coastal Restoration: “Field report” has been published', receipt], [receipt]]);
    world.clock.goTo(world.clock.now() + DAY);
    await world.app.get(DayLetters).look();
    const [toAnn, toBen] = await Promise.all([ANN, BEN].map(subjects));
    expect(toAnn).toEqual(before[0]);
    expect(toBen).toEqual([receipt, 'Salt Circle: one thing that happened']);
  });

  it('forgets what waits for the letter of the day once it is read, or no letter is wanted', async () => {
    for (const who of [ANN, BEN]) await wish(who, 'daily');
    await reviewedExchange(world);
    await markRead(ANN, unread(await inbox(ANN)));
    await wish(BEN, 'off');
    world.clock.goTo(world.clock.now() + DAY);
    await world.app.get(DayLetters).look();
    expect([...(await subjects(ANN)), ...(await subjects(BEN))].filter((one) => one.includes('happened'))).toEqual([]);
    expect((await inbox(BEN)).unread).toBeGreaterThan(0);
  });
});
