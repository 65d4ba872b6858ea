import type { DeskView, GradesView, PeopleView } from '@salt-circle/contracts';
import { mkdtempSync, readdirSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { strFromU8, unzipSync } from 'fflate';
import {
  allocateAll,
  handIn,
  leaveNote,
  publishedExchange,
  reviewedExchange,
  submitFilled,
} from '../../testing/acts.js';
import { ANN, BEN, CHO, INES, OUT, PEOPLE, TOM } from '../../testing/people.js';
import { AT, DATES, DAY } from '../../testing/plan.js';
import { World } from '../../testing/world.js';
import { writeResults } from './results-command.js';
import { TABLES } from './results-tables.js';

let world: World;
let id: string;
let byAnn: string;

beforeEach(async () => {
  world = await World.open();
  ({ id, byAnn } = await reviewedExchange(world, {
    gradeParts: [
      { part: 'reviews-done', weight: 1 },
      { part: 'peer-score', weight: 3 },
    ],
  }));
  await leaveNote(world, ANN, byAnn);
  await submitFilled(world, ANN, byAnn);
  world.clock.goTo(AT.checking);
});
afterEach(() => world.close());

/** As a program for statistics reads them: the mark at the beginning belongs to no column. */
const tables = async (who: number = INES) => {
  const { body } = await world.file(who, '/courses/course/results.zip');
  const { csvParse } = await import('d3-dsv');
  const files = Object.entries(unzipSync(new Uint8Array(body as Buffer)));
  return new Map(files.map(([name, bytes]) => [name, csvParse(strFromU8(bytes).replace(/^\uFEFF/, ''))]));
};

describe('results of a course', () => {
  it('are tables that hang together by ids, each column explained', async () => {
    const all = await tables();
    expect([...all.keys()].sort()).toEqual([...Object.keys(TABLES), 'dictionary'].map((name) => `${name}.csv`).sort());
    const of = (name: string) => [...(all.get(`${name}.csv`) ?? [])];
    const explained = new Set(of('dictionary').map(({ file, column }) => `${file} ${column}`));
    for (const [name, rows] of all) {
      if (name === 'dictionary.csv') continue;
      for (const column of rows.columns) expect(explained).toContain(`${name} ${column}`);
    }
    const ben = of('people').find(({ name }) => name === PEOPLE[BEN]?.name)?.['person'];
    const draft = of('drafts').find(({ author }) => author === ben)?.['draft'];
    const [review] = of('reviews').filter((one) => one['draft'] === draft);
    expect(review).toMatchObject({ review: byAnn, exchange: id, kind: 'peer', score: '1', notes: '1', withheld: '0' });
    expect(of('answers').filter((one) => one['review'] === byAnn)).toEqual(
      expect.arrayContaining([expect.objectContaining({ title: 'Evidence', kind: 'criterion', scale: '1' })]),
    );
    expect(of('notes')).toMatchObject([{ review: byAnn, place: 'text' }]);
    expect(of('scores')).toMatchObject([{ draft, reviews: '1', mean: '1' }]);
    const grades = of('grades').filter(({ person }) => person === ben);
    // By hand: nothing of 1 for reviews, all of 3 for the score: 75 percent.
    expect(grades.map(({ part, state, given }) => [part, state, given])).toEqual([
      ['reviews-done', 'counts', '0'],
      ['peer-score', 'counts', '1'],
      ['grade', 'not released', '75'],
    ]);
    // Names are in one file alone.
    const named = [...all].filter(([, rows]) => JSON.stringify(rows).includes(PEOPLE[ANN]?.name ?? ''));
    expect(named.map(([name]) => name)).toEqual(['people.csv']);
  });

  it('are for whoever runs the course', async () => {
    const statuses = await Promise.all(
      [TOM, ANN, CHO, OUT].map(async (who) => (await world.as(who, 'get', '/courses/course/results.zip')).status),
    );
    expect(statuses).toEqual([403, 403, 403, 404]);
  });

  it('are written by a command as well, which says what courses there are', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'results-'));
    const names = await writeResults(world.dataFolder, 'Coastal Restoration', folder);
    expect(readdirSync(folder).sort()).toEqual([...names].sort());
    expect(readFileSync(join(folder, 'scores.csv'), 'utf8').split('\r\n')).toHaveLength(3);
    await expect(writeResults(world.dataFolder, 'Nothing', folder)).rejects.toThrow(
      'No course is called “Nothing”. There is: ',
    );
  });
});

