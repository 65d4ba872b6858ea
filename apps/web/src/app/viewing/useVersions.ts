import type { VersionPart } from '@salt-circle/core';
import { useEffect, useState } from 'react';

/** Milliseconds after which nobody waits any longer. */
const LONGEST = 20_000;

export type ComparedVersions =
  | { readonly state: 'working' }
  | { readonly state: 'done'; readonly texts: ReadonlyArray<readonly VersionPart[]> }
  | { readonly state: 'given-up' };

/** Pairs of texts compared beside the page, with what was moved. A comparison that is not wanted any more is ended. */
export function useVersions(pairs: ReadonlyArray<readonly [before: string, after: string]>): ComparedVersions {
  const [compared, setCompared] = useState<ComparedVersions>({ state: 'working' });
  useEffect(() => {
    setCompared({ state: 'working' });
    const worker = new Worker(new URL('./versionsWorker.ts', import.meta.url), { type: 'module' });
    const settle = (outcome: ComparedVersions) => {
      clearTimeout(late);
      worker.terminate();
      setCompared(outcome);
    };
    const late = setTimeout(() => settle({ state: 'given-up' }), LONGEST);
    worker.onmessage = ({ data }: MessageEvent<VersionPart[][]>) => settle({ state: 'done', texts: data });
    worker.onerror = () => settle({ state: 'given-up' });
    worker.postMessage(pairs);
    return () => {
      clearTimeout(late);
      worker.terminate();
    };
  }, [pairs]);
  return compared;
}
