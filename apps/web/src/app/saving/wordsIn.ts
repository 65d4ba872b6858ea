/** Texts of a save, for somebody to read: words of more than a sign, without marks. */
export function wordsIn(value: unknown): string[] {
  if (typeof value === 'string') {
    const words = value.replace(/<[^<>]*>/g, ' ').trim();
    return words.length > 1 ? [words] : [];
  }
  if (Array.isArray(value)) return value.flatMap(wordsIn);
  return value === null || typeof value !== 'object' ? [] : Object.values(value).flatMap(wordsIn);
}
