import { language } from './say.js';

const FORMATS = new Map<string, Intl.ListFormat>();

/**
 * "a, b and c", as the language spoken lists things; empty for none.
 * @param last what comes before the last one; with `comma` nothing but the sign
 */
export function listed(parts: readonly string[], last: 'and' | 'or' | 'comma' = 'and'): string {
  const key = `${language()} ${last}`;
  let format = FORMATS.get(key);
  if (format === undefined) {
    const type = ({ and: 'conjunction', or: 'disjunction', comma: 'unit' } as const)[last];
    format = new Intl.ListFormat(language(), { type, style: last === 'comma' ? 'short' : 'long' });
    FORMATS.set(key, format);
  }
  return format.format(parts);
}
