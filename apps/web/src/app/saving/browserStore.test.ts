import type { BrowserStore } from './browserStore.js';
import type { PendingSave } from './saveQueue.js';

/** A browser's store and locks, shared by tabs. */
const kept = new Map<string, unknown>();
const held = new Set<string>();
jest.mock('idb-keyval', () => ({
  createStore: () => ({}),
  set: (key: string, value: unknown) => Promise.resolve(void kept.set(key, value)),
  del: (key: string) => Promise.resolve(void kept.delete(key)),
  entries: () => Promise.resolve([...kept]),
}));
Object.defineProperty(navigator, 'locks', {
  value: {
    request: (name: string) => {
      held.add(name);
      return new Promise(() => undefined);
    },
    query: () => Promise.resolve({ held: [...held].map((name) => ({ name })) }),
  },
});
const close = (tab: string) => held.delete(`salt-circle-tab:${tab}`);

const save = (text: string, key = 'ann:answer:1'): PendingSave => ({
  key,
  url: '/x',
  method: 'PUT',
  body: { text },
  revision: 1,
});

describe('two tabs of one browser', () => {
  let browserStore: (tab: string) => BrowserStore;
  beforeEach(async () => {
    kept.clear();
    held.clear();
    ({ browserStore } = await import('./browserStore.js'));
    jest.useFakeTimers();
  });
  afterEach(() => jest.useRealTimers());

  it('keep the same place each for itself: what one has sent leaves the other’s', async () => {
    const [one, two] = [browserStore('one'), browserStore('two')];
    await one.store.set(save('of one'));
    await two.store.set(save('of two'));
    await two.store.remove('ann:answer:1');
    close('one');
    expect((await browserStore('three').store.all()).map(({ body }) => body['text'])).toEqual(['of one']);
  });

  it('take nothing of each other while both are there, and the newest of those that are closed', async () => {
    const one = browserStore('one');
    await one.store.set(save('older'));
    expect(await browserStore('two').store.all()).toEqual([]);
    jest.advanceTimersByTime(1_000);
    await browserStore('three').store.set(save('newer'));
    close('one');
    close('three');
    const four = browserStore('four');
    expect((await four.store.all()).map(({ body }) => body['text'])).toEqual(['newer']);
    const [left, ...more] = await four.left('ann');
    expect([left?.save.body['text'], more.length]).toEqual(['older', 0]);
    expect(await four.left('ben')).toEqual([]);
    await four.forget(left?.id ?? '');
    expect(await four.left('ann')).toEqual([]);
  });

  it('find what an earlier version kept', async () => {
    kept.set('ann:answer:1', save('from before'));
    const one = browserStore('one');
    expect((await one.store.all()).map(({ body }) => body['text'])).toEqual(['from before']);
    expect([...kept.keys()]).toEqual(['one ann:answer:1']);
  });
});
