/** A text by its letters alone: programs treat the blanks between them as they like. */
export class Letters {
  readonly bare: string;
  readonly #places: number[] = [];

  constructor(readonly text: string) {
    for (let at = 0; at < text.length; at += 1) if (!/\s/.test(text[at] as string)) this.#places.push(at);
    this.bare = text.replace(/\s/g, '');
  }

  /** How many letters stand before a place. */
  before(at: number): number {
    let [low, high] = [0, this.#places.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if ((this.#places[middle] as number) < at) low = middle + 1;
      else high = middle;
    }
    return low;
  }

  /** Where a letter stands. */
  place(letter: number): number {
    return this.#places[letter] ?? this.text.length;
  }

  /** Just behind so many letters. */
  after(letters: number): number {
    return letters === 0 ? 0 : this.place(letters - 1) + 1;
  }
}
