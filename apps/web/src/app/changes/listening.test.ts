import type { ChangeNews } from '@salt-circle/contracts';
import type { Topic } from '@salt-circle/core';
import { listen, type Surroundings } from './listening.js';
import { gathering } from './useChanges.js';

const NEWS: ChangeNews = { topics: ['drafts'], courseId: 'c', exchangeId: 'x' };

/** A browser with several pages: one lock, one channel, and streams that a test speaks through. */
function browser() {
  const waiting: Array<{ readonly keep: () => Promise<void>; readonly signal: AbortSignal }> = [];
  const channels = new Set<{ onmessage: ((event: MessageEvent) => void) | null }>();
  const sources: Array<{
    onopen?: () => void;
    onerror?: () => void;
    onmessage?: (event: object) => void;
    open: boolean;
  }> = [];
  let kept = false;
  const next = () => {
    if (kept) return;
    const turn = waiting.shift();
    if (turn === undefined) return;
    if (turn.signal.aborted) return next();
    kept = true;
    void turn.keep().then(() => {
      kept = false;
      next();
    });
  };
  const surroundings: Surroundings = {
    asTheOnlyOne: (keep, signal) => {
      waiting.push({ keep, signal });
      next();
    },
    channel: () => {
      const mine = {
        onmessage: null as ((event: MessageEvent) => void) | null,
        postMessage: (data: unknown) => {
          for (const other of channels) if (other !== mine) other.onmessage?.({ data } as MessageEvent);
        },
        close: () => void channels.delete(mine),
      };
      channels.add(mine);
      return mine;
    },
    source: () => {
      const source = { open: true, close: () => void (source.open = false) };
      sources.push(source);
      return source as never;
    },
  };
  return { surroundings, sources };
}

function page(surroundings: Surroundings) {
  const heard: ChangeNews[] = [];
  const live: boolean[] = [];
  const end = listen({ onNews: (news) => heard.push(news), onLive: (now) => live.push(now) }, surroundings);
  return { heard, live, end };
}

describe('listening', () => {
  it('is done by one page of a browser, which passes on what it hears', () => {
    const { surroundings, sources } = browser();
    const [first, second] = [page(surroundings), page(surroundings)];
    expect(sources).toHaveLength(1);
    sources[0]?.onopen?.();
    sources[0]?.onmessage?.({ data: JSON.stringify(NEWS) });
    expect([first.live, second.live]).toEqual([[true], [true]]);
    expect([first.heard, second.heard]).toEqual([[NEWS], [NEWS]]);
  });

  it('goes over to another page when the one that listens closes; until then everybody asks', async () => {
    const { surroundings, sources } = browser();
    const [first, second] = [page(surroundings), page(surroundings)];
    sources[0]?.onopen?.();
    first.end();
    await Promise.resolve();
    await Promise.resolve();
    expect(sources.map(({ open }) => open)).toEqual([false, true]);
    expect(second.live).toEqual([true, false]);
    sources[1]?.onopen?.();
    sources[1]?.onmessage?.({ data: JSON.stringify(NEWS) });
    expect(second.live).toEqual([true, false, true]);
    expect([first.heard, second.heard]).toEqual([[], [NEWS]]);
  });

  it('tells of a broken connection, and, by a sign of life, pages that were opened since', () => {
    const { surroundings, sources } = browser();
    const first = page(surroundings);
    sources[0]?.onopen?.();
    sources[0]?.onerror?.();
    sources[0]?.onopen?.();
    expect(first.live).toEqual([true, false, true]);
    const late = page(surroundings);
    expect(late.live).toEqual([]);
    sources[0]?.onmessage?.({ data: JSON.stringify({ topics: [], courseId: null, exchangeId: null }) });
    expect([late.live, late.heard]).toEqual([[true], []]);
  });
});

describe('gathering', () => {
  beforeEach(() => jest.useFakeTimers());
  afterEach(() => jest.useRealTimers());

  it('asks at once for the first, and once for all that comes soon after', () => {
    const asked: string[][] = [];
    const gathered = gathering(3_000, (tags) => asked.push(tags.map(({ type, id }) => `${type} of ${id ?? 'all'}`)));
    const add = (type: Topic, id = 'x') => gathered.add([{ type, id }]);
    add('drafts');
    for (let typed = 0; typed < 50; typed += 1) add('reviews');
    add('reviews', 'y');
    add('drafts');
    expect(asked).toEqual([['drafts of x']]);
    jest.advanceTimersByTime(3_000);
    expect(asked).toEqual([['drafts of x'], ['reviews of x', 'reviews of y', 'drafts of x']]);
    jest.advanceTimersByTime(10_000);
    add('plan');
    expect(asked).toHaveLength(3);
    add('plan');
    gathered.end();
    jest.advanceTimersByTime(10_000);
    expect(asked).toHaveLength(3);
  });
});
