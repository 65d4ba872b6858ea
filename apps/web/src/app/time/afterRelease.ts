import type { DatesView } from '@salt-circle/contracts';

/** Said beside a due time of one's own that comes after feedback is released; undefined when it does not. */
export function afterRelease(
  at: string | null,
  dates: Pick<DatesView, 'release' | 'checkUntil' | 'reviewsDue'>,
): string | undefined {
  const release = dates.release ?? dates.checkUntil ?? dates.reviewsDue;
  if (at === null || release === null || Date.parse(at) <= Date.parse(release)) return undefined;
  return 'This is after feedback is released: what comes in then is reviewed by nobody, unless you see to it, and other authors can read their feedback before.';
}
