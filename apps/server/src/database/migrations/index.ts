import { Foundation1764028800000 } from './0001-foundation.js';

/** In the order in which they run. A migration that has landed is never edited. */
export const MIGRATIONS = [Foundation1764028800000] as const;
