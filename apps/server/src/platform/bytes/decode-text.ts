import { analyse } from 'chardet';
import iconv from 'iconv-lite';
import { Refused } from './refused.js';
import { say } from '../../words/bytes.js';

/** A text, and the encoding that it was read in: `UTF-8`, `UTF-16`, or a guess at an older one. */
export interface Decoded {
  readonly text: string;
  readonly encoding: string;
}

/** Below this, or near another one, a guess at an older encoding is no better than the usual one. Percent, as the package has it. */
const SURE = 30;
const FAR_FROM_NEXT = 2;
const USUAL = 'windows-1252';
/** What calls itself by the former was written in the latter (WHATWG Encoding Standard, section 4.2, labels of windows-1252). */
const SAME_AS: Readonly<Record<string, string>> = { 'ISO-8859-1': USUAL, ASCII: USUAL };

/**
 * The text of a file: UTF-8 with or without a mark at its beginning, UTF-16 with one, or, where it is not valid UTF-8, an older
 * encoding by its frequencies; where they tell nothing, Windows-1252, in which spreadsheets of western Europe still write.
 *
 * @throws Refused for what is no text
 */
export function decoded(bytes: Uint8Array): Decoded {
  if (bytes.length === 0) throw new Refused(say('fileIsEmpty'), say('chooseAnotherFile'));
  const marked = markedUtf16(bytes);
  // With the mark taken off.
  if (marked !== null) return { text: new TextDecoder(marked).decode(bytes), encoding: 'UTF-16' };
  // A zero byte is in no text of the encodings below.
  if (bytes.includes(0)) {
    throw new Refused(say('thisIsNoTextFile'), say('saveItAsCsvThen'));
  }
  try {
    return { text: new TextDecoder('utf-8', { fatal: true }).decode(bytes), encoding: 'UTF-8' };
  } catch (error) {
    if ((error as { code?: unknown }).code !== 'ERR_ENCODING_INVALID_ENCODED_DATA') throw error;
    const encoding = guess(bytes);
    // Not by Node's own decoder, which takes windows-1252 for Latin-1 and loses curly quotes, dashes and the euro sign.
    return { text: iconv.decode(Buffer.from(bytes), encoding), encoding };
  }
}

/** Like {@link decoded}, the text alone. */
export function decodeText(bytes: Uint8Array): string {
  return decoded(bytes).text;
}

/** By the mark at its beginning (RFC 2781, section 3.2); null for none. */
export function markedUtf16(bytes: Uint8Array): 'utf-16le' | 'utf-16be' | null {
  const [first, second] = bytes;
  if (first === 0xff && second === 0xfe) return 'utf-16le';
  return first === 0xfe && second === 0xff ? 'utf-16be' : null;
}

function guess(bytes: Uint8Array): string {
  const [best, next] = analyse(bytes);
  if (best === undefined || best.confidence < SURE) return USUAL;
  if (best.confidence < FAR_FROM_NEXT * (next?.confidence ?? 0)) return USUAL;
  const name = SAME_AS[best.name] ?? best.name;
  return iconv.encodingExists(name) ? name : USUAL;
}
