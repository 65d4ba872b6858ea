/** A queue for several, each of whom gets a turn before anybody gets a second one. */
export class InTurn<T> {
  /** In the order of their turns. */
  readonly #waiting = new Map<string, T[]>();

  /** @param key whose it is */
  add(key: string, one: T): void {
    const own = this.#waiting.get(key);
    if (own === undefined) this.#waiting.set(key, [one]);
    else own.push(one);
  }

  /** The next one, or undefined for none. */
  next(): T | undefined {
    const [first] = this.#waiting;
    if (first === undefined) return undefined;
    const [key, own] = first;
    this.#waiting.delete(key);
    const one = own.shift();
    if (own.length > 0) this.#waiting.set(key, own);
    return one;
  }

  clear(): void {
    this.#waiting.clear();
  }
}
