import { readFileSync, rmSync, writeFileSync } from 'node:fs';
import { hostname } from 'node:os';
import { join } from 'node:path';
import lockfile from 'proper-lockfile';
import { SettingsError } from './settings.js';

/** Milliseconds after which a lock without a heartbeat counts for nothing: for folders that several machines reach. */
const STALE = 20_000;
const OWNER = 'in-use.json';

interface Owner {
  readonly pid: number;
  readonly host: string;
}

/**
 * Takes a data folder for this process alone: two servers on one would send each letter twice. Commands beside the server need no lock.
 *
 * @returns a function that gives it back
 * @throws SettingsError while another server uses it
 */
export async function lockFolder(folder: string, onLost: () => void): Promise<() => Promise<void>> {
  const options = {
    ...{ lockfilePath: join(folder, 'in-use.lock'), stale: STALE, update: STALE / 4, realpath: false },
    onCompromised: onLost,
  };
  const take = () => lockfile.lock(folder, options);
  const release = await take().catch(async (error: NodeJS.ErrnoException) => {
    if (error.code !== 'ELOCKED') throw error;
    const owner = ownerOf(folder);
    // A server of this machine that was killed leaves its lock behind; its process tells that it is gone.
    if (owner === null || owner.host !== hostname() || isAlive(owner.pid)) {
      throw new SettingsError(
        `The data folder ${folder} is in use by another Salt Circle${owner === null ? '' : ` (process ${owner.pid} on ${owner.host})`}. Stop that one, or set SALT_CIRCLE_DATA to another folder.`,
      );
    }
    rmSync(options.lockfilePath, { recursive: true, force: true });
    return take();
  });
  writeFileSync(join(folder, OWNER), JSON.stringify({ pid: process.pid, host: hostname() } satisfies Owner));
  return release;
}

function ownerOf(folder: string): Owner | null {
  try {
    return JSON.parse(readFileSync(join(folder, OWNER), 'utf8')) as Owner;
  } catch {
    return null;
  }
}

function isAlive(pid: number): boolean {
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return (error as NodeJS.ErrnoException).code === 'EPERM';
  }
}
