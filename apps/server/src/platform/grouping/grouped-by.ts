/** Entries of a list by a key, in their order. */
export function groupedBy<T>(list: readonly T[], key: (one: T) => string): Map<string, T[]> {
  const groups = new Map<string, T[]>();
  for (const one of list) {
    const group = groups.get(key(one));
    if (group === undefined) groups.set(key(one), [one]);
    else group.push(one);
  }
  return groups;
}
