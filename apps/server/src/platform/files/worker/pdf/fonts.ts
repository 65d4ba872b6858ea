import { PDFDict, PDFHexString, PDFName, PDFNumber, PDFStream, PDFString, type PDFObject } from '@cantoo/pdf-lib';
import { bareCompact, bareOpenType, bareType1 } from './font-bytes.js';
import { redrawn } from './drawing.js';
import {
  dictOf,
  either,
  entriesOf,
  later,
  listOf,
  number,
  numbers,
  oneOf,
  type Copying,
  type Shape,
} from './shapes.js';
import { dataOf, plainBytes, streamFrom, wordsOf } from './streams.js';
import { bareTable } from './tables.js';

const key = (name: string) => PDFName.of(name);

/** Names of letters and of tables: words of a few signs. */
const glyph: Shape = (object) =>
  object instanceof PDFName && /^[\w.-]{1,63}$/.test(object.decodeText()) ? object : undefined;

const TABLES = /^(GBK?|CNS|B5|ETen|HK|Uni(GB|CNS|JIS|KS)|KSC|83pv|90|Add|EUC|Ext|78|H$|V$)[\w-]{0,24}$/;

const encoding: Shape = either(
  oneOf('MacRomanEncoding', 'WinAnsiEncoding', 'MacExpertEncoding', 'StandardEncoding', 'Identity-H', 'Identity-V'),
  // Of the tables that each reader has (ISO 32000-2, table 116).
  (object) => (object instanceof PDFName && TABLES.test(object.decodeText()) ? object : undefined),
  dictOf({
    BaseEncoding: oneOf('MacRomanEncoding', 'WinAnsiEncoding', 'MacExpertEncoding', 'StandardEncoding'),
    Differences: listOf(either(number, glyph)),
  }),
  wordsOf({ Type: oneOf('CMap'), UseCMap: later(() => encoding), WMode: number }, bareTable),
);

const toUnicode = either(oneOf('Identity-H', 'Identity-V'), wordsOf({}, bareTable));

const openType = dataOf({ Subtype: oneOf('OpenType', 'Type1C', 'CIDFontType0C') }, bareOpenType);
const compact = dataOf({ Subtype: oneOf('OpenType', 'Type1C', 'CIDFontType0C') }, (bytes) =>
  bytes[0] === 1 ? bareCompact(bytes) : bareOpenType(bytes),
);
const trueType: Shape = (object, copy) => {
  if (!(object instanceof PDFStream)) return undefined;
  const bytes = bareOpenType(plainBytes(object));
  return streamFrom(copy, copy.dict({ Length1: PDFNumber.of(bytes.length) }), bytes);
};
const type1: Shape = (object, copy) => {
  if (!(object instanceof PDFStream)) return undefined;
  const { bytes, open, closed } = bareType1(plainBytes(object));
  const lengths = { Length1: open, Length2: closed, Length3: bytes.length - open - closed };
  const dict = Object.fromEntries(Object.entries(lengths).map(([name, length]) => [name, PDFNumber.of(length)]));
  return streamFrom(copy, copy.dict(dict), bytes);
};

const DESCRIPTOR = {
  Type: oneOf('FontDescriptor'),
  FontStretch: oneOf(
    ...['UltraCondensed', 'ExtraCondensed', 'Condensed', 'SemiCondensed', 'Normal'],
    ...['SemiExpanded', 'Expanded', 'ExtraExpanded', 'UltraExpanded'],
  ),
  ...Object.fromEntries(
    (
      'FontWeight Flags ItalicAngle Ascent Descent Leading CapHeight XHeight StemV StemH AvgWidth MaxWidth ' +
      'MissingWidth'
    )
      .split(' ')
      .map((name) => [name, number]),
  ),
  FontBBox: numbers,
  FontFile: type1,
  FontFile2: trueType,
  FontFile3: either(compact, openType),
} as const;

/** Sets of signs whose names are the field's own. */
const collection: Shape = (object, copy) => {
  if (!(object instanceof PDFDict)) return undefined;
  const word = (name: string, known: RegExp, otherwise: string) => {
    const found = object.lookup(key(name));
    const text = found instanceof PDFString || found instanceof PDFHexString ? found.decodeText() : '';
    return PDFString.of(known.test(text) ? text : otherwise);
  };
  return copy.dict({
    Registry: word('Registry', /^Adobe$/, 'Adobe'),
    Ordering: word('Ordering', /^(Identity|Japan1|Japan2|GB1|CNS1|Korea1|KR|UCS)$/, 'Identity'),
    Supplement: copy.take(object.get(key('Supplement')), number) ?? PDFNumber.of(0),
  });
};

