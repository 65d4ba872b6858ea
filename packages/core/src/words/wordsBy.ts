/**
 * Words by a name, each said when it is asked for: what is spoken may differ from one time to the next.
 *
 * @param say says one of the keys
 * @param keys the key of a sentence without slots, by name
 */
export function wordsBy<Name extends string, Key extends string>(
  say: (key: Key) => string,
  keys: Readonly<Record<Name, Key>>,
): Readonly<Record<Name, string>> {
  const words = {};
  for (const name of Object.keys(keys) as Name[]) {
    Object.defineProperty(words, name, { enumerable: true, get: () => say(keys[name]) });
  }
  return words as Readonly<Record<Name, string>>;
}
