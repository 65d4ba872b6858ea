import { LIMITS } from '@salt-circle/contracts/plain';
import { ActiveTime } from '@salt-circle/core';
import { useEffect } from 'react';
import { ownFetch } from '../../app/ownFetch.js';

/** Milliseconds between two tellings. */
const EVERY = 30_000;
/** What shows that somebody is at work. */
const SIGNS = ['pointerdown', 'keydown', 'wheel', 'scroll', 'input', 'play'] as const;

/** Measures how long the reviewer is at work on a review, and tells the server now and then; what was not told is told later. */
export function useTimeSpent(reviewId: string, measured: boolean): void {
  useEffect(() => {
    if (!measured) return;
    const now = () => performance.now();
    const time = new ActiveTime(now(), document.visibilityState === 'visible');
    let waiting = 0;
    const tell = async () => {
      waiting += time.take(now());
      const seconds = Math.min(waiting, LIMITS.spentSeconds);
      if (seconds < 1) return;
      waiting -= seconds;
      const told = await ownFetch(`/api/reviews/${reviewId}/time`, 'POST', { seconds }).then(
        // Refused for good, because reviewing is over say: nothing is kept for later.
        ({ status }) => status < 500,
        () => false,
      );
      if (!told) waiting += seconds;
    };
    const done = () => time.done(now());
    const seen = () => {
      time.seen(document.visibilityState === 'visible', now());
      if (document.visibilityState === 'hidden') void tell();
    };
    for (const sign of SIGNS) window.addEventListener(sign, done, { capture: true, passive: true });
    document.addEventListener('visibilitychange', seen);
    const timer = setInterval(() => void tell(), EVERY);
    return () => {
      for (const sign of SIGNS) window.removeEventListener(sign, done, { capture: true });
      document.removeEventListener('visibilitychange', seen);
      clearInterval(timer);
      void tell();
    };
  }, [reviewId, measured]);
}
