import { Tokens } from './tokens.js';

/** Blocks of a table of signs that map codes (Adobe Technical Note 5014, clause 7.2): lists of codes, numbers and names. */
const BLOCK = /^begin(codespacerange|bfchar|bfrange|cidchar|cidrange|notdefchar|notdefrange)$/;

/** A table of signs with its blocks alone, under a name that says nothing. */
export function bareTable(bytes: Uint8Array): Uint8Array {
  const tokens = new Tokens(bytes);
  const out = [
    '/CIDInit /ProcSet findresource begin 12 dict begin begincmap',
    '/CIDSystemInfo <</Registry (Adobe) /Ordering (UCS) /Supplement 0>> def /CMapName /R def /CMapType 2 def',
  ];
  let block: { readonly end: string; readonly words: string[] } | null = null;
  let before = '';
  for (let token = tokens.next(); token !== null; token = tokens.next()) {
    const { kind, text } = token;
    if (block === null) {
      const begins = BLOCK.exec(text);
      if (begins !== null)
        block = { end: `end${begins[1]}`, words: [`${/^\d+$/.test(before) ? before : '1'} ${text}`] };
      else if (text === 'def' && before === '1' && out.length === 2) out.push('/WMode 1 def');
      before = text;
    } else if (text === block.end) {
      out.push(...block.words, text);
      [block, before] = [null, ''];
    } else if (kind === 'string' || kind === 'number' || text === '[' || text === ']') block.words.push(text);
    else if (kind === 'name' && /^[\w.]{1,63}$/.test(text)) block.words.push(`/${text}`);
  }
  return Buffer.from([...out, 'endcmap end end'].join('\n'), 'latin1');
}

const CALCULATOR = new Set(
  (
    'abs add atan ceiling cos cvi cvr div exp floor idiv ln log mod mul neg round sin sqrt sub truncate and bitshift eq false ' +
    'ge gt le lt ne not or true xor if ifelse copy dup exch index pop roll'
  ).split(' '),
);

/** A calculating function with its own words only (ISO 32000-2, table 42). */
export function bareCalculator(bytes: Uint8Array): Uint8Array {
  const tokens = new Tokens(bytes);
  const words: string[] = [];
  for (let token = tokens.next(); token !== null; token = tokens.next()) {
    const { kind, text } = token;
    if (kind === 'number' || text === '{' || text === '}' || CALCULATOR.has(text)) words.push(text);
  }
  return Buffer.from(words.join(' '), 'latin1');
}
