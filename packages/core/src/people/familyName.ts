/**
 * By which part of a name lists are put in order: what stands before a comma ("Adjo, Ama"), else the last word ("Ama Adjo"),
 * with the rest behind it so that people of one family name are in order as well. Particles ("van der", "de") stay with the
 * given name, as is common practice in lists of the Netherlands and France. It is a guess: of "Gabriel García Márquez"
 * the first of two family names is not found, and names that begin with the family name are taken the other way round.
 *
 * @param name as it is shown; empty for nobody
 * @returns lower case is kept: compare with a collator
 */
export function byFamilyName(name: string): string {
  const words = name.trim().replace(/\s+/g, ' ').replace(SUFFIX, '');
  const comma = words.indexOf(',');
  if (comma > 0) return `${words.slice(0, comma)} ${words.slice(comma + 1).trim()}`.trim();
  const parts = words.split(' ');
  const last = parts.pop() ?? '';
  return `${last} ${parts.join(' ')}`.trim();
}

/** Not part of the family name: "Sammy Okafor Jr." */
const SUFFIX = /,? (?:jr|sr|[iv]{2,3}|ph\.?d)\.?$/i;
