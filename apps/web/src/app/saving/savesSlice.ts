import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import type { QueueState } from './saveQueue.js';

const NOTHING: Readonly<Record<string, QueueState>> = {};

/** State of everything that is saved as it is typed, by key. */
const slice = createSlice({
  name: 'saves',
  initialState: NOTHING,
  reducers: {
    saveStateChanged: (state, { payload }: PayloadAction<{ key: string; state: QueueState }>) => ({
      ...state,
      [payload.key]: payload.state,
    }),
  },
  selectors: {
    selectSave: (state, key: string): QueueState | undefined => state[key],
    selectSaves: (state) => state,
    /** How many things under a prefix have not reached the server yet. */
    selectWaiting: (state, prefix: string) =>
      Object.entries(state).filter(([key, one]) => key.startsWith(prefix) && one.state !== 'saved').length,
    selectSignedOut: (state) => Object.values(state).some((one) => one.state === 'signed-out'),
  },
});

export const { saveStateChanged } = slice.actions;
export const { selectSave, selectSaves, selectSignedOut, selectWaiting } = slice.selectors;
export const savesReducer = slice.reducer;

/** The state that matters most among several. */
const URGENCY: ReadonlyArray<QueueState['state']> = [
  'conflict',
  'refused',
  'signed-out',
  'offline',
  'unanswered',
  'saving',
  'unsaved',
  'saved',
];

export function worstOf(states: readonly QueueState[]): QueueState | null {
  for (const state of URGENCY) {
    const found = states.filter((one) => one.state === state);
    if (state === 'saved') {
      const times = found.map((one) => (one.state === 'saved' ? one.at : 0));
      return times.length === 0 ? null : { state: 'saved', at: Math.max(...times) };
    }
    if (found[0] !== undefined) return found[0];
  }
  return null;
}
