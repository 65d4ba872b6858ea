import type { TextRange } from '../anchoring/selectors.js';
import { countWords } from '../text/words.js';
import { compareTexts, type ComparedPart } from './compareTexts.js';

/** A stretch of two versions as one text. What was taken out in one place and put in at another has the same number at both. */
export interface VersionPart extends ComparedPart {
  readonly move: number | null;
}

/** So many words in the same order are the same passage; fewer stand in two places by chance. Tried on generated revisions. */
const LEAST_MOVED = 6;
/** Places looked at for the same six words: text that repeats itself over and over is not gone through over and over. */
const MOST_PLACES = 20;
/** So few words that stayed between changes hang in the air: they are shown as changed with what is around them. */
const MOST_HANGING = 2;

/**
 * Two versions as one text, by words, with passages that were moved known as moved.
 *
 * On top of {@link compareTexts}: single words that stayed by chance inside of a changed stretch are counted to it; then runs of at
 * least six words that were taken out and put in elsewhere are found by their sequences of six (shingles, as A. Broder 1997 has them)
 * and grown to both sides. Time grows with the length of the texts.
 *
 * @returns as `compareTexts`: `same` and `out` make up `before`, `same` and `in` make up `after`
 */
export function compareVersions(before: string, after: string): VersionPart[] {
  return withMoves(tidied(compareTexts(before, after)));
}

/** Changed stretches as one `out` and one `in` each. */
function tidied(parts: readonly ComparedPart[]): ComparedPart[] {
  const result: ComparedPart[] = [];
  let [out, put] = ['', ''];
  const settle = () => {
    if (out !== '') result.push({ text: out, change: 'out' });
    if (put !== '') result.push({ text: put, change: 'in' });
    [out, put] = ['', ''];
  };
  parts.forEach(({ text, change }, index) => {
    if (change === 'out') out += text;
    else if (change === 'in') put += text;
    else if (out !== '' && put !== '' && hangs(text) && isChanged(parts, index + 1, text.trim() === '' ? 1 : 2)) {
      [out, put] = [out + text, put + text];
    } else {
      settle();
      result.push({ text, change });
    }
  });
  settle();
  return result;
}

/** The end of a paragraph is something to hold on to. */
function hangs(text: string): boolean {
  return !text.includes('\n') && countWords(text) <= MOST_HANGING;
}

/** Whether from here on, up to what stays, something is taken out and something put in; or one of the two. */
function isChanged(parts: readonly ComparedPart[], from: number, sides: 1 | 2): boolean {
  const seen = new Set<string>();
  for (let at = from; at < parts.length && parts[at]?.change !== 'same'; at += 1) seen.add(parts[at]?.change ?? '');
  return seen.size >= sides;
}

/** A word with the white space behind it. */
interface Word {
  readonly text: string;
  /** Without case and white space. */
  readonly bare: string;
  move: number | null;
}

interface Stretch {
  readonly change: ComparedPart['change'];
  readonly words: Word[];
}

function withMoves(parts: readonly ComparedPart[]): VersionPart[] {
  const stretches = parts.map(({ text, change }): Stretch => ({
    change,
    words: change === 'same' ? [] : wordsOf(text),
  }));
  const put = stretches.filter(({ change }) => change === 'in');
  const places = new Map<string, Array<readonly [words: Word[], at: number]>>();
  for (const { words } of put) {
    for (let at = 0; at + LEAST_MOVED <= words.length; at += 1) {
      const key = shingle(words, at);
      const known = places.get(key);
      if (known === undefined) places.set(key, [[words, at]]);
      else if (known.length < MOST_PLACES) known.push([words, at]);
    }
  }
  let moves = 0;
  const found = new Map<number, Found>();
  for (const { change, words } of stretches) {
    if (change !== 'out') continue;
    for (let at = 0; at + LEAST_MOVED <= words.length;) {
      const match = longest(words, at, places.get(shingle(words, at)) ?? []);
      if (match === null) {
        at += 1;
        continue;
      }
      moves += 1;
      for (let step = 0; step < match.length; step += 1) {
        (words[at + step] as Word).move = moves;
        (match.words[match.at + step] as Word).move = moves;
      }
      found.set(moves, { from: { words, at }, to: match, length: match.length });
      at += match.length;
    }
  }
  return parts.flatMap((part, index): VersionPart[] => {
    const words = stretches[index]?.words ?? [];
    if (part.change === 'same' || words.length === 0) return [{ ...part, move: null }];
    const [before, next] = [stretches[index - 1], stretches[index + 1]];
    // The two sides of one changed stretch are told together.
    if (part.change === 'in' && before?.change === 'out') return [];
    if (part.change === 'out' && next?.change === 'in') return sides(words, next.words, [...found.values()]);
    return cut(part.change, words);
  });
}

