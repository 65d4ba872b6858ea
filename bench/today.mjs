import { at, startServer } from '../scripts/run.mjs';
import { callsTo, median, stopped } from './calls.mjs';
import { addBenchCourse } from './course.mjs';

const YEAR = 365 * 24 * 3_600_000;
const DATES = ['draftsOpen', 'draftsDue', 'lateUntil', 'reviewsOpen', 'reviewsDue', 'checkUntil', 'release'];

/** Adds copies of an exchange that were over a year ago, with the same people in them. */
async function addPast(folder, exchangeId, count) {
  const dist = (path) => import(at('apps', 'server', 'dist', ...path.split('/')));
  const [{ Database }, { Clock }, { Ids }, { Exchange, Participant }, { insertAll }] = await Promise.all([
    dist('platform/database/database.js'),
    dist('platform/clock/clock.js'),
    dist('platform/ids/ids.js'),
    dist('model/exchange.js'),
    dist('platform/database/insert-all.js'),
  ]);
  const ids = new Ids();
  const database = await Database.open(folder, new Clock());
  const exchange = await database.read.findOneByOrFail(Exchange, { id: exchangeId });
  const people = await database.read.findBy(Participant, { exchangeId });
  const dates = Object.fromEntries(
    DATES.flatMap((name) => (exchange[name] == null ? [] : [[name, exchange[name] - YEAR]])),
  );
  const past = Array.from({ length: count }, (_, index) => ({
    ...exchange,
    ...dates,
    ...{ id: ids.uuid(), title: `Past ${index}`, repliesDue: null, revisionDue: null },
  }));
  await database.write(async (manager) => {
    await insertAll(manager, Exchange, past);
    for (const { id } of past)
      await insertAll(
        manager,
        Participant,
        people.map((one) => ({ ...one, id: ids.uuid(), exchangeId: id })),
      );
  });
  await database.onApplicationShutdown();
}

/** Today of an instructor who has taught for years, against that of one who has begun. @param folder of a demo whose server has stopped */
export async function todayFigures({ folder, env, base, line, round }) {
  process.stdout.write('\nToday of an instructor, by exchanges that are over\n');
  const instructors = {};
  for (const past of [3, 60]) {
    const { instructorId, exchangeId } = await addBenchCourse(folder, { students: 30, title: `Taught ${past} times` });
    await addPast(folder, exchangeId, past);
    instructors[past] = instructorId;
  }
  const server = await startServer(env);
  const { call, cookieOf } = callsTo(base);
  const took = {};
  for (const [past, id] of Object.entries(instructors)) {
    const cookie = await cookieOf(id);
    const times = [];
    for (let turn = 0; turn < 200; turn++) {
      const begun = performance.now();
      await call('/today', 'GET', undefined, cookie);
      times.push(performance.now() - begun);
    }
    took[past] = median(times.slice(50));
  }
  await stopped(server);
  line('60 exchanges over against 3', round(took[60] / took[3], 2), `${round(took[60])} ms here`);
}
