import { performance } from 'node:perf_hooks';

// What every measurement against a running server needs.

export const median = (list) => list.toSorted((a, b) => a - b)[Math.floor(list.length / 2)];
export const round = (value, digits = 1) => Number(value.toFixed(digits));
export const line = (name, value, remark = '') =>
  process.stdout.write(`${name.padEnd(52)} ${String(value).padStart(9)}  ${remark}\n`);

/** The median of so many rounds, in milliseconds, after a few that do not count. */
export async function timed(work, rounds = 40) {
  for (let warm = 0; warm < 5; warm += 1) await work(warm);
  const times = [];
  for (let turn = 0; turn < rounds; turn += 1) {
    const begun = performance.now();
    await work(turn + 5);
    times.push(performance.now() - begun);
  }
  return median(times);
}

export function stopped(server) {
  server.removeAllListeners('exit');
  return new Promise((done) => {
    server.on('exit', done);
    server.kill('SIGTERM');
  });
}

/** Asking a server of the demo: as anybody, by stepping in. */
export function callsTo(base) {
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
  return { call, cookieOf };
}

/** What a server of the demo is started with, to be measured. */
export function benchEnv(folder, port) {
  return {
    SALT_CIRCLE_MODE: 'demo',
    SALT_CIRCLE_DATA: folder,
    PORT: port,
    SALT_CIRCLE_LOG: 'off',
    NODE_ENV: 'development',
  };
}
