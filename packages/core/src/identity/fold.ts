/** Letters that decomposition leaves as they are, in the spelling that people use without them. */
const PLAIN: Readonly<Record<string, string>> = {
  ß: 'ss',
  ø: 'o',
  ł: 'l',
  đ: 'd',
  ð: 'd',
  þ: 'th',
  æ: 'ae',
  œ: 'oe',
  ı: 'i',
  ħ: 'h',
  ŋ: 'n',
  '’': "'",
  ʼ: "'",
};

export interface Folded {
  readonly text: string;
  /** For each code unit of `text`, the position in the original that it came from; one more entry for the end. */
  readonly from: readonly number[];
}

/** Signs that are not seen: soft hyphens, and joiners and breaks without width. */
const UNSEEN = /[\u00AD\u200B-\u200D\u2060\uFEFF]/;

/** Lower case without accents, with the way back to the original. Positions are UTF-16 code units. */
export function fold(original: string): Folded {
  const parts: string[] = [];
  const from: number[] = [];
  let at = 0;
  for (const letter of original) {
    const lower = letter.toLowerCase();
    const plain = UNSEEN.test(lower) ? '' : (PLAIN[lower] ?? lower.normalize('NFD').replace(/\p{M}/gu, ''));
    parts.push(plain);
    for (let unit = 0; unit < plain.length; unit += 1) from.push(at);
    at += letter.length;
  }
  from.push(at);
  return { text: parts.join(''), from };
}

/** A run of letters and digits. */
export interface Token {
  readonly text: string;
  /** In the original, UTF-16 code units. */
  readonly start: number;
  readonly end: number;
  /** As it stands there. */
  readonly original: string;
}

/** Cuts a run of letters where a small letter, with its marks, is followed by a capital. One pass, whatever the run is made of. */
function piecesOf(run: string): string[] {
  const pieces: string[] = [];
  let [from, at, afterSmall] = [0, 0, false];
  for (const letter of run) {
    if (/\p{M}/u.test(letter)) {
      at += letter.length;
      continue;
    }
    if (afterSmall && /\p{Lu}/u.test(letter)) {
      pieces.push(run.slice(from, at));
      from = at;
    }
    afterSmall = /\p{Ll}/u.test(letter);
    at += letter.length;
  }
  pieces.push(run.slice(from));
  return pieces;
}

/**
 * Cuts a text into runs of letters and of digits, and a run of letters where a small letter is followed by a
 * capital: file names and handles run names together ("AdjoaMensah2"). Signs that are not seen cut nothing.
 */
export function tokens(original: string): Token[] {
  const found: Token[] = [];
  for (const match of original.matchAll(/\p{L}[\p{L}\p{M}\u00AD\u200B-\u200D\u2060]*|\p{N}+/gu)) {
    let start = match.index;
    for (const piece of piecesOf(match[0])) {
      found.push({ text: fold(piece).text, start, end: start + piece.length, original: piece });
      start += piece.length;
    }
  }
  return found;
}
