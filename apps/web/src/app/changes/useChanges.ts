import type { ChangeNews } from '@salt-circle/contracts';
import { TOPICS, type Topic } from '@salt-circle/core';
import { useEffect } from 'react';
import { api } from '../api.js';
import { useAppDispatch, useAppSelector } from '../store.js';
import { liveChanged, selectLive } from './changesSlice.js';
import { tagsOf, type TopicTag } from './freshness.js';
import { canListen, listen } from './listening.js';

/** Milliseconds between two times of asking again: fifty people who type are not fifty questions. */
const AT_MOST_EVERY = 3_000;

type Hear = (news: ChangeNews) => void;
const hearers = new Set<Hear>();

/** Keeps what is shown in step with the server, for as long as somebody is signed in. */
export function useChanges(wanted: boolean): void {
  const dispatch = useAppDispatch();
  useEffect(() => {
    if (!wanted || !canListen()) return;
    // Pages with typed text keep what is typed and has not been sent.
    const again = (tags: ReadonlyArray<Topic | TopicTag>) => dispatch(api.util.invalidateTags([...tags]));
    const gathered = gathering(AT_MOST_EVERY, again);
    const end = listen({
      onNews: (news) => {
        gathered.add(tagsOf(news));
        for (const hear of hearers) hear(news);
      },
      onLive: (live) => {
        dispatch(liveChanged(live));
        if (live) again(TOPICS);
      },
    });
    return () => {
      end();
      gathered.end();
      dispatch(liveChanged(false));
    };
  }, [wanted, dispatch]);
}

/** Hands over the first tags at once, and what comes soon after them together, each once, `every` milliseconds at the earliest. */
export function gathering(every: number, hand: (tags: readonly TopicTag[]) => void) {
  const waiting = new Map<string, TopicTag>();
  let timer: ReturnType<typeof setTimeout> | null = null;
  const handOver = () => {
    timer = null;
    if (waiting.size === 0) return;
    const tags = [...waiting.values()];
    waiting.clear();
    timer = setTimeout(handOver, every);
    hand(tags);
  };
  return {
    add: (tags: readonly TopicTag[]) => {
      for (const tag of tags) waiting.set(`${tag.type} ${tag.id ?? ''}`, tag);
      if (timer === null) handOver();
    },
    end: () => {
      if (timer !== null) clearTimeout(timer);
      waiting.clear();
    },
  };
}

/** Hears of one topic in an exchange. */
export function useNews(topic: Topic, exchangeId: string, hear: () => void): void {
  useEffect(() => {
    const mine: Hear = (news) => {
      if (news.exchangeId === exchangeId && news.topics.includes(topic)) hear();
    };
    hearers.add(mine);
    return () => void hearers.delete(mine);
  }, [topic, exchangeId, hear]);
}

/** @param often milliseconds between two questions while changes are not heard of; 0 while they are */
export function usePolling(often: number): number {
  return useAppSelector(selectLive) ? 0 : often;
}
