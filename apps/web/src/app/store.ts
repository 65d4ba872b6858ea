import { combineReducers, configureStore } from '@reduxjs/toolkit';
import { useDispatch, useSelector } from 'react-redux';
import { api } from './api.js';
import { changesReducer } from './changes/changesSlice.js';
import { layoutReducer } from './layoutSlice.js';
import { browserStore } from './saving/browserStore.js';
import { SaveQueue } from './saving/saveQueue.js';
import { savesReducer, saveStateChanged } from './saving/savesSlice.js';
import { send } from './saving/send.js';

const reducer = combineReducers({
  [api.reducerPath]: api.reducer,
  saves: savesReducer,
  layout: layoutReducer,
  changes: changesReducer,
});

export const store = configureStore({ reducer, middleware: (defaults) => defaults().concat(api.middleware) });

export type RootState = ReturnType<typeof reducer>;

export const useAppDispatch = useDispatch.withTypes<typeof store.dispatch>();
export const useAppSelector = useSelector.withTypes<RootState>();

export const browser = browserStore();

export const saveQueue = new SaveQueue({
  send,
  store: browser.store,
  onState: (key, state) => store.dispatch(saveStateChanged({ key, state })),
  now: () => Date.now(),
});

window.addEventListener('online', () => saveQueue.retryAll());
// Closing while something is unsent: it is kept in the browser, but the server does not have it yet.
window.addEventListener('beforeunload', (event) => {
  if (saveQueue.hasUnsent) event.preventDefault();
});
