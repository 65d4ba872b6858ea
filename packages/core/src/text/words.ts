/**
 * A word is a run of letters, marks and digits; an apostrophe, hyphen, full stop or comma keeps it
 * together only between two such characters ("salt-marsh", "don't", "3.5" are one word each).
 * Scripts written without spaces (Han, kana) count a word per character, as word processors do.
 * Close to the word boundaries of Unicode UAX #29, but without its dictionary and hyphen rules, whose
 * outcome depends on the ICU data of the machine: browser and server must agree to the word.
 */
const WORD =
  /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}]|(?:(?![\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}])[\p{L}\p{M}\p{N}])+(?:['’.,\-‐‑](?![\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}])[\p{L}\p{M}\p{N}]+)*/gu;

/** @returns the number of words, 0 for empty or blank text */
export function countWords(text: string): number {
  let count = 0;
  for (const _ of text.matchAll(WORD)) count += 1;
  return count;
}
