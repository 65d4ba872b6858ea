import type { ChangeNews } from '@salt-circle/contracts';
import { act, render, screen } from '@testing-library/react';
import { Provider } from 'react-redux';
import { useCallback, useState } from 'react';
import { api } from '../api.js';
import { store } from '../store.js';
import { Wire } from '../../testing/wire.js';
import { changedHere } from './freshness.js';
import type { Hearing } from './listening.js';
import { useChanges, useNews, usePolling } from './useChanges.js';

// There is no IndexedDB here, and nothing of it is needed.
jest.mock('../saving/browserStore.js', () => ({ browserStore: () => ({}) }));

let hearing: Hearing | null = null;
jest.mock('./listening.js', () => ({
  canListen: () => true,
  listen: (given: Hearing) => {
    hearing = given;
    return () => (hearing = null);
  },
}));

const { useExchangeQuery } = api.injectEndpoints({
  overrideExisting: true,
  endpoints: (build) => ({
    exchange: build.query<{ title: string }, string>({
      query: (id) => `/exchanges/${id}`,
      providesTags: changedHere(['Exchange'], 'plan'),
    }),
  }),
});

function Page({ signedIn }: { readonly signedIn: boolean }) {
  useChanges(signedIn);
  const polling = usePolling(9_000);
  const { data } = useExchangeQuery('x');
  const [previews, setPreviews] = useState(0);
  useNews(
    'preview',
    'x',
    useCallback(() => setPreviews((count) => count + 1), []),
  );
  return (
    <p>
      {data?.title}, asks every {polling}, {previews} previews
    </p>
  );
}

const wire = new Wire();
const page = (signedIn = true) => (
  <Provider store={store}>
    <Page signedIn={signedIn} />
  </Provider>
);
const news = (part: Partial<ChangeNews>) =>
  act(() => hearing?.onNews({ topics: [], courseId: 'c', exchangeId: 'x', ...part }));
const shows = (words: string) => expect(screen.getByText(words)).toBeTruthy();

describe('a page that hears of changes', () => {
  beforeEach(() => wire.install());

  it('asks again for what changed, and for nothing else; and rests otherwise', async () => {
    const { unmount } = render(page());
    await act(() => wire.answer({ title: 'Before' }));
    shows('Before, asks every 9000, 0 previews');
    act(() => hearing?.onLive(true));
    // Something may have been missed before.
    expect(wire.asked).toHaveLength(2);
    await act(() => wire.answer({ title: 'At the beginning' }));
    shows('At the beginning, asks every 0, 0 previews');
    news({ topics: ['mail'] });
    news({ topics: ['plan'], exchangeId: 'another' });
    expect(wire.asked).toHaveLength(2);
    unmount();
  });

  it('hands news of a preview to whoever waits for it, of this exchange alone', async () => {
    const { unmount } = render(page());
    await act(async () => {
      for (let asked = 0; asked < wire.asked.length; asked += 1) await wire.answer({ title: 'T' });
    });
    act(() => hearing?.onLive(true));
    news({ topics: ['preview'], exchangeId: 'another' });
    news({ topics: ['preview'] });
    expect(screen.getByText(/1 previews$/)).toBeTruthy();
    unmount();
    expect(hearing).toBeNull();
  });

  it('asks now and then again once the stream breaks, and hears nothing without a session', () => {
    const { rerender, unmount } = render(page());
    act(() => hearing?.onLive(true));
    expect(screen.getByText(/asks every 0/)).toBeTruthy();
    act(() => hearing?.onLive(false));
    expect(screen.getByText(/asks every 9000/)).toBeTruthy();
    rerender(page(false));
    expect(hearing).toBeNull();
    unmount();
  });
});
