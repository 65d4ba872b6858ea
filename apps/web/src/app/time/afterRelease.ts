import type { DatesView } from '@salt-circle/contracts';
import { say } from '../../words/app.js';

/** Said beside a due time of one's own that comes after feedback is released; undefined when it does not. */
export function afterRelease(
  at: string | null,
  dates: Pick<DatesView, 'release' | 'checkUntil' | 'reviewsDue'>,
): string | undefined {
  const release = dates.release ?? dates.checkUntil ?? dates.reviewsDue;
  if (at === null || release === null || Date.parse(at) <= Date.parse(release)) return undefined;
  return say('thisIsAfterFeedbackIs');
}
