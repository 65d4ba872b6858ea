import { at, built, installed, startServer } from './run.mjs';

// Production: no demo data. The server itself says what is missing, and how to set it.

/** Milliseconds until the server is begun again after a fault, growing; one that ran for longer than `CALM` begins at the first. */
const PAUSES = [500, 2_000, 10_000, 60_000];
const CALM = 60_000;
/** By this exit code it says that a setting keeps it from starting: trying again would not help. */
const SETTINGS = 2;

const SETTING = {
  NODE_ENV: 'production',
  SALT_CIRCLE_MODE: 'production',
  SALT_CIRCLE_DATA: process.env.SALT_CIRCLE_DATA ?? at('data', 'production'),
};

const say = (line) => process.stdout.write(`${line}\n`);
/** In the form of the server's own log. */
const log = (level, msg, more) => say(JSON.stringify({ level, time: Date.now(), name: 'start', msg, ...more }));

await installed();
await built();

let server = null;
let ending = false;
for (const signal of ['SIGINT', 'SIGTERM']) {
  process.on(signal, () => {
    ending = true;
    if (server === null) process.exit(0);
    server.kill('SIGTERM');
  });
}

let faults = 0;
while (!ending) {
  const begun = Date.now();
  const { code, signal } = await new Promise((done) => {
    startServer(SETTING, say)
      .then((child) => {
        server = child;
        child.removeAllListeners('exit');
        child.on('exit', (code, signal) => done({ code, signal }));
      })
      .catch((error) => done({ code: error.code ?? 1, signal: error.signal ?? null }));
  });
  server = null;
  if (ending) process.exit(code ?? 0);
  if (code === SETTINGS) process.exit(SETTINGS);
  if (Date.now() - begun > CALM) faults = 0;
  const pause = PAUSES[Math.min(faults, PAUSES.length - 1)];
  faults += 1;
  log(60, 'the server ended by a fault, and is begun again', { code, signal, pause });
  await new Promise((done) => setTimeout(done, pause));
}
