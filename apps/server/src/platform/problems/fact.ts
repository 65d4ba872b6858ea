/** A fact of a problem of the core, for its sentence; nothing where the problem has none of that name. */
export function fact(facts: Readonly<Record<string, string | number | undefined>>, name: string): string | number {
  return facts[name] ?? '';
}