describe('results with unusual settings', () => {
  let late: string;

  /** Ben handed in an hour late by a rule that takes 5 points a day; Ann’s review of it is kept from him. */
  beforeEach(async () => {
    world.clock.goTo(AT.drafting - DAY);
    const lateUntil = new Date(AT.afterDue).toISOString();
    late = await publishedExchange(world, {
      ...{ title: 'Late report', dates: { ...DATES, lateUntil } },
      late: { amount: 5, unit: 'percent', per: 'day', cap: null, graceMinutes: 0 },
      gradeParts: [{ part: 'handing-in', weight: 1 }],
    });
    await world.do(INES, 'post', '/courses/course/exchanges', { title: 'Never published' });
    world.clock.goTo(AT.drafting);
    await handIn(world, ANN, late);
    world.clock.goTo(Date.parse(DATES.draftsDue) + 3_600_000);
    await handIn(world, BEN, late, '=1+1 is two, and “-3” is less.');
    world.clock.goTo(AT.afterDue);
    await allocateAll(world, late);
    world.clock.goTo(AT.reviewing);
    const [review] = await world.do<Array<{ id: string }>>(ANN, 'get', `/exchanges/${late}/reviews`);
    const answer = { revision: 0, text: '=HYPERLINK("x")\nand then say, "how large" the site is.' };
    await submitFilled(world, ANN, review?.id ?? '');
    await world.do(ANN, 'post', `/reviews/${review?.id}/reopen`, {});
    const { answers } = await world.do<DeskView>(ANN, 'get', `/reviews/${review?.id}`);
    await world.do(ANN, 'put', `/reviews/${review?.id}/answers/first`, {
      ...answer,
      revision: answers['first']?.revision,
    });
    await world.do(ANN, 'post', `/reviews/${review?.id}/submit`);
    const kept = { kind: 'review', targetId: '', reason: 'Harsh.', told: false, counts: true };
    await world.do(INES, 'put', `/reviews/${review?.id}/withheld`, kept);
    world.clock.goTo(AT.checking);
  });

  const of = async (name: string) =>
    [...((await tables()).get(`${name}.csv`) ?? [])].filter(({ exchange = late }) => exchange === late);
  const personOf = async (who: number) =>
    (await of('people')).find(({ name }) => name === PEOPLE[who]?.name)?.['person'];

  it('tell what being late took, and what was given instead with its reason', async () => {
    const { rows } = await world.do<GradesView>(INES, 'get', `/exchanges/${late}/grades`);
    const ben = rows.find(({ person }) => person.name === PEOPLE[BEN]?.name);
    const reason = 'Ill, with a note;\nsee the letter of 12 March.';
    await world.do(INES, 'put', `/exchanges/${late}/grades/${ben?.id}/override`, { part: '', value: 99, reason });
    const grades = (await of('grades')).filter(({ part }) => part === 'grade');
    const whole = async (who: number) => {
      const id = await personOf(who);
      return grades.find(({ person }) => person === id);
    };
    expect(await whole(BEN)).toMatchObject({ computed: '95', given: '99', late: '5', reason });
    expect(await whole(ANN)).toMatchObject({ computed: '100', given: '100', late: '0', reason: '' });
    // Who handed in nothing has lost it all, and nothing for being late.
    expect(await whole(CHO)).toMatchObject({ computed: '0', late: '0' });
  });

  it('hold what is kept from authors, and answers as they were written', async () => {
    const [review, ...more] = (await of('reviews')).filter(({ submitted_at }) => submitted_at !== '');
    expect(more).toEqual([]);
    expect(review).toMatchObject({ withheld: '1', kind: 'peer' });
    const [first] =
      (await tables())
        .get('answers.csv')
        ?.filter((one) => one['review'] === review?.['review'] && one['item'] === 'first') ?? [];
    // What a spreadsheet would run has a mark before it.
    expect(first?.['answer']).toBe('\'=HYPERLINK("x")\nand then say, "how large" the site is.');
  });

  it('are of published exchanges alone, and of everybody who was ever in the course', async () => {
    const all = await tables();
    expect(
      all
        .get('exchanges.csv')
        ?.map(({ title }) => title)
        .sort(),
    ).toEqual(['Field report', 'Late report']);
    const { people } = await world.do<PeopleView>(INES, 'get', '/courses/course/people');
    const cho = people.find(({ name }) => name === PEOPLE[CHO]?.name);
    await world.do(INES, 'delete', `/courses/course/people/${cho?.id}`);
    const gone = (await of('people')).find(({ name }) => name === PEOPLE[CHO]?.name);
    expect(gone).toMatchObject({ active: '0', role: 'student' });
  });
});
