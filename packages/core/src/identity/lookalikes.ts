import { tokens } from './fold.js';

/** Something that looks as if it told who somebody is, whoever that may be. Positions in UTF-16 code units; `end` is exclusive. */
export interface Lookalike {
  readonly start: number;
  readonly end: number;
  readonly exact: string;
  readonly what: 'email' | 'campus-id';
}

/** Letters and digits that an id has at least; below that, anything looks like one. */
const SHORTEST_ID = 4;
/** Digits of an id that has no letters: years and measurements have fewer. */
const SHORTEST_NUMBER = 6;
/** Before and after the @ of an address (RFC 5321, 4.5.3.1). */
const LOCAL = 64;
const DOMAIN = 255;

/**
 * The shape of an id: each letter as "A", each digit as "9", all else left out ("cr-4101" and "CR 4102" are both "AA9999").
 * Returns null for what is too short to tell anything.
 */
export function shapeOfId(id: string): string | null {
  const shape = tokens(id)
    .map(({ text }) => text.replace(/\p{N}/gu, '9').replace(/[^9]/gu, 'A'))
    .join('');
  if (shape.length < SHORTEST_ID || !shape.includes('9')) return null;
  return shape.includes('A') || shape.length >= SHORTEST_NUMBER ? shape : null;
}

/**
 * Finds addresses and what has the shape of the course's ids, whether anybody has them or not: an answer that says which exist would be a
 * way to look people up.
 *
 * @param shapes of the ids that the course gives, see {@link shapeOfId}
 */
export function findLookalikes(text: string, shapes: ReadonlySet<string>): Lookalike[] {
  return [...addressesIn(text), ...idsIn(text, shapes)].sort((a, b) => a.start - b.start);
}

function addressesIn(text: string): Lookalike[] {
  const found: Lookalike[] = [];
  for (let at = text.indexOf('@'); at >= 0; at = text.indexOf('@', at + 1)) {
    // regex: over the 64 characters before the @
    const before = /[\p{L}\p{N}._%+-]{1,64}$/u.exec(text.slice(Math.max(0, at - LOCAL), at))?.[0];
    const after = /^[\p{L}\p{N}-]{1,63}(?:\.[\p{L}\p{N}-]{1,63}){1,8}/u.exec(text.slice(at + 1, at + 1 + DOMAIN))?.[0];
    if (before === undefined || after === undefined) continue;
    const [start, end] = [at - before.length, at + 1 + after.length];
    found.push({ start, end, exact: text.slice(start, end), what: 'email' });
  }
  return found;
}

/** Between the letters and digits of an id: one sign at the most. */
const JOINS = /^[\s._/­‐-―−-]?$/;

function idsIn(text: string, shapes: ReadonlySet<string>): Lookalike[] {
  const longest = Math.max(0, ...[...shapes].map(({ length }) => length));
  const all = tokens(text);
  const found: Lookalike[] = [];
  for (let first = 0; first < all.length; first += 1) {
    let shape = '';
    for (let next = first; next < all.length && shape.length < longest; next += 1) {
      const token = all[next];
      const last = all[next - 1];
      if (token === undefined) break;
      if (next > first && last !== undefined) {
        const gap = text.slice(last.end, token.start);
        // "no 2024" is two words; "CR 4102" is an id.
        const words = /\s/.test(gap) && last.original !== last.original.toUpperCase();
        if (words || !JOINS.test(gap)) break;
      }
      shape += token.text.replace(/\p{N}/gu, '9').replace(/[^9]/gu, 'A');
      if (!shapes.has(shape)) continue;
      const start = all[first]?.start ?? 0;
      found.push({ start, end: token.end, exact: text.slice(start, token.end), what: 'campus-id' });
      first = next;
      break;
    }
  }
  return found;
}
