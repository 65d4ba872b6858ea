import type { Pair } from './problem.js';

/** The same for the same pair. Ids may hold any character but a line feed. */
export function pairKey({ reviewerId, draftId }: Pair): string {
  return `${reviewerId}\n${draftId}`;
}
