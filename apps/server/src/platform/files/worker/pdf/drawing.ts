import { barePicture } from './picture-bytes.js';
import type { Copying } from './shapes.js';
import { nameText, Tokens, type Token } from './tokens.js';

/** What may stand before each operator of a drawing (ISO 32000-2, table A.1); whatever is none of them is not drawn. */
type Operand = 'number' | 'numbers' | 'text' | 'texts' | 'resource' | 'colours' | 'space' | 'intent';

const OPERATORS: Readonly<Record<string, readonly Operand[]>> = {
  ...some('b B b* B* BT ET f F f* h n q Q s S T* W W*', []),
  ...some('G g i J j M Tc TL Tr Ts Tw Tz w', ['number']),
  ...some('cm c Tm d1', ['number', 'number', 'number', 'number', 'number', 'number']),
  ...some('l m Td TD d0', ['number', 'number']),
  ...some('RG rg', ['number', 'number', 'number']),
  ...some('K k re v y', ['number', 'number', 'number', 'number']),
  ...some('SC sc SCN scn', ['colours']),
  ...some('CS cs', ['space']),
  ...some('Do gs sh', ['resource']),
  ...some("Tj '", ['text']),
  d: ['numbers', 'number'],
  ri: ['intent'],
  Tf: ['resource', 'number'],
  TJ: ['texts'],
  '"': ['number', 'number', 'text'],
};

function some(names: string, operands: readonly Operand[]): Record<string, readonly Operand[]> {
  return Object.fromEntries(names.split(' ').map((name) => [name, operands]));
}

const SPACES = new Set('DeviceGray DeviceRGB DeviceCMYK Pattern G RGB CMYK I Indexed'.split(' '));
const INTENTS = new Set(['AbsoluteColorimetric', 'RelativeColorimetric', 'Saturation', 'Perceptual']);

/** Lines that are written at once. */
const LINES = 4_096;

/** An operand: one word, or a list of them. */
type Given = Token | readonly Token[];

/**
 * Writes a drawing anew from its operators and what each of them takes: no remarks, no marks of programs, no words but those
 * that are drawn. Layers stay, so that what is not shown is not shown. What was begun is ended.
 *
 * @returns bytes
 */
export function redrawn(bytes: Uint8Array, copy: Copying): Uint8Array {
  return new Drawing(bytes, copy).written();
}

class Drawing {
  readonly #tokens: Tokens;
  readonly #out: Buffer[] = [];
  /** Lines on their way there: a buffer of its own for each would take more room than the drawing. */
  #lines: string[] = [];
  /** Of each mark that is open, whether it is a layer's. */
  readonly #marks: boolean[] = [];
  #given: Given[] = [];
  #saved = 0;

  constructor(
    bytes: Uint8Array,
    private readonly copy: Copying,
  ) {
    this.#tokens = new Tokens(bytes);
  }