/** Passages that stand in the same order on both sides of a changed stretch have not moved: they stayed, and others moved past them. */
function sides(out: readonly Word[], put: readonly Word[], found: readonly Found[]): VersionPart[] {
  const here = found
    .filter(({ from, to }) => from.words === out && to.words === put)
    .map(({ from, to, length }) => {
      let same = 0;
      while (same < length && out[from.at + same]?.text === put[to.at + same]?.text) same += 1;
      return { out: from.at, put: to.at, length: same };
    })
    .filter(({ length }) => length > 0);
  const parts: VersionPart[] = [];
  let [outAt, putAt] = [0, 0];
  for (const { out: from, put: to, length } of heaviestChain(here)) {
    parts.push(...cut('out', out.slice(outAt, from)), ...cut('in', put.slice(putAt, to)));
    const text = out.slice(from, from + length).map((word) => word.text);
    // What is left of a passage that stayed (white space apart) has not moved either.
    for (const word of [...out.slice(from + length), ...put.slice(to + length)])
      if (word.move === out[from]?.move) word.move = null;
    parts.push({ text: text.join(''), change: 'same', move: null });
    [outAt, putAt] = [from + length, to + length];
  }
  return [...parts, ...cut('out', out.slice(outAt)), ...cut('in', put.slice(putAt))];
}

interface Link {
  readonly out: number;
  readonly put: number;
  readonly length: number;
}

/** Of links in the order of the earlier side, those of most words together that are in order on the later side too. */
function heaviestChain(links: readonly Link[]): readonly Link[] {
  const best: Array<{ readonly words: number; readonly chain: readonly Link[] }> = [];
  for (const link of links) {
    const before = best.filter(({ chain }) => (chain.at(-1)?.put ?? -1) < link.put);
    const heaviest = before.reduce((most, one) => (one.words > most.words ? one : most), {
      words: 0,
      chain: [] as readonly Link[],
    });
    best.push({ words: heaviest.words + link.length, chain: [...heaviest.chain, link] });
  }
  return best.reduce((most, one) => (one.words > most.words ? one : most), { words: 0, chain: [] as readonly Link[] })
    .chain;
}

interface Found {
  readonly from: { readonly words: readonly Word[]; readonly at: number };
  readonly to: { readonly words: readonly Word[]; readonly at: number };
  readonly length: number;
}

function wordsOf(text: string): Word[] {
  return (text.match(/\s*\S+\s*|\s+/gu) ?? []).map((one) => ({
    text: one,
    bare: one.trim().toLowerCase(),
    move: null,
  }));
}

function shingle(words: readonly Word[], at: number): string {
  return words
    .slice(at, at + LEAST_MOVED)
    .map(({ bare }) => bare)
    .join(' ');
}

/** Of the places where the words from `at` on stand, the one where most of them do; words that moved already are taken. */
function longest(
  words: readonly Word[],
  at: number,
  places: ReadonlyArray<readonly [words: Word[], at: number]>,
): { readonly words: Word[]; readonly at: number; readonly length: number } | null {
  let best: { readonly words: Word[]; readonly at: number; readonly length: number } | null = null;
  for (const [there, from] of places) {
    let length = 0;
    const same = () => {
      const [one, two] = [words[at + length], there[from + length]];
      return one !== undefined && two !== undefined && one.bare === two.bare && one.move === null && two.move === null;
    };
    while (same()) length += 1;
    if (length >= LEAST_MOVED && length > (best?.length ?? 0)) best = { words: there, at: from, length };
  }
  return best;
}

