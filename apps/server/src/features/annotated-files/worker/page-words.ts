import { pageText, type TextRange } from '@salt-circle/core';
import type { Run } from './runs.js';

/** Where something was drawn on a page. */
export interface Drawn {
  readonly rect: Box;
  readonly quadPoints?: ArrayLike<number> | null;
}

/** Above the baseline, in sizes of the letters: where a letter’s middle is. */
const MIDDLE = 0.3;

/** Letters of a run are taken as equally wide, as where notes are drawn. */
function letterAt({ str, transform, width }: Run, letters: number, height: number): [number, number] {
  const [a = 1, b = 0, c = 0, d = 1, x = 0, y = 0] = transform;
  const along = Math.hypot(a, b) || 1;
  const way = (width * letters) / Math.max(1, str.length);
  return [x + (a / along) * way + c * height, y + (b / along) * way + d * height];
}

/** The words whose letters’ middles lie under the quads, whole ones; null for none. */
export function wordsUnder(runs: readonly Run[], text: string, { quadPoints, rect }: Drawn): TextRange | null {
  const quads = quadsOf(quadPoints, rect);
  const { starts } = pageText([runs]);
  const under = runs.flatMap((run, index) => {
    const from = starts[0]?.[index] ?? 0;
    return Array.from({ length: run.str.length }, (_, letter) => letter)
      .filter((letter) => isUnder(quads, letterAt(run, letter + 0.5, MIDDLE)))
      .map((letter) => from + letter);
  });
  const [first] = under;
  if (first === undefined) return null;
  const start = edgeNear(text, Math.min(...under));
  const end = edgeNear(text, Math.max(...under) + 1);
  const words = text.slice(start, end);
  const lead = words.length - words.trimStart().length;
  return words.trim() === '' ? null : { start: start + lead, end: start + words.trimEnd().length };
}

function isUnder(quads: readonly Box[], [x, y]: readonly [number, number]): boolean {
  return quads.some(([left, bottom, right, top]) => x >= left && x <= right && y >= bottom && y <= top);
}

/** In points, in the space of the page. */
export type Box = readonly [left: number, bottom: number, right: number, top: number];

/** Some programs write none, or empty ones. */
function quadsOf(points: ArrayLike<number> | null | undefined, rect: Box): Box[] {
  const all = Array.from(points ?? []);
  const boxes = Array.from({ length: Math.floor(all.length / 8) }, (_, index): Box => {
    const quad = all.slice(index * 8, index * 8 + 8);
    const [xs, ys] = [0, 1].map((odd) => quad.filter((__, at) => at % 2 === odd)) as [number[], number[]];
    return [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)];
  });
  const drawn = boxes.filter(([left, bottom, right, top]) => right > left && top > bottom);
  return drawn.length === 0 ? [rect] : drawn;
}

/** The nearest edge of a word: letters are measured only. */
function edgeNear(text: string, at: number): number {
  const isLetter = (index: number) => /[\p{L}\p{N}]/u.test(text[index] ?? ' ');
  if (!isLetter(at - 1) || !isLetter(at)) return at;
  let [from, to] = [at, at];
  while (isLetter(from - 1)) from -= 1;
  while (isLetter(to)) to += 1;
  return at - from <= to - at ? from : to;
}

/** Where in the text a caret points: beside the line that it stands at, between two words. */
export function caretAt(runs: readonly Run[], text: string, { rect }: Drawn): number | null {
  const [left, bottom, right, top] = rect;
  const [x, y] = [(left + right) / 2, (bottom + top) / 2];
  const { starts } = pageText([runs]);
  let best: { readonly far: number; readonly at: number } | null = null;
  for (const [index, run] of runs.entries()) {
    if (run.str.trim() === '') continue;
    const size = Math.hypot(run.transform[2] ?? 0, run.transform[3] ?? 1) || 1;
    for (let letter = 0; letter <= run.str.length; letter += 1) {
      const [there, line] = letterAt(run, letter, 0);
      const far = Math.hypot(there - x, line - y);
      if (far < 2 * size && (best === null || far < best.far)) best = { far, at: (starts[0]?.[index] ?? 0) + letter };
    }
  }
  return best === null ? null : edgeNear(text, best.at);
}
