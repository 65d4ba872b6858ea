import type { PendingSave, QueueState } from './saveQueue.js';
import { worstOf } from './savesSlice.js';
import { send } from './send.js';

const SAVE: PendingSave = { key: 'ann:x', method: 'PUT', url: '/api/x', body: { text: 'a' }, revision: 3 };

function answering(status: number, body: unknown): jest.Mock {
  const mock = jest.fn(() => Promise.resolve(new Response(body === null ? null : JSON.stringify(body), { status })));
  globalThis.fetch = mock;
  return mock;
}

const problem = (code: string) => ({ code, sentence: 'S.', whatToDo: 'W.', fields: [] });

describe('send', () => {
  const before = globalThis.fetch;
  afterEach(() => {
    globalThis.fetch = before;
  });

  it('sends the body with the revision it is based on, under the header of our own', async () => {
    const mock = answering(200, { revision: 4 });
    expect(await send(SAVE)).toEqual({ outcome: 'saved', revision: 4 });
    const [url, { method, headers, body }] = mock.mock.lastCall as unknown as [
      string,
      { method: string; headers: Record<string, string>; body: string },
    ];
    expect([url, method, headers['x-salt-circle'], JSON.parse(body)]).toEqual([
      '/api/x',
      'PUT',
      '1',
      { text: 'a', revision: 3 },
    ]);
  });

  it('sends a removal without a body, after which things begin anew', async () => {
    const mock = answering(204, null);
    expect(await send({ ...SAVE, method: 'DELETE' })).toEqual({ outcome: 'saved', revision: 0 });
    expect((mock.mock.lastCall as unknown as [string, object])[1]).not.toHaveProperty('body');
  });

  it.each([
    [401, problem('signed-out'), 'signed-out'],
    [409, problem('conflict'), 'conflict'],
    [409, problem('already-submitted'), 'refused'],
    [422, problem('invalid'), 'refused'],
    [413, problem('too-large'), 'refused'],
    [500, problem('unexpected'), 'unanswered'],
    [503, problem('too-busy'), 'unanswered'],
    [507, problem('store-full'), 'unanswered'],
  ])('takes %i with %j for %s', async (status, body, outcome) => {
    answering(status, body);
    expect((await send(SAVE)).outcome).toBe(outcome);
  });

  it.each([200, 302, 401, 404, 511])(
    'does not take the words of a network or a proxy, under %i, for ours',
    async (status) => {
      globalThis.fetch = () => Promise.resolve(new Response('<h1>Welcome to the hotel</h1>', { status }));
      expect((await send(SAVE)).outcome).toBe('unanswered');
    },
  );

  it('takes no answer at all for a lost connection', async () => {
    globalThis.fetch = () => Promise.reject(new TypeError('Failed to fetch'));
    expect((await send(SAVE)).outcome).toBe('offline');
  });
});

describe('worstOf', () => {
  const conflict: QueueState = { state: 'conflict', problem: problem('conflict') as never };
  it('shows what needs a person first, and the latest save when all is well', () => {
    expect(worstOf([])).toBeNull();
    expect(
      worstOf([
        { state: 'saved', at: 5 },
        { state: 'saved', at: 9 },
      ]),
    ).toEqual({ state: 'saved', at: 9 });
    expect(worstOf([{ state: 'saved', at: 5 }, { state: 'saving' }])).toEqual({ state: 'saving' });
    expect(worstOf([{ state: 'offline' }, { state: 'saving' }])?.state).toBe('offline');
    expect(worstOf([{ state: 'signed-out' }, { state: 'offline' }])?.state).toBe('signed-out');
    expect(worstOf([{ state: 'signed-out' }, conflict])).toBe(conflict);
  });
});
