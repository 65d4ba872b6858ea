import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ACTS } from '../attacks/acts.mjs';
import { during, ended, hostileGround, mostMemory } from '../attacks/server.mjs';
import { built, installed } from '../scripts/run.mjs';

// How long others wait while somebody hostile is at work, each act against a fresh server: `node bench/attacks.mjs [part of a name]`.
const PORT = 4644;
const PATIENCE = 60_000;

await installed();
await built();
const [only = ''] = process.argv.slice(2);
process.stdout.write(
  `${'act'.padEnd(60)} ${'health'.padStart(8)} ${'page'.padStart(8)} ${'answer'.padStart(9)}  memory\n`,
);
for (const [name, act] of ACTS.filter(([one]) => one.includes(only))) {
  const folder = mkdtempSync(join(tmpdir(), 'salt-circle-'));
  const ground = await hostileGround(folder, PORT);
  let waiting;
  const late = new Promise((done) => (waiting = setTimeout(() => done(null), PATIENCE)));
  const result = await Promise.race([during(ground, act), late]).catch(() => null);
  clearTimeout(waiting);
  const gone = ground.server.exitCode !== null || ground.server.signalCode !== null;
  const told =
    result === null
      ? `nobody was served for ${PATIENCE / 1_000} s`
      : [result.waitedForHealth, result.waitedForPage].map((one) => `${Math.round(one)} ms`.padStart(8)).join(' ');
  const memory = gone ? 'the process ended' : `${mostMemory(ground.server)} MB`;
  const bytes = result === null ? '' : `${result.answer.bytes} B`.padStart(9);
  process.stdout.write(`${name.padEnd(60)} ${told} ${bytes}  ${memory}\n`);
  if (gone) ground.server.removeAllListeners('exit');
  else if (result === null) ground.server.kill('SIGKILL');
  else await ended(ground.server);
  rmSync(folder, { recursive: true, force: true });
}
process.exit(0);
