import { rmSync } from 'node:fs';
import { performance } from 'node:perf_hooks';
import { at, built, installed, startServer } from '../scripts/run.mjs';
import { benchEnv, callsTo, line, median, round, stopped, timed } from './calls.mjs';
import { signedInBrowser } from './browser.mjs';
import { addBenchCourse } from './course.mjs';

// What an author gets after the release, with as much feedback as anybody will ever have; one event that 300 browsers wait for; and
// everybody's grade in a large course.

const PORT = '4614';
const base = `http://localhost:${PORT}`;
const LISTENERS = 300;
const DAY = 24 * 3_600_000;
const { call, cookieOf } = callsTo(base);

/** Ten reviews with forty notes each of the first student's draft, all submitted, feedback released; of the second student's one, without. */
async function muchFeedback(folder, { exchangeId }) {
  const dist = (path) => import(at('apps', 'server', 'dist', ...path.split('/')));
  const [{ Database }, { Clock }, { Ids }, { insertAll }, exchanges, drafts, reviews] = await Promise.all(
    [
      'platform/database/database.js',
      'platform/clock/clock.js',
      'platform/ids/ids.js',
      'platform/database/insert-all.js',
      'model/exchange.js',
      'model/draft.js',
      'model/review.js',
    ].map(dist),
  );
  const database = await Database.open(folder, new Clock());
  const ids = new Ids();
  const now = Date.now();
  await database.write(async (manager) => {
    await manager.update(
      exchanges.Exchange,
      { id: exchangeId },
      {
        reviewsDue: now - DAY,
        release: now - 1_000,
        gradeParts: [
          { part: 'reviews-done', weight: 1 },
          { part: 'peer-score', weight: 1 },
        ],
      },
    );
    const sentences = Array.from(
      { length: 400 },
      (_, n) => `Sentence ${n} says what was found at the spot, and how it was measured.`,
    );
    const html = Array.from({ length: 40 }, (_, n) => `<p>${sentences.slice(n * 10, n * 10 + 10).join(' ')}</p>`).join(
      '',
    );
    const all = await manager.find(drafts.Draft, { where: { exchangeId }, order: { id: 'ASC' } });
    const [much, little] = all;
    const version = await manager.findOneByOrFail(drafts.DraftVersion, { draftId: much.id });
    const part = await manager.findOneByOrFail(drafts.DraftPart, { versionId: version.id });
    await manager.update(drafts.DraftPart, { id: part.id }, { html });
    const others = all.slice(20, 30).map(({ participantId }) => participantId);
    await manager.delete(reviews.Review, { draftId: much.id });
    await manager.delete(reviews.Review, { draftId: little.id });
    const review = (reviewerId, draftId) => ({
      id: ids.uuid(),
      exchangeId,
      reviewerId,
      draftId,
      position: 9,
      begunAt: now - DAY,
      submittedAt: now - DAY,
    });
    const rows = [...others.map((id) => review(id, much.id)), review(others[0], little.id)];
    await insertAll(manager, reviews.Review, rows);
    const text = html.replace(/<\/p><p>/g, '\n\n').replace(/<\/?p>/g, '');
    const notes = rows.slice(0, 10).flatMap(({ id: reviewId }, reviewer) =>
      Array.from({ length: 40 }, (_, n) => {
        const exact = sentences[(n * 10 + reviewer) % sentences.length];
        const start = text.indexOf(exact);
        const quote = {
          type: 'TextQuoteSelector',
          exact,
          prefix: text.slice(Math.max(0, start - 20), start),
          suffix: text.slice(start + exact.length, start + exact.length + 20),
        };
        return {
          ...{
            id: ids.uuid(),
            reviewId,
            kind: ['keep', 'change', 'ask', 'fix'][n % 4],
            body: `Note ${n}: say who measured it.`,
          },
          ...{ versionId: version.id, partId: part.id, revision: 1, createdAt: now },
          selector: {
            type: 'text',
            quote,
            position: { type: 'TextPositionSelector', start, end: start + exact.length },
          },
        };
      }),
    );
    await insertAll(manager, reviews.NoteRow, notes);
  });
  const people = await database.read.find(exchanges.Participant, { where: { exchangeId } });
  const all = await database.read.find(drafts.Draft, { where: { exchangeId }, order: { id: 'ASC' } });
  await database.onApplicationShutdown();
  const personOf = new Map(people.map(({ id, personId }) => [id, personId]));
  return all.slice(0, 2).map(({ participantId }) => personOf.get(participantId));
}

