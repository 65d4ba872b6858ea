const RULES = new Intl.PluralRules('en');

/**
 * One of two whole sentences by how many there are; the first `#` stands for the number. For English, by the plural rules of Unicode
 * CLDR (through `Intl.PluralRules`): one, and everything else. Another language brings its own rules and as many sentences.
 *
 * @param count how many, 0 or more
 */
export function counted(count: number, one: string, other: string): string {
  // The first sign alone: what else is in the sentence, a title say, may have signs of its own.
  return (RULES.select(count) === 'one' ? one : other).replace('#', String(count));
}
