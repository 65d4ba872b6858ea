import { readFileSync, rmSync } from 'node:fs';
import { performance } from 'node:perf_hooks';
import { at, built, installed, startServer } from '../scripts/run.mjs';
import { benchEnv, callsTo, line, round, stopped } from './calls.mjs';
import { addBenchCourse } from './course.mjs';
import { submitAll } from './reviewed.mjs';

// An exchange of 600 people with 1,800 reviews as an archive, against its progress table and against one of 60; read back; memory.

const PORT = '4618';
const base = `http://localhost:${PORT}`;
const { cookieOf } = callsTo(base);

/** Megabytes: the most that the server has had. */
const mostMemory = ({ pid }) => Number(/VmHWM:\s*(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1]) / 1024;

async function got(path, cookie) {
  const begun = performance.now();
  const answer = await fetch(`${base}/api${path}`, { headers: { cookie, 'x-salt-circle': '1' } });
  if (!answer.ok) throw new Error(await answer.text());
  const bytes = new Uint8Array(await answer.arrayBuffer());
  return { bytes, took: performance.now() - begun };
}

async function uploaded(bytes, cookie) {
  const base64 = (text) => Buffer.from(text).toString('base64');
  const tus = { cookie, 'x-salt-circle': '1', 'tus-resumable': '1.0.0' };
  const begun = await fetch(`${base}/api/uploads`, {
    method: 'POST',
    headers: {
      ...tus,
      'upload-length': String(bytes.length),
      'upload-metadata': `exchange ${base64('')},deliverable ${base64('')},name ${base64('a.zip')},use ${base64('archive')}`,
    },
  });
  const id = begun.headers.get('location').split('/').at(-1);
  await fetch(`${base}/api/uploads/${id}`, {
    method: 'PATCH',
    headers: { ...tus, 'content-type': 'application/offset+octet-stream', 'upload-offset': '0' },
    body: bytes,
  });
  return id;
}

async function readBack(bytes, cookie) {
  const uploadId = await uploaded(bytes, cookie);
  const begun = performance.now();
  const answer = await fetch(`${base}/api/archives`, {
    method: 'POST',
    headers: { cookie, 'x-salt-circle': '1', 'content-type': 'application/json' },
    body: JSON.stringify({ uploadId, courseTitle: 'Back' }),
  });
  if (!answer.ok) throw new Error(await answer.text());
  return performance.now() - begun;
}

export async function archiveFigures({ line, round }) {
  await installed();
  await built();
  const folder = at('.cache', 'bench-archive');
  rmSync(folder, { recursive: true, force: true });
  const env = benchEnv(folder, PORT);
  await stopped(await startServer(env));
  const small = await addBenchCourse(folder, { students: 60, title: 'Small' });
  const large = await addBenchCourse(folder, { students: 600, title: 'Large' });
  for (const course of [small, large]) await submitAll(folder, course);
  const server = await startServer(env);
  const [cookie, other] = [await cookieOf(large.instructorId), await cookieOf(small.instructorId)];
  const archive = (course, of, query = '') => got(`/exchanges/${course.exchangeId}/archive.zip${query}`, of);
  // The first of all waits for its thread.
  await archive(small, other, '?drafts=no');
  await got(`/exchanges/${large.exchangeId}/progress`, cookie);
  const progress = await got(`/exchanges/${large.exchangeId}/progress`, cookie);
  const before = mostMemory(server);
  const rows = await archive(large, cookie, '?people=aliases&drafts=no');
  const few = await archive(small, other, '?people=aliases&drafts=no');
  line(
    'archive of 600 people under aliases, without drafts : of 60',
    round(rows.took / few.took),
    `${round(rows.took)} ms`,
  );
  const research = await archive(large, cookie, '?people=aliases');
  line('  with drafts : their progress table', round(research.took / progress.took), `${round(research.took)} ms`);
  const whole = await archive(large, cookie);
  line(
    '  with names, notes for programs and grades : under aliases',
    round(whole.took / research.took),
    `${round(whole.took)} ms, ${round(whole.bytes.length / 1e6)} MB`,
  );
  const back = await readBack(whole.bytes, cookie);
  line('  read back : made', round(back / whole.took), `${round(back)} ms`);
  line('  memory of the server, most : before', round(mostMemory(server) / before), `${round(mostMemory(server))} MB`);
  await stopped(server);
}

if (process.argv[1]?.endsWith('archive.mjs')) await archiveFigures({ line, round });
