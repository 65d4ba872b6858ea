import { join } from 'node:path';

const CACHE = join(import.meta.dirname, '../../.cache/e2e');
/** The demo's data as it is at first; each worker gets a copy. */
export const SEED = join(CACHE, 'seed');
/** Not the demo's own port, so that tests can run beside it; each worker has the next one. */
const PORT = 4611;

export const folderOf = (worker: number): string => join(CACHE, `worker-${worker}`);
/** Of the stand-in platform that belongs to the server of a worker. */
export const platformPortOf = (worker: number): number => PORT + 20 + worker;
export const portOf = (worker: number): number => PORT + worker;
