import type { ViewAsView } from '@salt-circle/contracts';
import { useSessionQuery } from '../api.js';

/** With whose eyes one looks, or null for one's own. */
export function useViewAs(): ViewAsView | null {
  return useSessionQuery().data?.viewAs ?? null;
}