async function pageOf(cookie, exchangeId) {
  const { browser, context } = await signedInBrowser(base, cookie);
  const times = [];
  for (let round = 0; round < 4; round += 1) {
    const page = await context.newPage();
    const begun = performance.now();
    await page.goto(`${base}/exchanges/${exchangeId}/feedback`);
    await page.getByRole('tab', { name: /^Notes/ }).waitFor();
    await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))));
    times.push(performance.now() - begun);
    await page.close();
  }
  await browser.close();
  return median(times);
}

/** Milliseconds from an act to the last of so many browsers that hear of it. */
async function heardBy(count, cookies, act) {
  const streams = await Promise.all(
    cookies.slice(0, count).map(async (cookie) => {
      const abort = new AbortController();
      const response = await fetch(`${base}/api/changes`, { headers: { cookie }, signal: abort.signal });
      return { abort, reader: response.body.getReader() };
    }),
  );
  const heard = streams.map(async ({ reader }) => {
    const decoder = new TextDecoder();
    for (;;) {
      const { value, done } = await reader.read();
      if (done) throw new Error('a stream ended');
      if (decoder.decode(value, { stream: true }).includes('data:')) return performance.now();
    }
  });
  await new Promise((done) => setTimeout(done, 500));
  const begun = performance.now();
  await act();
  const last = Math.max(...(await Promise.all(heard)));
  for (const { abort } of streams) abort.abort();
  return last - begun;
}

export async function afterFigures({ line, round }) {
  await installed();
  await built();
  const folder = at('.cache', 'bench-after');
  rmSync(folder, { recursive: true, force: true });
  const env = benchEnv(folder, PORT);
  await stopped(await startServer(env));
  const course = await addBenchCourse(folder, { students: LISTENERS + 20 });
  const [much, little] = await muchFeedback(folder, course);
  const large = await addBenchCourse(folder, { students: 2_000, title: 'Large' });
  const server = await startServer(env);
  const [ofMuch, ofLittle, teacher] = await Promise.all([much, little, course.instructorId].map(cookieOf));
  const bare = await timed(() => call('/session', 'GET', undefined, ofMuch), 20);
  const answer = await timed(() => call(`/exchanges/${course.exchangeId}/feedback`, 'GET', undefined, ofMuch));
  line('feedback of 10 reviews, 400 notes : a bare route', round(answer / bare), `${round(answer)} ms`);
  const [page, small] = [await pageOf(ofMuch, course.exchangeId), await pageOf(ofLittle, course.exchangeId)];
  line('  its page drawn : one review without notes', round(page / small), `${round(page)} ms`);
  const cookies = [];
  for (const id of course.studentIds.slice(0, LISTENERS)) cookies.push(await cookieOf(id));
  const plan = `/exchanges/${course.exchangeId}/plan`;
  let turn = 0;
  const act = async () => {
    const { revision, ...now } = await call(plan, 'GET', undefined, teacher);
    turn += 1;
    await call(plan, 'PUT', { ...asked(now), briefHtml: `<p>Brief ${turn}</p>`, revision }, teacher);
  };
  const one = await heardBy(1, cookies, act);
  const all = await heardBy(LISTENERS, cookies, act);
  line(`one event, heard by the last of ${LISTENERS} : by one`, round(all / one), `${round(all)} ms`);
  const staff = await cookieOf(large.instructorId);
  const progress = await timed(() => call(`/exchanges/${large.exchangeId}/progress`, 'GET', undefined, staff), 5);
  const grades = await timed(() => call(`/exchanges/${large.exchangeId}/grades`, 'GET', undefined, staff), 5);
  line('grades of 2,000 people : their progress table', round(grades / progress), `${round(grades)} ms`);
  await stopped(server);
}

/** What the Plan page sends of what it got. */
function asked(view) {
  const names =
    'title briefHtml guideHtml dates late deliverables takesPart handInAs whom groupSetId reviewsPerStudent selfReview ownHandInFirst names showNamesAtRelease feedbackEach reviewsFinal practice after remindHours gradeParts shorthandId';
  return Object.fromEntries(names.split(' ').map((name) => [name, view[name]]));
}

if (process.argv[1]?.endsWith('after.mjs')) await afterFigures({ line, round });
