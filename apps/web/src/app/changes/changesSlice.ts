import { createSlice, type PayloadAction } from '@reduxjs/toolkit';

interface ChangesState {
  /** This page hears of changes as they happen; otherwise it asks now and then. */
  readonly live: boolean;
}

const NOT_LIVE: ChangesState = { live: false };

const slice = createSlice({
  name: 'changes',
  initialState: NOT_LIVE,
  reducers: {
    liveChanged: (_, { payload }: PayloadAction<boolean>) => ({ live: payload }),
  },
});

export const { liveChanged } = slice.actions;
export const changesReducer = slice.reducer;

export function selectLive(state: { readonly changes: ChangesState }): boolean {
  return state.changes.live;
}
