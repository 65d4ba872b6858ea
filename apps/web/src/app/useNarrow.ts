import { useSyncExternalStore } from 'react';

const QUERY = '(max-width: 767px)';

/** Whether the window is too narrow for two sides. */
export function useNarrow(): boolean {
  return useSyncExternalStore(
    (changed) => {
      const list = window.matchMedia(QUERY);
      list.addEventListener('change', changed);
      return () => list.removeEventListener('change', changed);
    },
    () => window.matchMedia(QUERY).matches,
  );
}
