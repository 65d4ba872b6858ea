import type { ComparedPart } from '@salt-circle/core';
import { useEffect, useState } from 'react';

/** Milliseconds after which nobody waits any longer. */
const LONGEST = 10_000;

export type Compared =
  | { readonly state: 'working' }
  | { readonly state: 'done'; readonly parts: readonly ComparedPart[] }
  | { readonly state: 'given-up' };

/** Two texts compared beside the page. A comparison that is not wanted any more is ended. */
export function useCompared(before: string, after: string): Compared {
  const [compared, setCompared] = useState<Compared>({ state: 'working' });
  useEffect(() => {
    setCompared({ state: 'working' });
    const worker = new Worker(new URL('./compareWorker.ts', import.meta.url), { type: 'module' });
    const settle = (outcome: Compared) => {
      clearTimeout(late);
      worker.terminate();
      setCompared(outcome);
    };
    const late = setTimeout(() => settle({ state: 'given-up' }), LONGEST);
    worker.onmessage = ({ data }: MessageEvent<ComparedPart[]>) => settle({ state: 'done', parts: data });
    worker.onerror = () => settle({ state: 'given-up' });
    worker.postMessage([before, after]);
    return () => {
      clearTimeout(late);
      worker.terminate();
    };
  }, [before, after]);
  return compared;
}
