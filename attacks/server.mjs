import { readFileSync, mkdirSync, writeFileSync, rmSync } from 'node:fs';
import { Agent, get } from 'node:http';
import { join } from 'node:path';
import { performance } from 'node:perf_hooks';
import { startServer } from '../scripts/run.mjs';
import { ask } from './acts.mjs';

const LOOK_EVERY = 15;

/** A server of its own, with the people of the demo, in a process of its own: what happens to it happens to nobody else. */
export async function hostileGround(folder, port) {
  rmSync(folder, { recursive: true, force: true });
  const web = join(folder, 'web');
  mkdirSync(web, { recursive: true });
  writeFileSync(join(web, 'index.html'), '<!doctype html><title>A page</title>');
  const server = await startServer({
    SALT_CIRCLE_MODE: 'demo',
    SALT_CIRCLE_DATA: join(folder, 'data'),
    SALT_CIRCLE_WEB: web,
    SALT_CIRCLE_LOG: 'off',
    PORT: String(port),
    NODE_ENV: 'development',
  });
  const base = `http://127.0.0.1:${port}`;
  const target = await targetAt(base).catch(async (error) => {
    await ended(server);
    throw error;
  });
  return { server, web: `${base}/`, target };
}

/** @returns {Promise<import('./acts.mjs').Target>} */
async function targetAt(base) {
  const people = JSON.parse((await ask({ base }, 'GET', '/demo/people')).text);
  const cookieOf = async (name) => {
    const { id } = people.find((one) => one.name === name);
    const { headers } = await ask({ base }, 'POST', '/demo/step-in', { body: JSON.stringify({ personId: id }) });
    return headers.getSetCookie()[0].split(';')[0];
  };
  const staff = await cookieOf('Ines Marchetti');
  const read = async (path) => JSON.parse((await ask({ base }, 'GET', path, { cookie: staff })).text);
  const course = (await read('/courses')).find(({ title }) => title === 'Coastal Restoration');
  const { exchanges } = await read(`/courses/${course.id}`);
  const { id: exchangeId } = exchanges.find(({ title }) => title === 'Monitoring plan');
  const { deliverables } = await read(`/exchanges/${exchangeId}/plan`);
  const idOf = (kind) => deliverables.find((one) => one.kind === kind).id;
  return {
    base,
    staff,
    student: await cookieOf('Viktor Lund'),
    classmate: await cookieOf('Yara Costa'),
    courseId: course.id,
    exchangeId,
    deliverables: { text: idOf('text'), files: idOf('file') },
  };
}

/** One request after the other on a connection that stays open. @returns a function that ends it and tells the longest, in ms */
function watched(url) {
  const agent = new Agent({ keepAlive: true, maxSockets: 1 });
  let longest = 0;
  let over = false;
  const look = () =>
    new Promise((done) => {
      const begun = performance.now();
      const settle = () => {
        longest = Math.max(longest, performance.now() - begun);
        done();
      };
      get(url, { agent }, (response) => response.resume().on('end', settle)).on('error', settle);
    });
  const looking = (async () => {
    while (!over) {
      await look();
      await new Promise((done) => setTimeout(done, LOOK_EVERY));
    }
  })();
  return async () => {
    over = true;
    await looking;
    agent.destroy();
    return longest;
  };
}

/** An act, and how long others waited meanwhile for the health of the server, and for a page of it, at the longest, in ms. */
export async function during({ target, web }, act) {
  const [health, page] = [watched(`${target.base}/api/health`), watched(web)];
  await new Promise((done) => setTimeout(done, 100));
  const answer = await act(target);
  await new Promise((done) => setTimeout(done, 50));
  const [waitedForHealth, waitedForPage] = await Promise.all([health(), page()]);
  return { answer, waitedForHealth, waitedForPage };
}

/** The most memory that the process has had so far, in megabytes; null where the system does not tell. */
export function mostMemory({ pid }) {
  try {
    const kilobytes = /VmHWM:\s+(\d+) kB/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1];
    return kilobytes === undefined ? null : Math.round(Number(kilobytes) / 1_000);
  } catch {
    return null;
  }
}

export async function ended(server) {
  server.removeAllListeners('exit');
  await new Promise((done) => {
    server.on('exit', done);
    server.kill('SIGTERM');
  });
}
