import search from 'approx-string-match';
import type { TextAnchor, TextRange } from './selectors.js';

export type AnchorMatch =
  /** The very words are there: `moved` when not at the old position. */
  | { readonly found: 'same' | 'moved'; readonly range: TextRange }
  /**
   * Nearly the same words are there. `errors` is the number of insertions, deletions and replacements;
   * for quotes of over 1,024 code units, the difference in length.
   */
  | { readonly found: 'changed'; readonly range: TextRange; readonly errors: number }
  | { readonly found: 'gone' };

/** Above a fifth of its letters changed, a passage reads as another one. */
const MAX_CHANGED_SHARE = 0.2;
/** The approximate search keeps a bit per letter of the quote; longer quotes are found by their head and tail. */
const MAX_APPROXIMATE_LENGTH = 1024;

/**
 * Finds an anchored passage again in `text`, which may have changed since.
 * In this order: the words at the old position; the words elsewhere, where several places are told apart
 * by prefix and suffix first and distance second; nearly the words, at most a fifth of them changed.
 */
export function matchTextAnchor(text: string, anchor: TextAnchor): AnchorMatch {
  const { quote, position } = anchor;
  const { exact } = quote;
  if (exact === '') return { found: 'gone' };
  if (text.startsWith(exact, position.start) && contextAt(text, position.start, anchor) > 0) {
    return { found: 'same', range: rangeFrom(position.start, exact.length) };
  }
  const places = occurrences(text, exact);
  if (places.length > 0) {
    const best = bestPlace(text, places, anchor);
    return { found: best === position.start ? 'same' : 'moved', range: rangeFrom(best, exact.length) };
  }
  return approximate(text, anchor);
}

function rangeFrom(start: number, length: number): TextRange {
  return { start, end: start + length };
}

function occurrences(text: string, exact: string): number[] {
  const places: number[] = [];
  for (let at = text.indexOf(exact); at !== -1; at = text.indexOf(exact, at + 1)) places.push(at);
  return places;
}

function bestPlace(text: string, places: readonly number[], anchor: TextAnchor): number {
  let best = places[0] as number;
  let bestContext = -1;
  for (const place of places) {
    const context = contextAt(text, place, anchor);
    const nearer = Math.abs(place - anchor.position.start) < Math.abs(best - anchor.position.start);
    if (context > bestContext || (context === bestContext && nearer)) {
      best = place;
      bestContext = context;
    }
  }
  return best;
}

/**
 * How much of prefix and suffix stands around a place: letters that agree, counted outward from the
 * passage. One is added when a side has no context to compare, so that 0 means "all context differs".
 */
function contextAt(text: string, start: number, { quote }: TextAnchor): number {
  const end = start + quote.exact.length;
  let agree = quote.prefix === '' || quote.suffix === '' ? 1 : 0;
  for (let back = 1; back <= quote.prefix.length; back += 1) {
    if (text[start - back] !== quote.prefix[quote.prefix.length - back]) break;
    agree += 1;
  }
  for (let ahead = 0; ahead < quote.suffix.length; ahead += 1) {
    if (text[end + ahead] !== quote.suffix[ahead]) break;
    agree += 1;
  }
  return agree;
}

function approximate(text: string, anchor: TextAnchor): AnchorMatch {
  const { exact } = anchor.quote;
  if (exact.length > MAX_APPROXIMATE_LENGTH) return byEnds(text, exact);
  const allowed = Math.floor(exact.length * MAX_CHANGED_SHARE);
  if (allowed === 0) return { found: 'gone' };
  let best: { start: number; end: number; errors: number } | null = null;
  for (const match of search(text, exact, allowed)) {
    const closer =
      best !== null &&
      match.errors === best.errors &&
      Math.abs(match.start - anchor.position.start) < Math.abs(best.start - anchor.position.start);
    if (best === null || match.errors < best.errors || closer) best = match;
  }
  if (best === null) return { found: 'gone' };
  return { found: 'changed', range: { start: best.start, end: best.end }, errors: best.errors };
}

/** Long enough to be rare, short enough to be whole when something else was changed. */
const END_PIECE = 64;

/** Of all places that begin and end like the quote, the one whose length is nearest to it. */
function byEnds(text: string, exact: string): AnchorMatch {
  const heads = occurrences(text, exact.slice(0, END_PIECE));
  const ends = occurrences(text, exact.slice(-END_PIECE)).map((at) => at + END_PIECE);
  let best: { start: number; end: number; errors: number } | null = null;
  for (const start of heads) {
    for (const end of ends) {
      const errors = Math.abs(end - start - exact.length);
      if (end > start && (best === null || errors < best.errors)) best = { start, end, errors };
    }
  }
  if (best === null || best.errors > exact.length * MAX_CHANGED_SHARE) return { found: 'gone' };
  return { found: 'changed', range: { start: best.start, end: best.end }, errors: best.errors };
}
