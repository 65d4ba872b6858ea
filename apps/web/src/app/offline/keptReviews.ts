import type { DeskView } from '@salt-circle/contracts';
import { useEffect, useState } from 'react';
import type { FromWorker, ToWorker } from '../../offline/messages.js';
import { addressesOf } from './addresses.js';

/** What is kept of a review in this browser: nothing (yet, or any more), on the way, all of it, or why it could not be. */
export type Kept =
  | { readonly state: 'none' | 'on-the-way' | 'full' | 'failed' | 'removed' }
  | { readonly state: 'kept'; readonly files: number; readonly bytes: number; readonly until: number };

/** Service workers are there in built pages, over a connection that nobody listens to, and not in a private window of some. */
async function worker(): Promise<ServiceWorker | null> {
  if (!import.meta.env.PROD || !('serviceWorker' in navigator)) return null;
  await navigator.serviceWorker.register('/sw.js');
  return (await navigator.serviceWorker.ready).active;
}

async function tell(message: ToWorker): Promise<FromWorker | null> {
  const to = await worker();
  if (to === null) return null;
  return new Promise((resolve) => {
    const channel = new MessageChannel();
    channel.port1.onmessage = ({ data }) => resolve(data as FromWorker);
    to.postMessage(message, [channel.port2]);
  });
}

/** Keeps a review that one is writing for work without a connection; lets go of one that is over. */
export function useKeptReview(desk: DeskView, personId: string): { readonly kept: Kept; readonly drop: () => void } {
  const [kept, setKept] = useState<Kept>({ state: 'none' });
  const own = desk.reviewer.you === true;
  const writing = own && desk.editable;
  const over = own && !desk.editable && desk.exchange.stage !== 'reviewing';
  const addresses = addressesOf(desk).join('\n');
  useEffect(() => {
    let gone = false;
    const work = async () => {
      if (over) await tell({ type: 'drop', reviewId: desk.id });
      if (!writing) return;
      setKept({ state: 'on-the-way' });
      const answer = await tell({ type: 'keep', personId, reviewId: desk.id, urls: addresses.split('\n') });
      if (gone) return;
      if (answer === null || answer.type === 'dropped') setKept({ state: 'failed' });
      else if (answer.type === 'kept') setKept({ ...answer, state: 'kept' });
      // Without a connection nothing can be fetched anew; what was kept before is still there.
      else setKept({ state: answer.type });
    };
    work().catch(() => {
      if (!gone) setKept({ state: 'failed' });
    });
    return () => {
      gone = true;
    };
  }, [desk.id, personId, writing, over, addresses]);
  return {
    kept,
    drop: () => {
      void tell({ type: 'drop', reviewId: desk.id }).then(() => setKept({ state: 'removed' }));
    },
  };
}
