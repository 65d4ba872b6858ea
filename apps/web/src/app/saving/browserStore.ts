import { createStore, del, set, values } from 'idb-keyval';
import type { PendingSave, QueueSurroundings } from './saveQueue.js';

/** Unsent work in IndexedDB. Where it is switched off, work is still sent as typed, and kept in memory meanwhile. */
export function browserStore(): QueueSurroundings['store'] {
  const store = createStore('salt-circle-unsent', 'saves');
  const quietly = (work: () => Promise<void>) =>
    Promise.resolve()
      .then(work)
      .catch(() => undefined);
  return {
    set: (save) => quietly(() => set(save.key, save, store)),
    remove: (key) => quietly(() => del(key, store)),
    all: () => values<PendingSave>(store).catch(() => []),
  };
}