const EMBEDDED = ['FontFile', 'FontFile2', 'FontFile3'];
const FAMILIES: ReadonlyArray<readonly [RegExp, string]> = [
  [/symbol/i, 'Symbol'],
  [/dingbats/i, 'ZapfDingbats'],
  [/courier|mono|consol/i, 'Courier'],
  [/times|serif|roman|georgia|garamond|cambria|minion|book|palatino/i, 'Times'],
];

/** Letters that come with the file are called R; for others, the nearest of the fourteen that each reader has. */
function nameFor(written: string, descriptor: PDFObject | undefined): string {
  if (descriptor instanceof PDFDict && EMBEDDED.some((name) => descriptor.has(key(name)))) return 'R';
  const flags = descriptor instanceof PDFDict ? descriptor.lookup(key('Flags')) : undefined;
  const bits = flags instanceof PDFNumber ? flags.asNumber() : 0;
  const named = FAMILIES.find(([pattern]) => pattern.test(written))?.[1];
  const family = named ?? ((bits & 1) !== 0 ? 'Courier' : (bits & 2) !== 0 ? 'Times' : 'Helvetica');
  const bold = /bold|black|heavy/i.test(written);
  const italic = /italic|oblique/i.test(written);
  if (family === 'Times') return `Times-${bold ? (italic ? 'BoldItalic' : 'Bold') : italic ? 'Italic' : 'Roman'}`;
  if (family !== 'Courier' && family !== 'Helvetica') return family;
  return bold || italic ? `${family}-${bold ? 'Bold' : ''}${italic ? 'Oblique' : ''}` : family;
}

function named(dict: PDFDict, copy: Copying, keys: Readonly<Record<string, Shape>>): PDFDict {
  const made = entriesOf(dict, copy, keys);
  const base = dict.lookup(key('BaseFont'));
  const descriptor = dict.lookup(key('FontDescriptor'));
  const name = PDFName.of(nameFor(base instanceof PDFName ? base.decodeText() : '', descriptor));
  made.set(key('BaseFont'), name);
  if (descriptor instanceof PDFDict) {
    const told = entriesOf(descriptor, copy, DESCRIPTOR);
    told.set(key('FontName'), name);
    const ref = copy.to.nextRef();
    copy.to.assign(ref, told);
    made.set(key('FontDescriptor'), ref);
  }
  return made;
}

const SIMPLE = {
  Type: oneOf('Font'),
  Subtype: oneOf('Type1', 'MMType1', 'TrueType'),
  FirstChar: number,
  LastChar: number,
  Widths: numbers,
  Encoding: encoding,
  ToUnicode: toUnicode,
} as const;

const widths = listOf(either(number, numbers));
const DESCENDANT = {
  Type: oneOf('Font'),
  Subtype: oneOf('CIDFontType0', 'CIDFontType2'),
  CIDSystemInfo: collection,
  DW: number,
  W: widths,
  DW2: numbers,
  W2: widths,
  CIDToGIDMap: either(oneOf('Identity'), dataOf({})),
} as const;
const descendant: Shape = (object, copy) => (object instanceof PDFDict ? named(object, copy, DESCENDANT) : undefined);

const COMPOSED = {
  Type: oneOf('Font'),
  Subtype: oneOf('Type0'),
  Encoding: encoding,
  DescendantFonts: listOf(descendant),
  ToUnicode: toUnicode,
} as const;

const letter = wordsOf({}, redrawn);
const letters: Shape = (object, copy) => {
  if (!(object instanceof PDFDict)) return undefined;
  const known = object.entries().filter(([name]) => glyph(name, copy) !== undefined);
  return copy.dict(Object.fromEntries(known.map(([name, value]) => [name.decodeText(), copy.take(value, letter)])));
};

/** @param resources what letters that are drawings of their own may draw with */
export function fontWith(resources: Shape): Shape {
  const drawn = {
    ...SIMPLE,
    Subtype: oneOf('Type3'),
    FontBBox: numbers,
    FontMatrix: numbers,
    Resources: resources,
    CharProcs: letters,
  } as const;
  return (object, copy) => {
    if (!(object instanceof PDFDict)) return undefined;
    const kind = object.lookup(key('Subtype'));
    if (kind === key('Type3')) return entriesOf(object, copy, drawn);
    return named(object, copy, kind === key('Type0') ? COMPOSED : SIMPLE);
  };
}
