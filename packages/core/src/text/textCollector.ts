/** Elements that stand on their own line, so that a word before and one after are never joined. */
const BLOCKS: ReadonlySet<string> = new Set(
  'address article blockquote br caption dd div dl dt figcaption figure h1 h2 h3 h4 h5 h6 hr li ol p pre section table tbody td tfoot th thead tr ul'.split(
    ' ',
  ),
);

/** Where a text run lies: its first `skip` code units have no place in the string, the rest begins at `start`. */
export interface PlacedRun {
  readonly start: number;
  readonly skip: number;
}

/**
 * Turns a walk over rich text into the one plain string that notes are anchored in. The browser walks
 * the rendered document, the server walks the stored HTML; both feed this collector, so that both speak
 * of the same positions.
 *
 * Rule: text as it stands, less white space at the start of a block, and one line feed wherever a block
 * begins or ends between texts. How a text is cut into runs makes no difference to the result.
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

  /** Adds one text run. Null when all of it is white space at the start of a block. */
  text(run: string): PlacedRun | null {
    const atStart = this.#breakWanted || this.#length === 0;
    const kept = atStart ? run.trimStart() : run;
    if (kept === '') return null;
    if (this.#breakWanted) {
      this.#parts.push('\n');
      this.#length += 1;
      this.#breakWanted = false;
    }
    const start = this.#length;
    this.#parts.push(kept);
    this.#length += kept.length;
    return { start, skip: run.length - kept.length };
  }

  get length(): number {
    return this.#length;
  }

  toString(): string {
    return this.#parts.join('');
  }
}
