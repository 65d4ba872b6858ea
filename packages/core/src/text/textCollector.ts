/** Elements that stand on their own line, so that a word before and one after are never joined. */
const BLOCKS: ReadonlySet<string> = new Set(
  'address article blockquote br caption dd div dl dt figcaption figure h1 h2 h3 h4 h5 h6 hr li ol p pre section table tbody td tfoot th thead tr ul'.split(
    ' ',
  ),
);

/**
 * Turns a walk over rich text into the one plain string that notes are anchored in. The browser walks
 * the rendered document, the server walks the stored HTML; both feed this collector, so that both speak
 * of the same positions.
 *
 * Rule: text as it stands, and one line feed wherever a block begins or ends after some text.
 * All positions are UTF-16 code units.
 */
export class TextCollector {
  #parts: string[] = [];
  #length = 0;
  #breakWanted = false;

  /** @param tag lower-case element name */
  boundary(tag: string): void {
    if (this.#length > 0 && BLOCKS.has(tag)) this.#breakWanted = true;
  }

  /**
   * Adds one text run.
   * @returns the position at which the run starts, or -1 for white space between blocks, which has no place in the string
   */
  text(run: string): number {
    if (run.length === 0) return -1;
    const betweenBlocks = (this.#breakWanted || this.#length === 0) && run.trim() === '';
    if (betweenBlocks) return -1;
    if (this.#breakWanted) {
      this.#parts.push('\n');
      this.#length += 1;
      this.#breakWanted = false;
    }
    const start = this.#length;
    this.#parts.push(run);
    this.#length += run.length;
    return start;
  }

  get length(): number {
    return this.#length;
  }

  toString(): string {
    return this.#parts.join('');
  }
}
