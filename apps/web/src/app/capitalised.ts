import { language } from '@salt-circle/core';

/** With a large first letter: for a word of a sentence that stands alone. */
export function capitalised(words: string): string {
  return words.charAt(0).toLocaleUpperCase(language()) + words.slice(1);
}
