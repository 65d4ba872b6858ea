import { act, renderHook } from '@testing-library/react';
import { saveQueue } from '../../app/store.js';
import { useServerText } from './useServerText.js';

// There is no IndexedDB here, and nothing of it is needed.
jest.mock('../../app/saving/browserStore.js', () => ({
  browserStore: () => ({
    store: { set: () => Promise.resolve(), remove: () => Promise.resolve(), all: () => Promise.resolve([]) },
  }),
}));

interface Given {
  readonly server: { readonly html: string };
  readonly revision: number;
}

let count = 0;
function begin(given: Given) {
  count += 1;
  const key = `p:draft:x:text:${count}`;
  const hook = renderHook(({ server, revision }: Given) => useServerText(key, server, revision), {
    initialProps: given,
  });
  return { key, ...hook };
}

/** As `saveQueue.put` leaves it: typed here, and not confirmed yet. */
const typed = (key: string, html: string, revision: number) =>
  act(() => saveQueue.put({ key, url: '/api/x', method: 'PUT', body: { html }, revision }));

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

describe('text that is typed here and may change on the server', () => {
  it('begins with what the server has, or with what could not be sent yet', () => {
    expect(begin({ server: { html: 'a' }, revision: 1 }).result.current[0]).toEqual({ html: 'a' });
    typed('p:draft:x:text:2', 'unsent', 1);
    expect(begin({ server: { html: 'a' }, revision: 1 }).result.current[0]).toEqual({ html: 'unsent' });
  });

  it('follows what somebody else of the group wrote', () => {
    const { result, rerender } = begin({ server: { html: 'a' }, revision: 1 });
    expect(result.current[2]).toBe(1);
    rerender({ server: { html: 'by Ben' }, revision: 2 });
    expect(result.current[0]).toEqual({ html: 'by Ben' });
    expect(result.current[2]).toBe(2);
  });

  it('keeps what is being typed here: the server will tell of the conflict', () => {
    const { key, result, rerender } = begin({ server: { html: 'a' }, revision: 1 });
    act(() => result.current[1]({ html: 'typed' }));
    typed(key, 'typed', 1);
    rerender({ server: { html: 'by Ben' }, revision: 2 });
    expect(result.current[0]).toEqual({ html: 'typed' });
    // What is typed next still names the text it was typed on, or Ben's would be overwritten.
    expect(result.current[2]).toBe(1);
  });

  it('is not put back by an answer that was on its way before', () => {
    const { result, rerender } = begin({ server: { html: 'new' }, revision: 5 });
    act(() => result.current[1]({ html: 'newer' }));
    rerender({ server: { html: 'old' }, revision: 4 });
    rerender({ server: { html: 'new' }, revision: 5 });
    expect(result.current[0]).toEqual({ html: 'newer' });
  });
});
