import type { ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { execFileSync } from 'node:child_process';
import { cpSync, rmSync } from 'node:fs';
import { at, built, startPlatform, startServer } from '../../scripts/run.mjs';
import { platformPortOf, folderOf, portOf, SEED } from './places.js';

/** A server of one worker alone: its tests move the time and change the data. */
export interface World {
  readonly url: string;
  /** Where its data is. */
  readonly folder: string;
}

function start(folder: string, port: number, mode = 'demo', platform = ''): Promise<ChildProcess> {
  const settings = {
    SALT_CIRCLE_DEMO_PLATFORM: platform,
    SALT_CIRCLE_MODE: mode,
    SALT_CIRCLE_DATA: folder,
    PORT: String(port),
    NODE_ENV: 'development',
  };
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
  const server = await start(folder, portOf(worker), 'demo', `http://localhost:${platformPortOf(worker)}`);
  await use({ url: `http://localhost:${portOf(worker)}`, folder });
  await stop(server);
}

/** Another installation, in which there is nobody but an instructor. */
export async function withEmpty(
  worker: number,
  { name, email, password }: { readonly name: string; readonly email: string; readonly password: string },
  use: (url: string) => Promise<void>,
): Promise<void> {
  const folder = `${folderOf(worker)}-empty`;
  rmSync(folder, { recursive: true, force: true });
  execFileSync(process.execPath, [at('scripts', 'accounts.mjs'), 'add'], {
    stdio: ['ignore', 'ignore', 'inherit'],
    env: {
      ...process.env,
      ...{ INSTRUCTOR_NAME: name, INSTRUCTOR_EMAIL: email, INSTRUCTOR_PASSWORD: password, SALT_CIRCLE_DATA: folder },
    },
  });
  const port = portOf(worker) + 50;
  const server = await start(folder, port, 'development');
  try {
    await use(`http://localhost:${port}`);
  } finally {
    await stop(server);
  }
}

/** The stand-in platform that the server of a worker knows. */
export async function withPlatform(worker: number, use: (url: string) => Promise<void>): Promise<void> {
  const port = platformPortOf(worker);
  const file = `${folderOf(worker)}/platform.json`;
  rmSync(file, { force: true });
  const platform = await startPlatform({ port, file, tool: `http://localhost:${portOf(worker)}` });
  if (platform === null) throw new Error(`the stand-in platform could not start on port ${port}`);
  await use(`http://localhost:${port}`);
  await stop(platform);
}
