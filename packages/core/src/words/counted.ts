const RULES = new Intl.PluralRules('en');

/**
 * One of two whole sentences by how many there are; `#` stands for the number. For English, by the plural rules of Unicode
 * CLDR (through `Intl.PluralRules`): one, and everything else. Another language brings its own rules and as many sentences.
 *
 * @param count how many, 0 or more
 */
export function counted(count: number, one: string, other: string): string {
  return (RULES.select(count) === 'one' ? one : other).replaceAll('#', String(count));
}
