import { rmSync, readFileSync, readdirSync } from 'node:fs';
import { performance } from 'node:perf_hooks';
import { gzipSync } from 'node:zlib';
import { at, built, installed, startServer } from '../scripts/run.mjs';
import { benchEnv, callsTo, line, median, round, stopped, timed } from './calls.mjs';
import { versionFigures } from './versions.mjs';

// Figures as ratios within one run: absolute times say more about the machine than about the program.
await installed();
await built();

const PORT = '4613';
const base = `http://localhost:${PORT}`;
const folder = at('.cache', 'bench');
const env = benchEnv(folder, PORT);
const { addBenchCourse } = await import('./course.mjs');
const { signedInBrowser } = await import('./browser.mjs');
const { changesFigures } = await import('./changes.mjs');
const { durableFigures } = await import('./durable.mjs');
const { fileFigures } = await import('./files.mjs');
const { deskFigures } = await import('./desk.mjs');
const { flagFigures } = await import('./flags.mjs');
const { scoringFigures } = await import('./scoring.mjs');
const { afterFigures } = await import('./after.mjs');
const { gradingFigures } = await import('./grading.mjs');
const { markedFigures } = await import('./marked.mjs');
const { archiveFigures } = await import('./archive.mjs');
const { platformFigures } = await import('./lti.mjs');
const { identityFigures } = await import('./identity.mjs');
const { todayFigures } = await import('./today.mjs');
const { allocationFigures } = await import('./allocation.mjs');

const { call, cookieOf } = callsTo(base);

async function start() {
  const begun = performance.now();
  const server = await startServer(env);
  return { server, took: performance.now() - begun };
}

/** A bare process that loads nothing: what starting costs on this machine at the least. */
async function bareNode() {
  const { spawnSync } = await import('node:child_process');
  return timed(() => spawnSync(process.execPath, ['-e', '0']), 7);
}

function firstPage() {
  const dist = at('apps', 'web', 'dist');
  const html = readFileSync(`${dist}/index.html`, 'utf8');
  const entry = [...html.matchAll(/(?:src|href)="\/(assets\/[^"]+\.js)"/g)].map(([, path]) => path);
  const size = (path) => gzipSync(readFileSync(`${dist}/${path}`)).length;
  const all = readdirSync(`${dist}/assets`).filter((name) => name.endsWith('.js'));
  return {
    first: entry.reduce((sum, path) => sum + size(path), 0),
    all: all.reduce((sum, name) => sum + size(`assets/${name}`), 0),
  };
}

/** How long the builder takes from a key to the next frame, with few items and with many. */
async function formBuilder(cookie, publishedId) {
  process.stdout.write('\nForm builder: a letter typed into the middle item, to the next frame\n');
  const { course } = await call(`/exchanges/${publishedId}`, 'GET', undefined, cookie);
  const { browser, context } = await signedInBrowser(base, cookie);
  const item = (n) => ({
    kind: 'criterion',
    id: `c${n}`,
    title: `Criterion ${n}`,
    guidance: 'Look closely.',
    required: true,
    weight: 1,
    comment: 'optional',
    levels: [0, 1, 2, 3].map((points) => ({
      id: `c${n}-${points}`,
      title: `Level ${points}`,
      description: 'What it means.',
      points,
    })),
  });
  const times = {};
  for (const count of [4, 40]) {
    const { id } = await call(`/courses/${course.id}/exchanges`, 'POST', { title: `Form of ${count}` }, cookie);
    const items = Array.from({ length: count }, (_, n) => item(n));
    const whole = { weighting: 'points', overall: 'none', overallWords: 0, minimumNotes: 0, targetNotes: 0 };
    await call(`/exchanges/${id}/form`, 'PUT', { revision: 1, ...whole, items }, cookie);
    const page = await context.newPage();
    await page.goto(`${base}/exchanges/${id}/plan/form`);
    const field = page.getByLabel('What it asks').nth(Math.floor(count / 2));
    await field.click();
    const taken = [];
    for (let letter = 0; letter < 25; letter += 1) {
      await page.evaluate(() => {
        const begun = { at: 0 };
        window.addEventListener('keydown', () => (begun.at = performance.now()), { once: true, capture: true });
        window.typed = new Promise((done) => {
          window.addEventListener(
            'input',
            () => requestAnimationFrame(() => setTimeout(() => done(performance.now() - begun.at))),
            { once: true },
          );
        });
      });
      await page.keyboard.press('x');
      taken.push(await page.evaluate(() => window.typed));
    }
    times[count] = median(taken);
    await page.close();
  }
  await browser.close();
  line(
    '40 items against 4',
    round(times[40] / times[4]),
    `${round(times[40], 0)} ms here (with 4: ${round(times[4], 0)} ms)`,
  );
}

process.stdout.write('Start of the server\n');
rmSync(folder, { recursive: true, force: true });
const bare = await bareNode();
const first = await start();
await stopped(first.server);
const again = await start();
line('first start, making the demo data / bare node', round(first.took / bare));
line('second start / bare node', round(again.took / bare), `${round(again.took / 1000, 2)} s here`);
await stopped(again.server);

