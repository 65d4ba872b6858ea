/** One word of a drawing, a function or a table of signs, as it stands in its bytes (ISO 32000-2, clause 7.2). */
export interface Token {
  readonly kind: 'number' | 'name' | 'string' | 'word' | 'open' | 'close';
  /** As written, without comments; of a name without its slash, with `#xx` resolved. */
  readonly text: string;
}

const SPACE = new Set([0, 9, 10, 12, 13, 32]);
const DELIMITER = new Set([...'()<>[]{}/%'].map((sign) => sign.charCodeAt(0)));

/** A closing bracket that nothing opened; readers pass over it. */
const STRAY = 41;

/** Reads words from bytes, one by one. Offsets are bytes. */
export class Tokens {
  at = 0;

  constructor(readonly bytes: Uint8Array) {}

  /** Null at the end. */
  next(): Token | null {
    this.#skip();
    const code = this.bytes[this.at];
    if (code === undefined) return null;
    const sign = String.fromCharCode(code);
    if (sign === '(') return { kind: 'string', text: this.#string() };
    if (sign === '/') return this.#name();
    if (sign === '<') {
      if (this.bytes[this.at + 1] === code) return this.#marks('open', 2);
      return { kind: 'string', text: this.#hex() };
    }
    if (sign === '>') return this.#marks('close', this.bytes[this.at + 1] === code ? 2 : 1);
    if (sign === '[' || sign === '{') return this.#marks('open', 1);
    if (sign === ']' || sign === '}') return this.#marks('close', 1);
    const text = this.#run();
    return { kind: isNumber(text) ? 'number' : 'word', text };
  }

  #skip(): void {
    for (;;) {
      const code = this.bytes[this.at];
      if (code === undefined) return;
      if (code === 37) {
        while (this.at < this.bytes.length && this.bytes[this.at] !== 10 && this.bytes[this.at] !== 13) this.at += 1;
      } else if (SPACE.has(code) || code === STRAY) this.at += 1;
      else return;
    }
  }

  #marks(kind: 'open' | 'close', length: number): Token {
    const text = String.fromCharCode(...this.bytes.subarray(this.at, this.at + length));
    this.at += length;
    return { kind, text };
  }

  #run(): string {
    const from = this.at;
    while (this.at < this.bytes.length) {
      const code = this.bytes[this.at] ?? 0;
      if (SPACE.has(code) || DELIMITER.has(code)) break;
      this.at += 1;
    }
    return latin1(this.bytes, from, this.at);
  }

  #name(): Token {
    this.at += 1;
    const written = this.#run();
    return {
      kind: 'name',
      text: written.replace(/#([0-9a-fA-F]{2})/g, (_, hex: string) => String.fromCharCode(parseInt(hex, 16))),
    };
  }

  #string(): string {
    const from = this.at;
    let depth = 0;
    for (; this.at < this.bytes.length; this.at += 1) {
      const code = this.bytes[this.at];
      if (code === 92) this.at += 1;
      else if (code === 40) depth += 1;
      else if (code === 41) {
        depth -= 1;
        if (depth === 0) break;
      }
    }
    this.at += 1;
    return latin1(this.bytes, from, this.at);
  }

  #hex(): string {
    const from = this.at;
    while (this.at < this.bytes.length && this.bytes[this.at] !== 62) this.at += 1;
    this.at += 1;
    return `<${latin1(this.bytes, from, this.at).replace(/[^0-9a-fA-F]/g, '')}>`;
  }
}

function latin1(bytes: Uint8Array, from: number, to: number): string {
  return Buffer.from(bytes.buffer, bytes.byteOffset + from, Math.max(0, Math.min(to, bytes.length) - from)).toString(
    'latin1',
  );
}

/** A name as it is written. */
export function nameText(name: string): string {
  return `/${name.replace(/[^A-Za-z0-9_.+-]/g, (sign) => `#${sign.charCodeAt(0).toString(16).padStart(2, '0')}`)}`;
}

/** Signs, digits with a point among them, and what some writers put behind: "--12.5", ".5", "3-". */
function isNumber(text: string): boolean {
  return /\d/.test(text) && /^[+-]*[\d.]*(?:-\d*)?$/.test(text) && text.indexOf('.') === text.lastIndexOf('.');
}