  written(): Uint8Array {
    for (let token = this.#tokens.next(); token !== null; token = this.#tokens.next()) {
      if (token.kind === 'open') this.#given.push(this.#list(token.text));
      else if (token.kind !== 'word') this.#given.push(token);
      else if (token.text === 'true' || token.text === 'false' || token.text === 'null') this.#given.push(token);
      else {
        this.#operator(token.text);
        this.#given = [];
      }
    }
    for (const isLayer of this.#marks.reverse()) if (isLayer) this.#write('EMC');
    for (; this.#saved > 0; this.#saved -= 1) this.#write('Q');
    this.#flush();
    return Buffer.concat(this.#out);
  }

  #write(line: string): void {
    if (this.#lines.push(line) >= LINES) this.#flush();
  }

  #flush(): void {
    if (this.#lines.length > 0) this.#out.push(Buffer.from(`${this.#lines.join('\n')}\n`, 'latin1'));
    this.#lines = [];
  }

  /** What stands between brackets, flat: only flat lists are operands. */
  #list(opened: string): Token[] {
    const inside: Token[] = [];
    let depth = 1;
    for (let token = this.#tokens.next(); token !== null; token = this.#tokens.next()) {
      if (token.kind === 'open') depth += 1;
      else if (token.kind === 'close') depth -= 1;
      else if (depth === 1 && opened === '[') inside.push(token);
      if (depth === 0) break;
    }
    return inside;
  }

  #operator(name: string): void {
    if (name === 'BMC' || name === 'BDC') return this.#begin();
    if (name === 'EMC') {
      if (this.#marks.pop() === true) this.#write('EMC');
      return;
    }
    if (name === 'BI') return this.#inlinePicture();
    const wanted = Object.hasOwn(OPERATORS, name) ? OPERATORS[name] : undefined;
    if (wanted === undefined) return;
    if (name === 'q') this.#saved += 1;
    if (name === 'Q') {
      if (this.#saved === 0) return;
      this.#saved -= 1;
    }
    // Readers take the last operands where there are too many.
    const given = wanted[0] === 'colours' ? [this.#given.flat()] : this.#given.slice(-wanted.length || undefined);
    if (wanted.length === 0) return this.#write(name);
    const words = wanted.map((kind, at) => this.#operand(kind, given[at]));
    if (words.every((word) => word !== null)) this.#write(`${words.join(' ')} ${name}`);
  }

  #operand(kind: Operand, given: Given | undefined): string | null {
    if (given === undefined) return null;
    const list = Array.isArray(given) ? (given as readonly Token[]) : null;
    const token = list === null ? (given as Token) : null;
    const only = (kinds: ReadonlyArray<Token['kind']>) =>
      (list ?? []).filter((one) => kinds.includes(one.kind)).map(({ text }) => text);
    switch (kind) {
      case 'number':
        return token?.kind === 'number' ? token.text : null;
      case 'numbers':
        return list === null ? null : `[${only(['number']).join(' ')}]`;
      case 'text':
        return token?.kind === 'string' ? token.text : null;
      case 'texts':
        return list === null ? null : `[${only(['number', 'string']).join(' ')}]`;
      case 'resource':
        return token?.kind === 'name' ? nameText(this.copy.renamed(token.text)) : null;
      case 'space':
        return token?.kind === 'name' ? this.#space(token.text) : null;
      case 'intent':
        return token?.kind === 'name' && INTENTS.has(token.text) ? `/${token.text}` : null;
      case 'colours':
        return (list ?? [])
          .flatMap(({ kind: one, text }) =>
            one === 'number' ? [text] : one === 'name' ? [nameText(this.copy.renamed(text))] : [],
          )
          .join(' ');
    }
  }

  #space(name: string): string {
    return nameText(SPACES.has(name) ? name : this.copy.renamed(name));
  }

  #begin(): void {
    const [tag, properties] = this.#given as Token[];
    const isLayer = tag?.kind === 'name' && tag.text === 'OC' && properties?.kind === 'name';
    this.#marks.push(isLayer);
    if (isLayer) this.#write(`/OC ${nameText(this.copy.renamed(properties.text))} BDC`);
  }

  /** A picture within the drawing: its entries by what they mean, then its bytes up to their end. */
  #inlinePicture(): void {
    const entries: Array<readonly [string, Given]> = [];
    let key: string | null = null;
    for (let token = this.#tokens.next(); token !== null && token.text !== 'ID'; token = this.#tokens.next()) {
      if (key === null) {
        if (token.kind === 'name') key = token.text;
        continue;
      }
      const isDict = token.kind === 'open' && token.text === '<<';
      entries.push([key, isDict ? this.#parms() : token.kind === 'open' ? this.#list(token.text) : token]);
      key = null;
    }
    const data = this.#inlineBytes();
    const filters = entries.find(([name]) => name === 'F' || name === 'Filter')?.[1];
    const last = Array.isArray(filters) ? (filters as readonly Token[]).at(-1) : (filters as Token | undefined);
    const isJpeg = filters === last && (last?.text === 'DCT' || last?.text === 'DCTDecode');
    const told = entries.flatMap(([name, value]) => this.#entry(name, value)).join(' ');
    this.#flush();
    this.#out.push(
      Buffer.from(`BI ${told} ID `, 'latin1'),
      Buffer.from(isJpeg ? barePicture('DCTDecode', data) : data),
      Buffer.from('\nEI\n', 'latin1'),
    );
  }

  #parms(): Token[] {
    const inside: Token[] = [{ kind: 'open', text: '<<' }];
    for (let token = this.#tokens.next(); token !== null && token.kind !== 'close'; token = this.#tokens.next())
      inside.push(token);
    return inside;
  }

  #entry(name: string, value: Given): string[] {
    if (!INLINE.has(name)) return [];
    const list = Array.isArray(value) ? (value as readonly Token[]) : null;
    if (list?.[0]?.text === '<<') {
      const words = list
        .slice(1)
        .map((one) => (one.kind === 'name' && PARMS.has(one.text) ? `/${one.text}` : one.text));
      const pairs = words.flatMap((word, at) =>
        word.startsWith('/') && /^(-?\d+|true|false)$/.test(words[at + 1] ?? '') ? [`${word} ${words[at + 1]}`] : [],
      );
      return [`/${name} <<${pairs.join(' ')}>>`];
    }
    const words = (list ?? [value as Token]).flatMap((one) => this.#inlineWord(name, one));
    return words.length === 0 ? [] : [`/${name} ${list === null ? words[0] : `[${words.join(' ')}]`}`];
  }

  #inlineWord(entry: string, { kind, text }: Token): string[] {
    if (kind === 'number' || text === 'true' || text === 'false') return [text];
    const isSpace = entry === 'CS' || entry === 'ColorSpace';
    // The colours of an indexed space.
    if (kind === 'string') return isSpace ? [text] : [];
    if (kind !== 'name') return [];
    if (isSpace) return [this.#space(text)];
    return FILTERS.has(text) || INTENTS.has(text) ? [`/${text}`] : [];
  }

  /** Up to an `EI` of its own after which a drawing goes on, as readers find it. */
  #inlineBytes(): Uint8Array {
    const { bytes } = this.#tokens;
    const from = this.#tokens.at + 1;
    for (let at = from; at < bytes.length - 1; at += 1) {
      if (bytes[at] !== 69 || bytes[at + 1] !== 73 || !isSpace(bytes[at - 1]) || !endsWord(bytes[at + 2])) continue;
      const following = bytes.subarray(at + 2, at + 12);
      if (!following.every((code) => code === 9 || code === 10 || code === 13 || (code >= 32 && code < 127))) continue;
      this.#tokens.at = at + 2;
      return bytes.subarray(from, at - 1);
    }
    this.#tokens.at = bytes.length;
    return bytes.subarray(from);
  }
}

const INLINE = new Set(
  'BPC BitsPerComponent CS ColorSpace D Decode DP DecodeParms F Filter H Height IM ImageMask Intent I Interpolate W Width'.split(
    ' ',
  ),
);
const FILTERS = new Set(
  'AHx A85 LZW Fl RL CCF DCT ASCIIHexDecode ASCII85Decode LZWDecode FlateDecode RunLengthDecode CCITTFaxDecode DCTDecode'.split(
    ' ',
  ),
);
const PARMS = new Set(
  'Predictor Colors BitsPerComponent Columns EarlyChange K EndOfLine EncodedByteAlign Rows EndOfBlock BlackIs1 ColorTransform'.split(
    ' ',
  ),
);

const isSpace = (code: number | undefined) =>
  code !== undefined && (code === 0 || code === 9 || code === 10 || code === 13 || code === 32);
const endsWord = (code: number | undefined) => code === undefined || isSpace(code);
