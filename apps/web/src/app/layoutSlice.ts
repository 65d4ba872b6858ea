import { createSlice, type PayloadAction } from '@reduxjs/toolkit';

type NameOrder = 'family' | 'written';

/** One stop on the way through a list: where it is read, and what it is called. */
export interface WalkStop {
  readonly to: string;
  readonly words: string;
}

interface Layout {
  /** Share of the width that the draft takes on the review desk, 0 to 1. */
  readonly deskShare: number;
  readonly nameOrder: NameOrder;
  /** Keys without Ctrl or Alt do something outside of fields; off for those who speak to their computer. */
  readonly singleKeys: boolean;
  /** What was listed where somebody began to read: next and previous go by it. */
  readonly walk: readonly WalkStop[];
}

const NAME_ORDER_KEY = 'salt-circle-name-order';
const SINGLE_KEYS_KEY = 'salt-circle-single-keys';

const START = (): Layout => ({
  deskShare: 0.62,
  nameOrder: localStorage.getItem(NAME_ORDER_KEY) === 'written' ? 'written' : 'family',
  singleKeys: localStorage.getItem(SINGLE_KEYS_KEY) !== 'off',
  walk: [],
});

/** What the browser alone knows about how things are laid out. */
const slice = createSlice({
  name: 'layout',
  initialState: START,
  reducers: {
    deskShareChanged: (state, { payload }: PayloadAction<number>) => ({ ...state, deskShare: payload }),
    nameOrderChanged: {
      prepare: (payload: NameOrder) => {
        localStorage.setItem(NAME_ORDER_KEY, payload);
        return { payload };
      },
      reducer: (state, { payload }: PayloadAction<NameOrder>) => ({ ...state, nameOrder: payload }),
    },
    singleKeysChanged: {
      prepare: (payload: boolean) => {
        localStorage.setItem(SINGLE_KEYS_KEY, payload ? 'on' : 'off');
        return { payload };
      },
      reducer: (state, { payload }: PayloadAction<boolean>) => ({ ...state, singleKeys: payload }),
    },
    walkBegun: (state, { payload }: PayloadAction<readonly WalkStop[]>) => ({ ...state, walk: [...payload] }),
  },
  selectors: {
    selectDeskShare: (state) => state.deskShare,
    selectNameOrder: (state) => state.nameOrder,
    selectSingleKeys: (state) => state.singleKeys,
    selectWalk: (state) => state.walk,
  },
});

export const { deskShareChanged, nameOrderChanged, singleKeysChanged, walkBegun } = slice.actions;
export const { selectDeskShare, selectNameOrder, selectSingleKeys, selectWalk } = slice.selectors;
export const layoutReducer = slice.reducer;
