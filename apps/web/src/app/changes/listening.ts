import type { ChangeNews } from '@salt-circle/contracts';

/** What pages of one browser tell each other. */
type Word = { readonly is: 'news'; readonly news: ChangeNews } | { readonly is: 'live'; readonly live: boolean };

/** What listening needs of the browser; tests give others. */
export interface Surroundings {
  /** Waits for its turn among the pages of this browser, and keeps it until the promise that is returned settles. */
  readonly asTheOnlyOne: (keep: () => Promise<void>, signal: AbortSignal) => void;
  readonly channel: () => Pick<BroadcastChannel, 'postMessage' | 'close' | 'onmessage'>;
  readonly source: () => Pick<EventSource, 'close' | 'onopen' | 'onerror' | 'onmessage'>;
}

export interface Hearing {
  readonly onNews: (news: ChangeNews) => void;
  /** Whether news come as they happen. On every beginning something may have been missed. */
  readonly onLive: (live: boolean) => void;
}

const BROWSER: Surroundings = {
  asTheOnlyOne: (keep, signal) => {
    // Called off, while it waited: that is how it ends.
    void navigator.locks.request('salt-circle-changes', { signal }, keep).catch(() => undefined);
  },
  channel: () => new BroadcastChannel('salt-circle-changes'),
  source: () => new EventSource('/api/changes'),
};

export function canListen(): boolean {
  return 'locks' in navigator && 'BroadcastChannel' in window && 'EventSource' in window;
}

/**
 * Hears what changes on the server. A browser opens six connections to a server at most, and a stream holds one for good:
 * of all pages of a browser one listens, and passes on what it hears.
 *
 * @returns a function that ends it
 */
export function listen({ onNews, onLive }: Hearing, browser: Surroundings = BROWSER): () => void {
  const end = new AbortController();
  const channel = browser.channel();
  let live = false;
  const say = (word: Word) => {
    channel.postMessage(word);
    take(word);
  };
  const take = (word: Word) => {
    if (word.is === 'news') onNews(word.news);
    else if (word.live !== live) {
      live = word.live;
      onLive(live);
    }
  };
  channel.onmessage = ({ data }: MessageEvent<Word>) => take(data);
  browser.asTheOnlyOne(
    () =>
      new Promise((done) => {
        const source = browser.source();
        source.onopen = () => say({ is: 'live', live: true });
        // The browser tries again by itself; until then everybody asks.
        source.onerror = () => say({ is: 'live', live: false });
        source.onmessage = ({ data }: MessageEvent<string>) => {
          const news = JSON.parse(data) as ChangeNews;
          // A sign of life also tells pages opened since that they can rest.
          say(news.topics.length === 0 ? { is: 'live', live: true } : { is: 'news', news });
        };
        end.signal.addEventListener('abort', () => {
          source.close();
          // Another page takes over; until it has, nobody listens.
          channel.postMessage({ is: 'live', live: false } satisfies Word);
          done();
        });
      }),
    end.signal,
  );
  return () => {
    end.abort();
    channel.close();
  };
}
