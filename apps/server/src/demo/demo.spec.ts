import type { DeskView } from '@salt-circle/contracts';
import { matchTextAnchor } from '@salt-circle/core';
import { htmlToText } from '../platform/html/html-to-text.js';
import { Setting } from '../model/audit-entry.js';
import { type TestPerson } from '../testing/people.js';
import { World } from '../testing/world.js';
import { keepOffset, keptOffset } from './demo-clock.js';
import { keepDemoAlive } from './keep-alive.js';
import { seedDemo } from './seed.js';
import { STUDENTS } from './people.js';

/** For making the demo, which takes as long as it takes. */
const NO_CLOCK = 2 ** 31 - 1;
const DAY = 24 * 3_600_000;

interface Row {
  readonly draft: { readonly state: string };
  readonly reviews: ReadonlyArray<{ readonly id: string; readonly state: string; readonly words: number }>;
}

describe('the demo', () => {
  let world: World;
  let ines: { readonly cookie: string };
  let courses: Array<{ id: string; title: string }>;
  let exchanges: Array<{ id: string; title: string; stage: string; published: boolean; dates: Record<string, string> }>;

  const get = async <T>(path: string): Promise<T> => {
    const response = await fetch(`${await world.url()}/api${path}`, { headers: { cookie: ines.cookie } });
    expect(response.status).toBe(200);
    return (await response.json()) as T;
  };

  beforeAll(async () => {
    world = await World.open({ mode: 'demo' }, [] as TestPerson[]);
    await world.database.write((manager) => manager.query('DELETE FROM course'));
    await seedDemo(world.app);
    const people = (await (await fetch(`${await world.url()}/api/demo/people`)).json()) as Array<{
      id: string;
      name: string;
    }>;
    expect(people).toHaveLength(STUDENTS.length + 6);
    const personId = people.find(({ name }) => name === 'Ines Marchetti')?.id;
    const entered = await fetch(`${await world.url()}/api/demo/step-in`, {
      method: 'POST',
      headers: { 'x-salt-circle': '1', 'content-type': 'application/json' },
      body: JSON.stringify({ personId }),
    });
    ines = { cookie: entered.headers.getSetCookie()[0]?.split(';')[0] ?? '' };
    courses = await get<Array<{ id: string; title: string }>>('/courses');
    const big = courses.find(({ title }) => title === 'Coastal Restoration');
    exchanges = (await get<{ exchanges: typeof exchanges }>(`/courses/${big?.id}`)).exchanges;
  }, NO_CLOCK);
  afterAll(() => world.close());

  it('has an exchange in each stage', async () => {
    expect(exchanges.map(({ title, stage, published }) => [title, published ? stage : 'unpublished'])).toEqual([
      ['Site description', 'replying'],
      ['Salt-marsh restoration proposal', 'reviewing'],
      ['Monitoring plan', 'drafting'],
      ['Creek survey report', 'unpublished'],
    ]);
    const seminar = courses.find(({ title }) => title === 'Field Methods Seminar');
    const small = await get<{ exchanges: typeof exchanges }>(`/courses/${seminar?.id}`);
    expect(small.exchanges.map(({ title, stage }) => [title, stage])).toEqual([
      ['Field notebook', 'revising'],
      ['Sampling question', 'checking'],
    ]);
  });

  it('is as uneven as a class is: missing drafts, reviews of every state and length', async () => {
    const rows = (await get<{ rows: Row[] }>(`/exchanges/${exchanges[1]?.id}/progress`)).rows;
    expect(rows).toHaveLength(24);
    expect(rows.filter(({ draft }) => draft.state !== 'handed-in').length).toBe(2);
    const reviews = rows.flatMap((row) => row.reviews);
    expect(new Set(reviews.map(({ state }) => state))).toEqual(new Set(['not-begun', 'in-progress', 'submitted']));
    const words = reviews.filter(({ state }) => state === 'submitted').map((review) => review.words);
    expect(Math.max(...words) / Math.min(...words)).toBeGreaterThan(2.5);
  });

  it('has every note on a passage that the draft really has', async () => {
    const rows = (await get<{ rows: Row[] }>(`/exchanges/${exchanges[1]?.id}/progress`)).rows;
    let notes = 0;
    for (const { id } of rows.flatMap((row) => row.reviews)) {
      const desk = await get<DeskView>(`/reviews/${id}`);
      for (const { place } of desk.notes) {
        // What stands on files was held against them when it was left.
        if (place.selector.type !== 'text') continue;
        const text = htmlToText(desk.draft.parts.find((part) => part.id === place.partId)?.html ?? '');
        expect(matchTextAnchor(text, place.selector).found).toBe('same');
      }
      notes += desk.notes.length;
    }
    expect(notes).toBeGreaterThan(60);
  });

  it('makes its data once', async () => {
    await seedDemo(world.app);
    expect(await get<unknown[]>('/courses')).toHaveLength(2);
  });

  it('moves along by whole days when it is opened again later', async () => {
    const before = exchanges[1]?.dates['reviewsDue'] ?? '';
    const now = Date.now();
    await keepDemoAlive(world.database, now);
    await keepDemoAlive(world.database, now + 3 * DAY);
    const after = await get<{ dates: Record<string, string> }>(`/exchanges/${exchanges[1]?.id}`);
    expect(Date.parse(after.dates['reviewsDue'] ?? '') - Date.parse(before)).toBe(3 * DAY);
    await keepDemoAlive(world.database, now + 3 * DAY);
    expect((await get<{ dates: unknown }>(`/exchanges/${exchanges[1]?.id}`)).dates).toEqual(after.dates);
  });

  it('remembers its moved time over a restart', async () => {
    expect(await keptOffset(world.database)).toBe(0);
    await keepOffset(world.database, 5 * DAY, null);
    await keepOffset(world.database, 6 * DAY, null);
    expect(await keptOffset(world.database)).toBe(6 * DAY);
    expect(await world.database.read.countBy(Setting, { key: 'demo.clock-offset' })).toBe(1);
  });
});
