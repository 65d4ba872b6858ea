import search from 'approx-string-match';
import type { TextAnchor, TextRange } from './selectors.js';

/** `perhaps`: the words are there, and little of what stood around them, so they may be other ones that read the same. */
export type Certainty = 'sure' | 'perhaps';

export type AnchorMatch =
  /** The very words are there: `moved` when not at the old position. */
  | { readonly found: 'same' | 'moved'; readonly range: TextRange; readonly certainty: Certainty }
  /**
   * Nearly the same words are there. `errors` is the number of insertions, deletions and replacements;
   * for quotes of over 1,024 code units, the difference in length.
   */
  | { readonly found: 'changed'; readonly range: TextRange; readonly errors: number; readonly certainty: Certainty }
  | { readonly found: 'gone' };

/** Above a fifth of its letters changed, a passage reads as another one. */
const MAX_CHANGED_SHARE = 0.2;
/** The approximate search keeps a bit per letter of the quote; longer quotes are found by their head and tail. */
const MAX_APPROXIMATE_LENGTH = 1024;
/** So much of what stood around a passage must stand around it still, 0 to 1, for it to be that passage for sure. */
const SURE = 0.6;
/** With less than this around them, a few words are other words that read the same. */
const PERHAPS = 0.3;
/** Code units of words that speak for themselves, whatever stands around them: half a line. Nobody writes them twice by chance. */
const TELLING = 32;
/** Code units of words that may be the same without their surroundings: two or three words. */
const TELLING_PERHAPS = 12;

/**
 * Finds an anchored passage again in `text`, which may have changed since, and says how sure that is.
 * In this order: the words at the old position; the words elsewhere, where several places are told apart
 * by what stands around them first and distance second; nearly the words, at most a fifth of them changed.
 *
 * Few words without their surroundings are gone: a word of a sentence that was taken out stands elsewhere as well. On
 * how much around a passage it takes there is no standard; the bounds are ours, tried on generated revisions.
 */
export function matchTextAnchor(text: string, anchor: TextAnchor): AnchorMatch {
  const { quote, position } = anchor;
  const { exact } = quote;
  if (exact === '') return { found: 'gone' };
  // Where nothing has changed, nothing else needs looking at: what follows would find just this.
  const there: Placed = { start: position.start, end: position.start + exact.length, errors: 0 };
  if (text.startsWith(exact, position.start) && around(text, there, anchor) === 1) {
    return { found: 'same', range: { start: there.start, end: there.end }, certainty: 'sure' };
  }
  const places = occurrences(text, exact).map((start): Placed => ({ start, end: start + exact.length, errors: 0 }));
  if (places.length === 0) return approximate(text, anchor);
  const best = bestPlace(text, places, anchor);
  const certainty = certaintyOf(best.around, exact.length, places.length === 1);
  if (certainty === null) return { found: 'gone' };
  const found = best.start === position.start ? 'same' : 'moved';
  return { found, range: { start: best.start, end: best.end }, certainty };
}

interface Placed extends TextRange {
  readonly errors: number;
}

/** @param around share of the surroundings that is there still @param only nowhere else are there such words */
function certaintyOf(around: number, length: number, only: boolean): Certainty | null {
  if (around >= SURE || (only && length >= TELLING)) return 'sure';
  return around >= PERHAPS || length >= TELLING_PERHAPS ? 'perhaps' : null;
}

function occurrences(text: string, exact: string): number[] {
  const places: number[] = [];
  for (let at = text.indexOf(exact); at !== -1; at = text.indexOf(exact, at + 1)) places.push(at);
  return places;
}

/** Where most of the surroundings are; of places alike in that, the nearest to where it was. */
function bestPlace(text: string, places: readonly Placed[], anchor: TextAnchor): Placed & { readonly around: number } {
  const was = anchor.position.start;
  // Where the words stand at their old place and all around them is as it was, nothing else needs looking at.
  const [first, ...rest] = [...places].sort((a, b) => Math.abs(a.start - was) - Math.abs(b.start - was));
  let best = { ...(first as Placed), around: around(text, first as Placed, anchor) };
  for (const place of rest) {
    if (best.around === 1) break;
    const here = around(text, place, anchor);
    if (here > best.around) best = { ...place, around: here };
  }
  return best;
}

/** How much of prefix and suffix stands around a place, 0 to 1, by letters; 1 for a passage that had nothing around it. */
function around(text: string, { start, end }: TextRange, { quote: { prefix, suffix } }: TextAnchor): number {
  const letters = prefix.length + suffix.length;
  if (letters === 0) return 1;
  const near = {
    before: text.slice(Math.max(0, start - 2 * prefix.length), start),
    after: text.slice(end, end + 2 * suffix.length),
  };
  const before = Math.max(kept(near.before, prefix), alike([...near.before].reverse(), [...prefix].reverse()));
  const after = Math.max(kept(near.after, suffix), alike([...near.after], [...suffix]));
  return (before + after) / letters;
}

/** Letters of `side` that are near: all of them but for the fewest insertions, deletions and replacements. */
function kept(near: string, side: string): number {
  if (side === '' || near.includes(side)) return side.length;
  const most = Math.floor(side.length / 2);
  const errors = search(near, side, most).reduce((least, match) => Math.min(least, match.errors), side.length);
  return side.length - errors;
}

/** Letters, counted outward from the passage, that are as they were: a text may begin or end there now. */
function alike(near: readonly string[], side: readonly string[]): number {
  let same = 0;
  let units = 0;
  while (same < side.length && near[same] === side[same]) {
    units += (side[same] as string).length;
    same += 1;
  }
  return units;
}

function approximate(text: string, anchor: TextAnchor): AnchorMatch {
  const { exact } = anchor.quote;
  const places = exact.length > MAX_APPROXIMATE_LENGTH ? byEnds(text, exact) : nearly(text, exact);
  if (places.length === 0) return { found: 'gone' };
  const { start, end, errors, around: share } = bestPlace(text, places, anchor);
  const certainty = certaintyOf(share, exact.length, places.length === 1);
  return certainty === null ? { found: 'gone' } : { found: 'changed', range: { start, end }, errors, certainty };
}

/** All places with the fewest changes, one for each end: of those that begin apart, the first. */
function nearly(text: string, exact: string): Placed[] {
  const allowed = Math.floor(exact.length * MAX_CHANGED_SHARE);
  if (allowed === 0) return [];
  const matches = search(text, exact, allowed);
  const fewest = matches.reduce((least, { errors }) => Math.min(least, errors), Infinity);
  const best = matches.filter(({ errors }) => errors === fewest);
  // A place is found once for every letter that may be counted to it or not.
  return best.filter(({ start, end }, at) => {
    const before = best[at - 1];
    return before === undefined || (before.end < start && before.end < end);
  });
}

/** Long enough to be rare, short enough to be whole when something else was changed. */
const END_PIECE = 64;

/** Places that begin and end like the quote, those whose length is nearest to it. */
function byEnds(text: string, exact: string): Placed[] {
  const heads = occurrences(text, exact.slice(0, END_PIECE));
  const ends = occurrences(text, exact.slice(-END_PIECE)).map((at) => at + END_PIECE);
  const places = heads.flatMap((start) =>
    ends.flatMap((end): Placed[] => {
      const errors = Math.abs(end - start - exact.length);
      return end > start && errors <= exact.length * MAX_CHANGED_SHARE ? [{ start, end, errors }] : [];
    }),
  );
  const fewest = places.reduce((least, { errors }) => Math.min(least, errors), Infinity);
  return places.filter(({ errors }) => errors === fewest);
}
