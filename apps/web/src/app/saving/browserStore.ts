import { createStore, del, entries, set } from 'idb-keyval';
import type { PendingSave, QueueSurroundings } from './saveQueue.js';

/** Unsent work of one tab. */
interface Kept {
  readonly save: PendingSave;
  readonly tab: string;
  /** Milliseconds since 1970. */
  readonly at: number;
}

/** Text of a tab that was closed, where another one has newer text for the same place. */
export interface Left {
  /** In the browser's store. */
  readonly id: string;
  readonly save: PendingSave;
  readonly at: number;
}

export interface BrowserStore {
  readonly store: QueueSurroundings['store'];
  /** What closed tabs left of this person and nothing goes on with, the newest first. */
  readonly left: (personId: string) => Promise<Left[]>;
  readonly forget: (id: string) => Promise<void>;
  /** All unsent work of a person in this browser, of every tab. */
  readonly everything: (personId: string) => Promise<PendingSave[]>;
  /** Removes it. */
  readonly clear: (personId: string) => Promise<void>;
}

const LOCK = 'salt-circle-tab:';

/**
 * Unsent work in IndexedDB, of each tab by itself: what one tab has sent says nothing of what another one keeps. A tab is there
 * as long as it holds its lock. Where the store is switched off, work is still sent as typed, and kept in memory meanwhile.
 */
export function browserStore(tab: string = crypto.randomUUID()): BrowserStore {
  const store = createStore('salt-circle-unsent', 'saves');
  const quietly = (work: () => Promise<void>) =>
    Promise.resolve()
      .then(work)
      .catch(() => undefined);
  if ('locks' in navigator)
    void navigator.locks.request(LOCK + tab, () => new Promise(() => undefined)).catch(() => undefined);
  const keyOf = (key: string) => `${tab} ${key}`;
  const ofClosedTabs = async (): Promise<Left[]> => {
    const open = await openTabs();
    const all = await entries<string, Kept | PendingSave>(store).catch(() => []);
    return all
      .map(([id, kept]): Left & { readonly tab: string | null } =>
        // As earlier versions kept it, for all tabs together.
        'save' in kept ? { id, ...kept } : { id, save: kept, tab: null, at: 0 },
      )
      .filter((one) => one.tab === null || !(open.has(one.tab) || one.tab === tab))
      .sort((a, b) => b.at - a.at);
  };
  const ofPerson = async (personId: string): Promise<Array<[string, PendingSave]>> => {
    const all = await entries<string, Kept | PendingSave>(store).catch(() => []);
    return all
      .map(([id, kept]): [string, PendingSave] => [id, 'save' in kept ? kept.save : kept])
      .filter(([, save]) => save.key.startsWith(`${personId}:`));
  };
  return {
    store: {
      set: (save) => quietly(() => set(keyOf(save.key), { save, tab, at: Date.now() } satisfies Kept, store)),
      remove: (key) => quietly(() => del(keyOf(key), store)),
      all: async () => {
        const taken = new Map<string, Left>();
        for (const one of await ofClosedTabs()) if (!taken.has(one.save.key)) taken.set(one.save.key, one);
        for (const { id, save, at } of taken.values()) {
          await quietly(() => set(keyOf(save.key), { save, tab, at } satisfies Kept, store));
          await quietly(() => del(id, store));
        }
        return [...taken.values()].map(({ save }) => save);
      },
    },
    left: async (personId) => (await ofClosedTabs()).filter(({ save }) => save.key.startsWith(`${personId}:`)),
    forget: (id) => quietly(() => del(id, store)),
    everything: async (personId) => (await ofPerson(personId)).map(([, save]) => save),
    clear: async (personId) => {
      for (const [id] of await ofPerson(personId)) await quietly(() => del(id, store));
    },
  };
}

async function openTabs(): Promise<ReadonlySet<string>> {
  if (!('locks' in navigator)) return new Set();
  const { held = [] } = await navigator.locks.query();
  return new Set(held.flatMap(({ name = '' }) => (name.startsWith(LOCK) ? [name.slice(LOCK.length)] : [])));
}
