import { createHash } from 'node:crypto';
import { createReadStream, existsSync, mkdirSync, rmSync } from 'node:fs';
import { mkdtemp, open, readdir, rename, rm, stat, utimes } from 'node:fs/promises';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { Inject, Injectable } from '@nestjs/common';
import type { Settings } from '../config/settings.js';
import { SETTINGS } from '../config/settings.token.js';

const DIGEST = /^[0-9a-f]{64}$/;

export interface Kept {
  readonly digest: string;
  /** Bytes. */
  readonly size: number;
}

/** Where a file is, by its content. */
export function placeOf(root: string, digest: string): string {
  if (!DIGEST.test(digest)) throw new Error('not a digest');
  return join(root, digest.slice(0, 2), digest);
}

/**
 * Files outside of the database, each at a place that follows from its content. A file appears there by a rename,
 * after it has reached the disk: whatever happens, it is there as a whole or not at all.
 */
@Injectable()
export class FileStore {
  readonly #root: string;
  readonly #work: string;

  constructor(@Inject(SETTINGS) settings: Settings) {
    this.#root = join(settings.dataFolder, 'files');
    this.#work = join(settings.dataFolder, 'working');
    // What an earlier run of the server left half-done.
    rmSync(this.#work, { recursive: true, force: true });
    for (const folder of [this.#root, this.#work]) mkdirSync(folder, { recursive: true });
  }

  /** Where they all are. */
  get root(): string {
    return this.#root;
  }

  path(digest: string): string {
    return placeOf(this.#root, digest);
  }

  has(digest: string): boolean {
    return existsSync(this.path(digest));
  }

  /** Takes a file of ours (on the same disk) into the store. The same content twice is kept once. */
  async adopt(path: string): Promise<Kept> {
    const hash = createHash('sha256');
    await pipeline(createReadStream(path), hash);
    const digest = hash.digest('hex');
    const { size } = await stat(path);
    const to = this.path(digest);
    mkdirSync(join(to, '..'), { recursive: true });
    // It may have lain as an upload for hours: what counts for the cleaner is when it came here.
    const now = new Date();
    await utimes(path, now, now);
    await flushed(path);
    await rename(path, to);
    await flushed(join(to, '..'));
    return { digest, size };
  }

  /** An empty folder for work in progress, on the same disk. */
  workFolder(): Promise<string> {
    return mkdtemp(join(this.#work, 'task-'));
  }

  /** Removes files that are not named, unless they are younger than `age` (in milliseconds): those may be on their way in. */
  async removeOthers(named: ReadonlySet<string>, age: number, now: number): Promise<number> {
    let removed = 0;
    for (const folder of await readdir(this.#root)) {
      for (const digest of await readdir(join(this.#root, folder))) {
        const path = join(this.#root, folder, digest);
        if (named.has(digest) || now - (await stat(path)).mtimeMs < age) continue;
        await rm(path, { force: true });
        removed += 1;
      }
    }
    return removed;
  }
}

/** On the disk itself, not only in the memory of the system. */
async function flushed(path: string): Promise<void> {
  const file = await open(path, 'r');
  try {
    await file.sync();
  } finally {
    await file.close();
  }
}
