import type { ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { cpSync, rmSync } from 'node:fs';
import { built, startServer } from '../../scripts/run.mjs';
import { folderOf, portOf, SEED } from './places.js';

/** A server of one worker alone: its tests move the time and change the data. */
export interface World {
  readonly url: string;
  /** Where its data is. */
  readonly folder: string;
}

function start(folder: string, port: number): Promise<ChildProcess> {
  const settings = { SALT_CIRCLE_MODE: 'demo', SALT_CIRCLE_DATA: folder, PORT: String(port), NODE_ENV: 'development' };
  // Requests are logged as JSON; a run shows faults only.
  return startServer(settings, (line: string) => /"level":[56]0/.test(line) && process.stderr.write(`${line}\n`));
}

async function stop(server: ChildProcess): Promise<void> {
  const ended = once(server, 'exit');
  server.kill('SIGTERM');
  await ended;
}

/**
 * Playwright calls it once, before all tests: the demo's people and exchanges are made once, not once a worker. What is tested is what
 * the sources say, also where Playwright is called by itself.
 */
export default async function seed(): Promise<void> {
  await built();
  rmSync(SEED, { recursive: true, force: true });
  await stop(await start(SEED, portOf(0)));
}

export async function withWorld(worker: number, use: (world: World) => Promise<void>): Promise<void> {
  const folder = folderOf(worker);
  rmSync(folder, { recursive: true, force: true });
  cpSync(SEED, folder, { recursive: true });
  const server = await start(folder, portOf(worker));
  await use({ url: `http://localhost:${portOf(worker)}`, folder });
  await stop(server);
}
