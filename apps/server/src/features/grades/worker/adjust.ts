import { adjustScores, type Adjusted, type Rating } from '@salt-circle/core';

/** What the thread does. */
export function adjust(ratings: readonly Rating[]): Adjusted {
  return adjustScores(ratings);
}