function cut(change: 'in' | 'out', words: readonly Word[]): VersionPart[] {
  const parts: VersionPart[] = [];
  for (const { text, move } of words) {
    const last = parts.at(-1);
    if (last?.move === move) parts[parts.length - 1] = { ...last, text: last.text + text };
    else parts.push({ text, change, move });
  }
  return parts;
}

/** What became of a passage of the earlier version. */
export interface Became {
  /** `changed` also where other words stand in its place; `gone` where nothing does. */
  readonly kind: 'kept' | 'changed' | 'moved' | 'gone';
  /** Of its letters that are in the later version, 0..1: how sure it is that this is the passage. */
  readonly share: number;
  /** Words of the passage that were taken out, and words put in among them or in their place. */
  readonly wordsOut: number;
  readonly wordsIn: number;
  /** Words put in directly before or behind it. */
  readonly wordsBeside: number;
  /** Where it stands in the later version, UTF-16 code units; null for what is gone. */
  readonly range: TextRange | null;
}

/** So much of a passage must have gone along for it to be moved, not written anew, 0..1. */
const MOVED_SHARE = 0.5;

/**
 * What became of the passage at `range` (UTF-16 code units of the earlier version).
 *
 * @param parts of {@link compareVersions}
 */
export function becameOf(parts: readonly VersionPart[], range: TextRange): Became {
  const { start, end } = range;
  const length = Math.max(1, letters(passageOf(parts, range)));
  /** Where the parts begin in either version. */
  let [was, is] = [0, 0];
  let [kept, moved, wordsOut, wordsIn, wordsBeside] = [0, 0, 0, 0, 0];
  let [from, to] = [Infinity, -1];
  const movedTo = new Map<number, TextRange>();
  const gone = new Set<number>();
  const stands = (at: number, until: number) => {
    from = Math.min(from, at);
    to = Math.max(to, until);
  };
  let touched = false;
  for (const [index, { text, change, move }] of parts.entries()) {
    const [first, last] = [Math.max(was, start), Math.min(was + text.length, end)];
    const inside = change !== 'in' && first < last;
    const piece = inside ? text.slice(first - was, last - was) : '';
    if (change === 'in') {
      if (move !== null) movedTo.set(move, { start: is, end: is + text.length });
      // In its stead is also what stands where something was taken out that reaches into the passage.
      const within = was > start && was < end;
      const instead = touched && outBefore(parts, index);
      if (within || instead) {
        wordsIn += move === null ? countWords(text) : 0;
        stands(is, is + text.length);
      } else if ((was === start || was === end) && move === null) wordsBeside += countWords(text);
      is += text.length;
      continue;
    }
    if (inside) {
      if (change === 'same') {
        kept += letters(piece);
        stands(is + first - was, is + last - was);
        touched = false;
      } else if (move === null) {
        wordsOut += countWords(piece);
        touched = true;
      } else {
        moved += letters(piece);
        gone.add(move);
        touched = true;
      }
    } else touched = false;
    was += text.length;
    if (change === 'same') is += text.length;
  }
  const share = (kept + moved) / length;
  const common = { share, wordsOut, wordsIn, wordsBeside };
  if (moved / length >= MOVED_SHARE) {
    const [first] = [...gone].flatMap((one) => movedTo.get(one) ?? []);
    return { kind: 'moved', ...common, range: first ?? null };
  }
  if (to < 0) return { kind: 'gone', ...common, range: null };
  const whole = { start: from, end: to };
  return { kind: share === 1 && wordsIn === 0 ? 'kept' : 'changed', ...common, range: whole };
}

/** Whether the stretch right before was taken out. */
function outBefore(parts: readonly VersionPart[], index: number): boolean {
  for (let at = index - 1; at >= 0; at -= 1) {
    const change = parts[at]?.change;
    if (change !== 'in') return change === 'out';
  }
  return false;
}

function passageOf(parts: readonly VersionPart[], { start, end }: TextRange): string {
  return parts
    .filter(({ change }) => change !== 'in')
    .map(({ text }) => text)
    .join('')
    .slice(start, end);
}

/** White space comes and goes with what is around it. */
function letters(text: string): number {
  return text.replace(/\s/gu, '').length;
}
