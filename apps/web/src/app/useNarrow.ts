import { useSyncExternalStore } from 'react';

/** Pixels below which there is no room for two sides. */
const TWO_SIDES = 768;

/** Whether the window is narrower than so many pixels: too narrow for two sides, if nothing else is said. */
export function useNarrow(pixels = TWO_SIDES): boolean {
  const query = `(max-width: ${pixels - 1}px)`;
  return useSyncExternalStore(
    (changed) => {
      const list = window.matchMedia(query);
      list.addEventListener('change', changed);
      return () => list.removeEventListener('change', changed);
    },
    () => window.matchMedia(query).matches,
  );
}