process.stdout.write('\nJavaScript, gzip\n');
const { first: firstSize, all } = firstPage();
line(
  'first page / all pages',
  round(firstSize / all, 2),
  `${round(firstSize / 1000, 0)} kB of ${round(all / 1000, 0)} kB`,
);

process.stdout.write(
  '\nAnswer times with 300 students and 900 reviews, as multiples of a bare route (GET /api/health)\n',
);
const ids = await addBenchCourse(folder);
const { server } = await start();
const instructor = await cookieOf(ids.instructorId);
const reviewer = await cookieOf(ids.reviewerId);
const health = await timed(() => call('/health'));
const progress = await timed(() => call(`/exchanges/${ids.exchangeId}/progress`, 'GET', undefined, instructor));
let revision = 0;
const save = await timed(async (round) => {
  const answer = await call(
    `/reviews/${ids.reviewId}/answers/first`,
    'PUT',
    { revision, text: `The flags belong before the costs, ${round}.` },
    reviewer,
  );
  revision = answer.revision;
});
const desk = await timed(() => call(`/reviews/${ids.reviewId}`, 'GET', undefined, reviewer));
line('save of an answer', round(save / health), `${round(save, 1)} ms here`);
durableFigures({ line, save });
line('review desk', round(desk / health), `${round(desk, 1)} ms here`);
line('progress table', round(progress / health), `${round(progress, 1)} ms here`);
const boardAt = `/exchanges/${ids.exchangeId}/allocation`;
const board = await timed(() => call(boardAt, 'GET', undefined, instructor));
const whole = await call(boardAt, 'GET', undefined, instructor);
const { pairs, asOf } = whole;
const pair = { reviewerId: pairs[0].reviewerId, draftId: pairs[0].draftId };
const act = await timed((round) =>
  call(`${boardAt}/acts`, 'POST', { [round % 2 === 0 ? 'lock' : 'unlock']: [pair] }, instructor),
);
const told = await call(`${boardAt}/acts?since=${asOf}`, 'POST', { lock: [pair] }, instructor);
const bytes = (answer) => JSON.stringify(answer).length;
line(
  'the same act, told by what differs: bytes',
  round(bytes(told) / bytes(whole), 4),
  `${bytes(told)} of ${bytes(whole)}`,
);
line('allocation board', round(board / health), `${round(board, 1)} ms here`);
line('an act by hand, answered with the board / the board', round(act / board, 2), `${round(act, 1)} ms here`);
const planPage = await timed(() => call(`/exchanges/${ids.exchangeId}/plan`, 'GET', undefined, instructor));
line('plan page, everything that is missing worked out', round(planPage / health), `${round(planPage, 1)} ms here`);
// Under load: ten people save as they type, and the plan page answers between them.
let loading = true;
const load = Array.from({ length: 10 }, async () => {
  while (loading) await call(`/reviews/${ids.reviewId}`, 'GET', undefined, reviewer);
});
const planLoaded = await timed(() => call(`/exchanges/${ids.exchangeId}/plan`, 'GET', undefined, instructor));
loading = false;
await Promise.all(load);
line('plan page while ten others ask without a pause', round(planLoaded / health), `${round(planLoaded, 1)} ms here`);

process.stdout.write('\nA roster of 5,000 rows, as multiples of one of 50\n');
const rosterOf = (count) => ({
  text: ['name,email,id', ...Array.from({ length: count }, (_, n) => `Person ${n},p${n}@example.org,n-${n}`)].join(
    '\n',
  ),
  base64: null,
  traitColumn: null,
  classIds: [],
});
const rosterTimes = {};
for (const count of [50, 5000]) {
  const { id } = await call('/courses', 'POST', { title: `Roster of ${count}`, timeZone: 'UTC' }, instructor);
  const people = `/courses/${id}/people/roster`;
  const begun = performance.now();
  const { fingerprint } = await call(`${people}/preview`, 'POST', rosterOf(count), instructor);
  const seen = performance.now();
  await call(people, 'POST', { ...rosterOf(count), dropMissing: false, invite: false, fingerprint }, instructor);
  rosterTimes[count] = { preview: seen - begun, apply: performance.now() - seen };
}
for (const step of ['preview', 'apply']) {
  const ratio = rosterTimes[5000][step] / rosterTimes[50][step];
  line(`${step}, 100 times the rows`, round(ratio), `${round(rosterTimes[5000][step], 0)} ms here`);
}

await formBuilder(instructor, ids.exchangeId);
await changesFigures({ base, cookie: instructor, exchangeId: ids.exchangeId, line });
await deskFigures({ base, cookie: reviewer, reviewId: ids.reviewId, call, line, round, median });
await fileFigures({ server, call, cookieOf, base, ids, line, round, median });
await stopped(server);
await todayFigures({ folder, env, base, line, round });
identityFigures(line, round);

await allocationFigures(line, round);
flagFigures({ line, round });
scoringFigures({ line, round });
await afterFigures({ line, round });
await gradingFigures({ line, round });
await markedFigures({ line, round });
await archiveFigures({ line, round });
await platformFigures({ line, round });
versionFigures({ line, round });
