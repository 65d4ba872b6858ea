import { createSlice, type PayloadAction } from '@reduxjs/toolkit';

interface Layout {
  /** Share of the width that the draft takes on the review desk, 0 to 1. */
  readonly deskShare: number;
}

const START: Layout = { deskShare: 0.62 };

/** What the browser alone knows about how things are laid out. */
const slice = createSlice({
  name: 'layout',
  initialState: START,
  reducers: {
    deskShareChanged: (state, { payload }: PayloadAction<number>) => ({ ...state, deskShare: payload }),
  },
  selectors: { selectDeskShare: (state) => state.deskShare },
});

export const { deskShareChanged } = slice.actions;
export const { selectDeskShare } = slice.selectors;
export const layoutReducer = slice.reducer;
