import { mkdtempSync, readdirSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { strFromU8, unzipSync } from 'fflate';
import { leaveNote, reviewedExchange, submitFilled } from '../../testing/acts.js';
import { ANN, BEN, CHO, INES, OUT, PEOPLE, TOM } from '../../testing/people.js';
import { AT } from '../../testing/plan.js';
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
