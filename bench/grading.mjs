import { rmSync } from 'node:fs';
import { performance } from 'node:perf_hooks';
import { at, built, installed, startServer } from '../scripts/run.mjs';
import { benchEnv, callsTo, line, median, round, stopped, timed } from './calls.mjs';
import { signedInBrowser } from './browser.mjs';
import { addBenchCourse } from './course.mjs';
import { submitAll } from './reviewed.mjs';

// Grading and insights of 2,000 people with 6,000 reviews, against what the same server does anyway, and against a class of 24.

const PORT = '4616';
const base = `http://localhost:${PORT}`;
const { call, cookieOf } = callsTo(base);

/** Milliseconds until the page shows what is waited for, the median of a few. */
async function drawn(context, path, ready) {
  const times = [];
  for (let turn = 0; turn < 3; turn += 1) {
    const page = await context.newPage();
    const begun = performance.now();
    await page.goto(`${base}${path}`);
    await ready(page);
    times.push(performance.now() - begun);
    await page.close();
  }
  return median(times);
}

/** Milliseconds from a key to the draft of the next person. */
async function nextPerson(context, exchangeId, first) {
  const page = await context.newPage();
  await page.goto(`${base}/exchanges/${exchangeId}/grades/${first}`);
  const name = () => page.getByRole('heading', { level: 2 }).first();
  await page.getByRole('region', { name: 'The draft with all notes' }).waitFor();
  const times = [];
  for (let turn = 0; turn < 5; turn += 1) {
    const before = await name().innerText();
    const begun = performance.now();
    await page.keyboard.press('n');
    await page.waitForFunction((was) => document.querySelector('main h2')?.innerText !== was, before);
    await page.getByRole('region', { name: 'The draft with all notes' }).waitFor();
    times.push(performance.now() - begun);
  }
  await page.close();
  return median(times);
}

const pictures = (page) =>
  page
    .getByRole('region', { name: /When were reviews submitted/ })
    .locator('canvas')
    .waitFor();

export async function gradingFigures({ line, round }) {
  await installed();
  await built();
  const folder = at('.cache', 'bench-grading');
  rmSync(folder, { recursive: true, force: true });
  const env = benchEnv(folder, PORT);
  await stopped(await startServer(env));
  const small = await addBenchCourse(folder, { students: 24, title: 'Small' });
  const large = await addBenchCourse(folder, { students: 2_000, title: 'Large' });
  await submitAll(folder, small);
  await submitAll(folder, large);
  const server = await startServer(env);
  const staff = await cookieOf(large.instructorId);
  const get = (path, cookie = staff) => call(`/exchanges/${large.exchangeId}/${path}`, 'GET', undefined, cookie);
  const progress = await timed(() => get('progress'), 5);
  const { rows } = await get('grades');
  let value = 50;
  const anew = await timed(async () => {
    value += 1;
    const body = { part: '', value, reason: 'To measure.' };
    await call(`/exchanges/${large.exchangeId}/grades/${rows[0].id}/override`, 'PUT', body, staff);
    await get('grades');
  }, 5);
  line('grades of 2,000 people after one change : their board', round(anew / progress), `${round(anew)} ms`);
  const insights = await timed(() => get('insights'), 5);
  line('insights of 6,000 reviews : the same board', round(insights / progress), `${round(insights)} ms`);
  const { browser, context } = await signedInBrowser(base, staff);
  const many = await drawn(context, `/exchanges/${large.exchangeId}/insights`, pictures);
  const ofFew = await signedInBrowser(base, await cookieOf(small.instructorId));
  const few = await drawn(ofFew.context, `/exchanges/${small.exchangeId}/insights`, pictures);
  line('  their page drawn : that of 72 reviews', round(many / few), `${round(many)} ms`);
  const next = await nextPerson(context, large.exchangeId, rows[0].id);
  const smallRows = await call(
    `/exchanges/${small.exchangeId}/grades`,
    'GET',
    undefined,
    await cookieOf(small.instructorId),
  );
  const nextOfFew = await nextPerson(ofFew.context, small.exchangeId, smallRows.rows[0].id);
  line('next person on the grading desk, of 2,000 : of 24', round(next / nextOfFew), `${round(next)} ms`);
  await browser.close();
  await ofFew.browser.close();
  await stopped(server);
}

if (process.argv[1]?.endsWith('grading.mjs')) await gradingFigures({ line, round });
