import type { Problem } from '@salt-circle/contracts';
import { PAUSE, RETRIES, SaveQueue, type PendingSave, type QueueState, type Sent } from './saveQueue.js';

/** A server with one copy per key, and a browser store, both in memory. */
class Surroundings {
  readonly server = new Map<string, { revision: number; text: unknown }>();
  readonly stored = new Map<string, PendingSave>();
  readonly states = new Map<string, QueueState>();
  readonly sent: PendingSave[] = [];
  mode: 'on' | 'offline' | 'signed-out' | 'refusing' = 'on';
  hold: Promise<void> = Promise.resolve();

  readonly world = {
    send: async (save: PendingSave): Promise<Sent> => {
      await this.hold;
      this.sent.push(save);
      if (this.mode === 'offline' || this.mode === 'signed-out') return { outcome: this.mode };
      if (this.mode === 'refusing') return { outcome: 'refused', problem: problem('invalid') };
      const current = this.server.get(save.key);
      if ((current?.revision ?? 0) !== save.revision) return { outcome: 'conflict', problem: problem('conflict') };
      this.server.set(save.key, { revision: save.revision + 1, text: save.body['text'] });
      return { outcome: 'saved', revision: save.revision + 1 };
    },
    store: {
      set: (save: PendingSave) => Promise.resolve(void this.stored.set(save.key, save)),
      remove: (key: string) => Promise.resolve(void this.stored.delete(key)),
      all: () => Promise.resolve([...this.stored.values()]),
    },
    onState: (key: string, state: QueueState) => void this.states.set(key, state),
    now: () => 5,
  };

  state(key = KEY): string | undefined {
    return this.states.get(key)?.state;
  }
}

function problem(code: Problem['code']): Problem {
  return { code, sentence: code, whatToDo: '', fields: [] };
}

const KEY = 'ann:answer:1';
const type = (text: string, revision = 0): PendingSave => ({
  key: KEY,
  url: '/x',
  method: 'PUT',
  body: { text },
  revision,
});

describe('SaveQueue', () => {
  let around: Surroundings;
  let queue: SaveQueue;
  const pass = (milliseconds: number) => jest.advanceTimersByTimeAsync(milliseconds);

  beforeEach(() => {
    jest.useFakeTimers();
    around = new Surroundings();
    queue = new SaveQueue(around.world);
  });
  afterEach(() => jest.useRealTimers());

  it('sends once after a pause in typing, and forgets the copy in the browser once confirmed', async () => {
    for (const text of ['a', 'ab', 'abc']) queue.put(type(text));
    expect(around.stored.get(KEY)?.body).toEqual({ text: 'abc' });
    expect(around.state()).toBe('unsaved');
    await pass(PAUSE);
    expect(around.sent.map(({ body }) => body)).toEqual([{ text: 'abc' }]);
    expect(around.states.get(KEY)).toEqual({ state: 'saved', at: 5 });
    expect(around.stored.size).toBe(0);
    expect(queue.hasUnsent).toBe(false);
  });

  it('sends what was typed during a request right after it, on top of the new revision', async () => {
    let letGo = () => {};
    around.hold = new Promise((resolve) => (letGo = resolve));
    queue.put(type('first'));
    await pass(PAUSE);
    queue.put(type('second'));
    letGo();
    await pass(PAUSE);
    expect(around.sent.map(({ body, revision }) => [body['text'], revision])).toEqual([
      ['first', 0],
      ['second', 1],
    ]);
    expect(around.server.get(KEY)).toEqual({ revision: 2, text: 'second' });
    expect(around.state()).toBe('saved');
  });

  it('keeps and tries again while there is no connection', async () => {
    around.mode = 'offline';
    queue.put(type('a'));
    await pass(PAUSE + RETRIES[0] + RETRIES[1]);
    expect(around.sent).toHaveLength(3);
    expect(around.state()).toBe('offline');
    expect(around.stored.size).toBe(1);
    around.mode = 'on';
    queue.retryAll();
    await pass(0);
    expect(around.server.get(KEY)?.text).toBe('a');
    expect(around.stored.size).toBe(0);
  });

  it('waits for a person when signed out, and goes on after signing in', async () => {
    around.mode = 'signed-out';
    queue.put(type('a'));
    await pass(60_000);
    expect([around.sent.length, around.state()]).toEqual([1, 'signed-out']);
    around.mode = 'on';
    queue.retryAll();
    await pass(0);
    expect(around.server.get(KEY)?.text).toBe('a');
  });

  it('holds back what was refused until it is changed', async () => {
    around.mode = 'refusing';
    queue.put(type('too long'));
    await pass(60_000);
    expect([around.sent.length, around.state()]).toEqual([1, 'refused']);
    around.mode = 'on';
    queue.put(type('short'));
    await pass(PAUSE);
    expect(around.server.get(KEY)?.text).toBe('short');
  });

  describe('in conflict', () => {
    beforeEach(async () => {
      around.server.set(KEY, { revision: 7, text: 'from another tab' });
      queue.put(type('mine', 3));
      await pass(PAUSE);
    });

    it('overwrites nothing, also when typing or connecting again', async () => {
      expect(around.state()).toBe('conflict');
      queue.put(type('mine, longer', 3));
      queue.retryAll();
      await pass(60_000);
      expect(around.sent).toHaveLength(1);
      expect(around.server.get(KEY)?.text).toBe('from another tab');
      expect(around.stored.get(KEY)?.body).toEqual({ text: 'mine, longer' });
    });

    it('keeps mine when told so', async () => {
      queue.put(type('mine, longer', 3));
      queue.keepMine(KEY, 7);
      await pass(0);
      expect(around.server.get(KEY)).toEqual({ revision: 8, text: 'mine, longer' });
    });

    it('takes theirs when told so, and goes on from there', async () => {
      queue.takeTheirs(KEY, 7);
      expect([around.state(), around.stored.size]).toEqual(['saved', 0]);
      queue.put(type('theirs and more', queue.revision(KEY, 3)));
      await pass(PAUSE);
      expect(around.server.get(KEY)).toEqual({ revision: 8, text: 'theirs and more' });
    });
  });

  it('takes up the unsent work of an earlier visit, of the same person only', async () => {
    around.stored.set(KEY, type('left behind'));
    around.stored.set('ben:answer:1', { ...type('not mine'), key: 'ben:answer:1' });
    await queue.load('ann');
    expect(queue.pending(KEY)?.body).toEqual({ text: 'left behind' });
    expect(queue.pendingWithPrefix('ann:')).toHaveLength(1);
    await pass(0);
    expect(around.server.get(KEY)?.text).toBe('left behind');
    expect(around.stored.has('ben:answer:1')).toBe(true);
  });

  it('says of a flush whether all has been confirmed', async () => {
    queue.put(type('a'));
    expect(await queue.flush('ann:')).toBe(true);
    around.mode = 'offline';
    queue.put(type('b', 1));
    expect(await queue.flush('ann:')).toBe(false);
    expect(await queue.flush('ben:')).toBe(true);
  });
});
