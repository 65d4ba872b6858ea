import type { Selector } from '../anchoring/place.js';

/** Parts that a draft is cut into, from its beginning to its end. */
export const DRAFT_PARTS = 10;

/** How large a part of a draft is; null for what it does not have, or what is not known. */
export interface PartExtent {
  /** UTF-16 code units. */
  readonly textLength: number | null;
  readonly pages: number | null;
  readonly seconds: number | null;
}

/**
 * How far along its part something stands.
 *
 * @returns 0 (its beginning) to 1 (its end); null for what is on the whole, or where the extent is not known
 */
export function placeShare(selector: Selector, { textLength, pages, seconds }: PartExtent): number | null {
  const share = (at: number, of: number | null) =>
    of === null || !(of > 0) ? null : Math.max(0, Math.min(1, at / of));
  switch (selector.type) {
    case 'text':
      return share((selector.position.start + selector.position.end) / 2, textLength);
    case 'page':
    case 'passage':
      // The middle of the page: where on it says little beside which one it is.
      return share(selector.page - 0.5, pages);
    case 'region':
      return selector.page === null ? null : share(selector.page - 1 + selector.y + selector.height / 2, pages);
    case 'moment':
      return share(selector.start, seconds);
    case 'whole':
      return null;
  }
}

/** How many stand in each part of a draft, and how many nowhere along it. */
export interface AlongDraft {
  /** {@link DRAFT_PARTS} of them; the very end belongs to the last. */
  readonly counts: readonly number[];
  readonly elsewhere: number;
}

export function alongDraft(shares: ReadonlyArray<number | null>): AlongDraft {
  const counts = new Array<number>(DRAFT_PARTS).fill(0);
  let elsewhere = 0;
  for (const share of shares) {
    const part = draftPartOf(share);
    if (part === null) elsewhere += 1;
    else counts[part] = (counts[part] as number) + 1;
  }
  return { counts, elsewhere };
}

/** In which part of a draft something stands, from 0; null for nowhere along it. */
export function draftPartOf(share: number | null): number | null {
  return share === null ? null : Math.min(DRAFT_PARTS - 1, Math.floor(share * DRAFT_PARTS));
}
