import { countWords } from '../text/words.js';
import { OVERALL_ID, type Answers, type ReviewForm } from './form.js';

/** Shorter ones are said twice by chance: “I agree.”, “See above.” */
const SHORTEST = 4;

/** The two texts that an answer can have. */
export type TextField = 'text' | 'next';

/**
 * Words of each answer that stand, as whole sentences of at least four words, in an answer before it or earlier in itself: pasted
 * twice they say nothing more, so they do not count towards a minimum. The first place keeps them; items in the form's order,
 * the overall comment last. By item id and field; fields without such words are not in it. Signs, case and spaces make no difference.
 */
export function repeatedWords({ items }: Pick<ReviewForm, 'items'>, answers: Answers): ReadonlyMap<string, number> {
  const said = new Set<string>();
  const repeated = new Map<string, number>();
  for (const id of [...items.map((item) => item.id), OVERALL_ID]) {
    for (const field of ['text', 'next'] as const) {
      let words = 0;
      for (const sentence of sentencesOf(answers[id]?.[field] ?? '')) {
        const count = countWords(sentence);
        if (count < SHORTEST) continue;
        const plain = sentence
          .toLowerCase()
          .replace(/[^\p{L}\p{N}]+/gu, ' ')
          .trim();
        if (said.has(plain)) words += count;
        said.add(plain);
      }
      if (words > 0) repeated.set(fieldKey(id, field), words);
    }
  }
  return repeated;
}

/** Under which a field is found in `repeatedWords`. */
export function fieldKey(itemId: string, field: TextField): string {
  return `${itemId} ${field}`;
}

/** At the ends of lines, and after a stop, question or exclamation mark; of scripts that put no space after theirs, too. */
function sentencesOf(text: string): string[] {
  return text.split(/(?<=[.!?…])\s+|(?<=[。！？])|\n+/u).filter((one) => one.trim() !== '');
}
