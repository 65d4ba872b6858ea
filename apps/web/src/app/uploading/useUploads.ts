import type { PartView, Problem } from '@salt-circle/contracts';
import { useRef, useState } from 'react';
import { api, problemOf } from '../api.js';
import { upload, UploadStopped, type UploadPurpose } from './upload.js';

const { useAttachMutation } = api.injectEndpoints({
  endpoints: (build) => ({
    attach: build.mutation<PartView, { exchangeId: string; uploadId: string; captionsFor?: string }>({
      query: ({ exchangeId, ...body }) => ({ url: `/exchanges/${exchangeId}/draft/files`, method: 'POST', body }),
      invalidatesTags: ['Draft', 'Exchange', 'Progress', 'Uploads'],
    }),
  }),
});

export interface UploadRow {
  readonly key: string;
  readonly name: string;
  /** 0 to 1. */
  readonly share: number;
  /** `looking`: all has arrived, and the server looks into it. */
  readonly state: 'sending' | 'looking' | 'refused';
  readonly problem: Problem | null;
}

export interface Uploads {
  readonly rows: readonly UploadRow[];
  /** Sends files and adds each to the draft as it arrives. @returns whether all were taken */
  readonly add: (files: readonly File[]) => Promise<boolean>;
  readonly cancel: (key: string) => void;
  readonly dismiss: (key: string) => void;
}

export interface UploadTarget {
  readonly exchangeId: string;
  readonly deliverableId: string;
  /** The part that captions belong to. */
  readonly captionsFor?: string;
  /** For staff: whose draft the files go into. */
  readonly participantId?: string;
}

/** Files on their way into one deliverable: each with its progress, and its refusal in words. */
export function useUploads({ exchangeId, deliverableId, captionsFor, participantId }: UploadTarget): Uploads {
  const [attach] = useAttachMutation();
  const purpose: UploadPurpose = {
    exchangeId,
    deliverableId,
    use: captionsFor === undefined ? 'part' : 'captions',
    ...(participantId !== undefined && { participantId }),
  };
  return useSending(purpose, (uploadId) =>
    attach({ exchangeId, uploadId, ...(captionsFor !== undefined && { captionsFor }) }).unwrap(),
  );
}

/** @param attach puts what has arrived where it belongs; fails with the server's refusal */
export function useSending(purpose: UploadPurpose, attach: (uploadId: string) => Promise<unknown>): Uploads {
  const [rows, setRows] = useState<readonly UploadRow[]>([]);
  const cancels = useRef(new Map<string, () => void>());
  const set = (key: string, part: Partial<UploadRow>) =>
    setRows((all) => all.map((row) => (row.key === key ? { ...row, ...part } : row)));
  const drop = (key: string) => setRows((all) => all.filter((row) => row.key !== key));

  const one = async (file: File): Promise<boolean> => {
    const key = crypto.randomUUID();
    setRows((all) => [...all, { key, name: file.name, share: 0, state: 'sending', problem: null }]);
    const running = upload(file, purpose, (share) => set(key, { share }));
    cancels.current.set(key, running.cancel);
    try {
      const uploadId = await running.done;
      set(key, { share: 1, state: 'looking' });
      await attach(uploadId);
      drop(key);
      return true;
    } catch (error) {
      const stopped = error instanceof UploadStopped ? error : null;
      if (stopped?.cancelled === true) drop(key);
      else set(key, { state: 'refused', problem: stopped?.problem ?? problemOf(error) });
      return false;
    } finally {
      cancels.current.delete(key);
    }
  };

  const add = async (files: readonly File[]) => {
    let all = true;
    // One after the other: the first ones are safe while later ones are still on their way.
    for (const file of files) all = (await one(file)) && all;
    return all;
  };
  return { rows, add, cancel: (key) => cancels.current.get(key)?.(), dismiss: drop };
}
