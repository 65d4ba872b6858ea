import { problem, type CoreProblem } from '../problem.js';
import type { TextAnchor } from './selectors.js';

/**
 * Where in a part of a draft something is. Texts by quote and position; pages as in RFC 8118 (`page`, from 1); regions as in
 * W3C Media Fragments URI 1.0, 4.2.2 (`xywh`), in shares of width and height instead of pixels or percent, so that
 * they hold at every size; moments as in 4.2.1 (`t`), in seconds.
 */
export type Selector =
  | ({ readonly type: 'text' } & TextAnchor)
  | { readonly type: 'page'; readonly page: number }
  /** Words of a page. The position counts from the top of `page` on, and may run over into the pages that follow. */
  | ({ readonly type: 'passage'; readonly page: number } & TextAnchor)
  /** `page` is null for a picture. A point has no width and no height. All shares are 0 to 1. */
  | {
      readonly type: 'region';
      readonly page: number | null;
      readonly x: number;
      readonly y: number;
      readonly width: number;
      readonly height: number;
    }
  /** `end` is null for a single moment. */
  | { readonly type: 'moment'; readonly start: number; readonly end: number | null }
  | { readonly type: 'whole' };

/** UTF-16 code units from the top of a page within which a passage of it ends: a full page of small print has some 15,000. */
export const MAX_PAGE_TEXT = 200_000;

/** A place in one version of a draft. `partId` is null for the draft as a whole. */
export interface Place {
  readonly partId: string | null;
  readonly selector: Selector;
}

/** A part as far as places in it go. What it does not have, or what is not known yet, is null. */
export interface PlaceablePart {
  readonly id: string;
  /** UTF-16 code units of its plain text as reviewers read it. */
  readonly textLength: number | null;
  readonly pages: number | null;
  readonly picture: boolean;
  readonly seconds: number | null;
}

export type PlaceProblemCode = 'part-unknown' | 'place-unfit' | 'place-empty' | 'place-outside';

/**
 * What is wrong with a place; null when it fits its part. `place-unfit`: such a part has no such places, `place-empty`: a span
 * that ends where it begins or before, `place-outside`: beyond the end.
 */
export function checkPlace(
  { partId, selector }: Place,
  parts: readonly PlaceablePart[],
): CoreProblem<PlaceProblemCode> | null {
  const part = parts.find(({ id }) => id === partId);
  const wrong = (code: PlaceProblemCode) => problem(code, ['place', 'selector'], { type: selector.type });
  if (partId === null) return selector.type === 'whole' ? null : wrong('place-unfit');
  if (part === undefined) return problem('part-unknown', ['place', 'partId'], {});
  switch (selector.type) {
    case 'whole':
      return null;
    case 'text': {
      const { start, end } = selector.position;
      if (part.textLength === null) return wrong('place-unfit');
      if (!(start < end) || selector.quote.exact === '') return wrong('place-empty');
      return start >= 0 && end <= part.textLength ? null : wrong('place-outside');
    }
    case 'page':
      if (part.pages === null) return wrong('place-unfit');
      return isPage(selector.page, part.pages) ? null : wrong('place-outside');
    case 'passage': {
      const { start, end } = selector.position;
      if (part.pages === null) return wrong('place-unfit');
      if (!(start < end) || selector.quote.exact === '') return wrong('place-empty');
      // What stands on the pages is read where they are shown; here only what no page can hold is refused.
      const inside = start >= 0 && end <= MAX_PAGE_TEXT && end - start === selector.quote.exact.length;
      return inside && isPage(selector.page, part.pages) ? null : wrong('place-outside');
    }
    case 'region': {
      const { page, x, y, width, height } = selector;
      if (page === null ? !part.picture : part.pages === null) return wrong('place-unfit');
      const inside = [x, y, width, height].every((share) => share >= 0) && x + width <= 1 && y + height <= 1;
      return inside && (page === null || isPage(page, part.pages ?? 0)) ? null : wrong('place-outside');
    }
    case 'moment': {
      const { start, end } = selector;
      if (part.seconds === null) return wrong('place-unfit');
      if (end !== null && !(end > start)) return wrong('place-empty');
      return start >= 0 && (end ?? start) <= part.seconds ? null : wrong('place-outside');
    }
  }
}

function isPage(page: number, pages: number): boolean {
  return Number.isInteger(page) && page >= 1 && page <= pages;
}

/**
 * Orders places as one comes to them in reading: by part in the order given, the whole draft before all parts and a whole part
 * before all in it, then by position, page or moment. On one page: the page itself, its passages, then its regions from the
 * top and from the left; how far down a passage stands is known only where it is drawn. 0 for the same beginning.
 */
export function comparePlaces(partIds: readonly string[]): (a: Place, b: Place) => number {
  const order = new Map(partIds.map((id, index) => [id, index]));
  // A part that is not among them comes last: its places are kept, wherever it went.
  const ofPart = ({ partId }: Place) => (partId === null ? -1 : (order.get(partId) ?? partIds.length));
  return (a, b) => {
    const first = [ofPart(a), ...beginning(a.selector)];
    const second = [ofPart(b), ...beginning(b.selector)];
    const at = first.findIndex((value, index) => value !== second[index]);
    return at === -1 ? 0 : (first[at] as number) - (second[at] as number);
  };
}

/** Three figures by which places in one part follow each other. */
function beginning(selector: Selector): [number, number, number] {
  switch (selector.type) {
    case 'whole':
      return [-1, 0, 0];
    case 'text':
      return [selector.position.start, 0, 0];
    case 'page':
      return [selector.page, 0, 0];
    case 'passage':
      return [selector.page, 1, selector.position.start];
    case 'region':
      return [selector.page ?? 0, 2 + selector.y, selector.x];
    case 'moment':
      return [selector.start, 0, 0];
  }
}
