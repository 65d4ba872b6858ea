import { useCallback, useMemo } from 'react';
import { shallowEqual } from 'react-redux';
import type { Problem } from '@salt-circle/contracts';
import type { SaveState } from '../../kit/index.js';
import { saveQueue, useAppSelector } from '../store.js';
import { timeOfDay } from '../time/words.js';
import { selectSaves, worstOf } from './savesSlice.js';

export interface SavingState {
  readonly state: SaveState;
  readonly savedAt: string | null;
  readonly problem: Problem | null;
}

/**
 * The saved state of everything under a prefix of keys, as one.
 * @param lastSaved ISO instant of the last save known from the server, for before anything is typed
 */
export function useSavingState(prefix: string, lastSaved: string | null = null): SavingState {
  const states = useAppSelector(
    (root) =>
      Object.entries(selectSaves(root))
        .filter(([key]) => key.startsWith(prefix))
        .map(([, state]) => state),
    shallowEqual,
  );
  return useMemo(() => {
    const worst = worstOf(states);
    if (worst === null)
      return {
        state: 'saved',
        savedAt: lastSaved === null ? null : timeOfDay(Date.parse(lastSaved), Date.now()),
        problem: null,
      };
    if (worst.state === 'saved') return { state: 'saved', savedAt: timeOfDay(worst.at), problem: null };
    return { state: worst.state, savedAt: null, problem: 'problem' in worst ? worst.problem : null };
  }, [states, lastSaved]);
}

/** Saves under one key as it is typed. */
export function useSaver(key: string, url: string, readRevision: number): (body: Record<string, unknown>) => void {
  return useCallback(
    (body) => saveQueue.put({ key, url, method: 'PUT', body, revision: saveQueue.revision(key, readRevision) }),
    [key, url, readRevision],
  );
}
