import { rmSync, readFileSync, readdirSync } from 'node:fs';
import { performance } from 'node:perf_hooks';
import { gzipSync } from 'node:zlib';
import { at, built, installed, startServer } from '../scripts/run.mjs';

// Figures as ratios within one run: absolute times say more about the machine than about the program.
await installed();
await built();

const PORT = '4613';
const base = `http://localhost:${PORT}`;
const folder = at('.cache', 'bench');
const env = {
  SALT_CIRCLE_MODE: 'demo',
  SALT_CIRCLE_DATA: folder,
  PORT,
  SALT_CIRCLE_LOG: 'off',
  NODE_ENV: 'development',
};
const { addBenchCourse } = await import('./course.mjs');
const { allocate } = await import(at('packages', 'core', 'dist', 'index.js'));

const median = (list) => list.toSorted((a, b) => a - b)[Math.floor(list.length / 2)];
const round = (value, digits = 1) => Number(value.toFixed(digits));
const line = (name, value, remark = '') =>
  process.stdout.write(`${name.padEnd(52)} ${String(value).padStart(9)}  ${remark}\n`);

async function timed(work, rounds = 40) {
  for (let warm = 0; warm < 5; warm += 1) await work(warm);
  const times = [];
  for (let round = 0; round < rounds; round += 1) {
    const begun = performance.now();
    await work(round + 5);
    times.push(performance.now() - begun);
  }
  return median(times);
}

function stopped(server) {
  server.removeAllListeners('exit');
  return new Promise((done) => {
    server.on('exit', done);
    server.kill('SIGTERM');
  });
}

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

async function call(path, method = 'GET', body, cookie = '') {
  const response = await fetch(`${base}/api${path}`, {
    method,
    headers: { 'x-salt-circle': '1', 'content-type': 'application/json', cookie },
    ...(body && { body: JSON.stringify(body) }),
  });
  if (!response.ok) throw new Error(`${method} ${path}: ${response.status} ${await response.text()}`);
  const text = await response.text();
  return text === '' ? response : JSON.parse(text);
}

async function cookieOf(personId) {
  const response = await call('/demo/step-in', 'POST', { personId });
  return response.headers.getSetCookie()[0].split(';')[0];
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
    { revision, text: `The doubts belong before the costs, ${round}.` },
    reviewer,
  );
  revision = answer.revision;
});
const desk = await timed(() => call(`/reviews/${ids.reviewId}`, 'GET', undefined, reviewer));
line('save of an answer', round(save / health), `${round(save, 1)} ms here`);
line('review desk', round(desk / health), `${round(desk, 1)} ms here`);
line('progress table', round(progress / health), `${round(progress, 1)} ms here`);
await stopped(server);

process.stdout.write('\nallocate(), 3 reviews each, as multiples of the time for 30 people\n');
const problem = (count) => ({
  reviewers: Array.from({ length: count }, (_, index) => ({ id: `p${index}`, capacity: 3 })),
  drafts: Array.from({ length: count }, (_, index) => ({ id: `d${index}`, authorIds: [`p${index}`] })),
  seed: 1962,
});
let small = 0;
for (const count of [30, 300, 3000]) {
  const given = problem(count);
  const { quality } = allocate(given);
  const took = await timed(() => allocate(given), count === 3000 ? 5 : 20);
  if (count === 30) small = took;
  line(
    `${count} people`,
    round(took / small, 0),
    `${round(took, 2)} ms here; ${quality.fewestPerDraft} to ${quality.mostPerDraft} reviews per draft, ${quality.mutualPairs} mutual pairs`,
  );
}
