import type { SeeingView } from '@salt-circle/contracts';
import { useSessionQuery } from '../api.js';

/** With whose eyes one looks, or null for one's own. */
export function useSeeing(): SeeingView | null {
  return useSessionQuery().data?.seeing ?? null;
}
