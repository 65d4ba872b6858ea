/** Words of a shingle. Four are rarely the same by chance, and survive a changed word here and there. */
export const SHINGLE_WORDS = 4;

const WORD = /[\p{L}\p{N}]+/gu;

/**
 * The shingles of a text: all sequences of {@link SHINGLE_WORDS} words next to each other, without case, accents and punctuation, each
 * once. A. Broder, On the resemblance and containment of documents (1997), section 2.
 *
 * @returns none for a text of fewer words
 */
export function shinglesOf(text: string): Set<string> {
  const words = text.normalize('NFKD').replace(/\p{M}/gu, '').toLowerCase().match(WORD) ?? [];
  const found = new Set<string>();
  for (let at = 0; at + SHINGLE_WORDS <= words.length; at += 1)
    found.add(words.slice(at, at + SHINGLE_WORDS).join(' '));
  return found;
}

/** How much alike two texts are, 0..1: shingles of both, of the shingles of either (Jaccard). 0 where one has none. */
export function resemblance(a: ReadonlySet<string>, b: ReadonlySet<string>): number {
  const both = inBoth(a, b);
  return both === 0 ? 0 : both / (a.size + b.size - both);
}

/** How much of `a` stands in `b`, 0..1: shingles of both, of the shingles of `a`. 0 where there are none. */
export function containment(a: ReadonlySet<string>, b: ReadonlySet<string>): number {
  return a.size === 0 ? 0 : inBoth(a, b) / a.size;
}

function inBoth(a: ReadonlySet<string>, b: ReadonlySet<string>): number {
  let both = 0;
  for (const one of a) if (b.has(one)) both += 1;
  return both;
}

export interface NearestText {
  readonly id: string;
  /** Containment of the text in that one, 0..1. */
  readonly share: number;
}

/** A sequence of words that so many texts have is a turn of phrase, or the form's own words; it says nothing of copying. */
const COMMON = 100;

/** Shingles of a text without which it is too short to be said to be copied. */
const LEAST_SHINGLES = 8;

/**
 * For each text the other one that has most of it; left out are texts that share nothing, or are too short to tell. In one pass over
 * all shingles, not over all pairs of texts.
 */
export function nearestTexts(
  texts: ReadonlyArray<{ readonly id: string; readonly text: string }>,
): ReadonlyMap<string, NearestText> {
  const sets = texts.map(({ text }) => shinglesOf(text));
  const having = new Map<string, number[]>();
  sets.forEach((set, index) => {
    for (const shingle of set) {
      const list = having.get(shingle);
      if (list === undefined) having.set(shingle, [index]);
      else list.push(index);
    }
  });
  const nearest = new Map<string, NearestText>();
  sets.forEach((set, index) => {
    if (set.size < LEAST_SHINGLES) return;
    const shared = new Map<number, number>();
    for (const shingle of set) {
      const list = having.get(shingle) ?? [];
      if (list.length > COMMON) continue;
      for (const other of list) if (other !== index) shared.set(other, (shared.get(other) ?? 0) + 1);
    }
    let best: readonly [number, number] | null = null;
    for (const [other, count] of shared) if (best === null || count > best[1]) best = [other, count];
    const [own, that] = [texts[index], best === null ? undefined : texts[best[0]]];
    if (own !== undefined && that !== undefined && best !== null)
      nearest.set(own.id, { id: that.id, share: best[1] / set.size });
  });
  return nearest;
}
