import { PDFArray, PDFDict, PDFName, PDFNumber, PDFRawStream, PDFStream, PDFString } from '@cantoo/pdf-lib';
import { redrawn } from './drawing.js';
import { fontWith } from './fonts.js';
import { barePicture } from './picture-bytes.js';
import {
  bool,
  bytes,
  dictOf,
  either,
  entriesOf,
  later,
  listOf,
  number,
  numbers,
  oneOf,
  resourcesOf,
  type Copying,
  type Shape,
} from './shapes.js';
import { dataOf, streamFrom, unpacked, wordsOf } from './streams.js';
import { bareCalculator } from './tables.js';

const key = (name: string) => PDFName.of(name);

const font = fontWith(later(() => resources));

const spline: Shape = later(() => calculation);
const calculation: Shape = either(
  dictOf({
    FunctionType: number,
    Domain: numbers,
    Range: numbers,
    C0: numbers,
    C1: numbers,
    N: number,
    Functions: listOf(spline),
    Bounds: numbers,
    Encode: numbers,
  }),
  (object, copy) => {
    const kind = object instanceof PDFStream ? object.dict.lookup(key('FunctionType')) : undefined;
    return (kind instanceof PDFNumber && kind.asNumber() === 4 ? program : samples)(object, copy);
  },
);
const FUNCTION = { FunctionType: number, Domain: numbers, Range: numbers } as const;
const program = wordsOf(FUNCTION, bareCalculator);
const samples = dataOf({
  ...FUNCTION,
  Size: numbers,
  BitsPerSample: number,
  Order: number,
  Encode: numbers,
  Decode: numbers,
});
const functions = either(listOf(calculation), calculation);

const BY_CHANNELS: Readonly<Record<number, string>> = { 1: 'DeviceGray', 3: 'DeviceRGB', 4: 'DeviceCMYK' };

/** Colours: a profile names the screen or camera it was made for, so the plain space of as many channels stands for it. */
const space: Shape = either(
  oneOf('DeviceGray', 'DeviceRGB', 'DeviceCMYK', 'Pattern'),
  (object, copy) => (object instanceof PDFName ? PDFName.of(copy.renamed(object.decodeText())) : undefined),
  (object, copy) => {
    if (!(object instanceof PDFArray)) return undefined;
    const kind = object.lookup(0);
    if (!(kind instanceof PDFName)) return undefined;
    const at = (index: number, shape: Shape) => copy.take(object.get(index), shape);
    const list = (...parts: ReadonlyArray<ReturnType<Shape>>) =>
      parts.every((part) => part !== undefined) ? copy.list([kind, ...parts]) : undefined;
    switch (kind.decodeText()) {
      case 'DeviceGray':
      case 'DeviceRGB':
      case 'DeviceCMYK':
        return kind;
      case 'ICCBased':
        return profiled(object.lookup(1), copy);
      case 'CalGray':
      case 'CalRGB':
      case 'Lab':
        return list(
          at(
            1,
            dictOf({
              WhitePoint: numbers,
              BlackPoint: numbers,
              Gamma: either(number, numbers),
              Matrix: numbers,
              Range: numbers,
            }),
          ),
        );
      case 'Indexed':
      case 'I':
        return list(at(1, nested), at(2, number), at(3, either(bytes, dataOf({}))));
      case 'Separation':
        return list(colourant(object.lookup(1)), at(2, nested), at(3, calculation));
      case 'DeviceN': {
        const names = object.lookup(1);
        const told = names instanceof PDFArray ? names.asArray().map((_, index) => colourant(names.lookup(index))) : [];
        return list(copy.list(told), at(2, nested), at(3, calculation));
      }
      case 'Pattern':
        return object.size() === 1 ? kind : list(at(1, nested));
      default:
        return undefined;
    }
  },
);
const nested: Shape = later(() => space);

function profiled(profile: unknown, copy: Copying) {
  if (!(profile instanceof PDFStream)) return undefined;
  const alternate = profile.dict.lookup(key('Alternate'));
  if (alternate instanceof PDFArray && alternate.lookup(0) === key('Lab')) return space(alternate, copy);
  const channels = profile.dict.lookup(key('N'));
  const name = BY_CHANNELS[channels instanceof PDFNumber ? channels.asNumber() : 0];
  return name === undefined ? undefined : PDFName.of(name);
}

/** Inks of presses are called by anything; two names mean something by themselves. */
function colourant(name: unknown): PDFName {
  return name instanceof PDFName && (name === key('All') || name === key('None')) ? name : PDFName.of('Ink');
}

const layer: Shape = (object, copy) => {
  if (!(object instanceof PDFDict)) return undefined;
  const kind = object.lookup(key('Type'));
  if (kind === key('OCG')) return copy.dict({ Type: key('OCG'), Name: PDFString.of('Layer') });
  if (kind !== key('OCMD')) return undefined;
  return entriesOf(object, copy, {
    Type: oneOf('OCMD'),
    OCGs: either(layer, listOf(layer)),
    P: oneOf('AllOn', 'AnyOn', 'AnyOff', 'AllOff'),
  });
};

/** Which layers show at first; their names, and what a program lists of them, stay behind. */
export const layers: Shape = dictOf({
  OCGs: listOf(layer),
  D: dictOf({ BaseState: oneOf('ON', 'OFF', 'Unchanged'), ON: listOf(layer), OFF: listOf(layer) }),
});

const PICTURE = {
  Type: oneOf('XObject'),
  Subtype: oneOf('Image'),
  Width: number,
  Height: number,
  ColorSpace: space,
  BitsPerComponent: number,
  Intent: oneOf('AbsoluteColorimetric', 'RelativeColorimetric', 'Saturation', 'Perceptual'),
  ImageMask: bool,
  Mask: either(
    numbers,
    later(() => picture),
  ),
  Decode: numbers,
  Interpolate: bool,
  SMask: later(() => picture),
  SMaskInData: number,
  Matte: numbers,
  OC: layer,
} as const;
const PACKED = {
  K: number,
  EndOfLine: bool,
  EncodedByteAlign: bool,
  Columns: number,
  Rows: number,
  EndOfBlock: bool,
  BlackIs1: bool,
  DamagedRowsBeforeError: number,
  ColorTransform: number,
  JBIG2Globals: dataOf({}, (bytes) => barePicture('JBIG2Decode', bytes)),
} as const;

const picture: Shape = (object, copy) => {
  if (!(object instanceof PDFStream)) return undefined;
  const { bytes: content, picture: filter, predictor } = unpacked(object);
  const dict = entriesOf(object.dict, copy, PICTURE);
  if (filter === null) return streamFrom(copy, dict, content, predictor);
  dict.set(key('Filter'), key(filter.name));
  if (filter.parms !== undefined) dict.set(key('DecodeParms'), entriesOf(filter.parms, copy, PACKED));
  return PDFRawStream.of(dict, barePicture(filter.name, content));
};

const group = dictOf({ S: oneOf('Transparency'), CS: space, I: bool, K: bool });
const form = wordsOf(
  {
    Type: oneOf('XObject'),
    Subtype: oneOf('Form'),
    BBox: numbers,
    Matrix: numbers,
    Resources: later(() => resources),
    Group: group,
    OC: layer,
  },
  redrawn,
);
/** Something that is drawn by its name: a picture, or a drawing of its own. */
export const drawable: Shape = (object, copy) => {
  const kind = object instanceof PDFStream ? object.dict.lookup(key('Subtype')) : undefined;
  if (kind === key('Image')) return picture(object, copy);
  return kind === key('Form') || kind === undefined ? form(object, copy) : undefined;
};

const SHADING = {
  ShadingType: number,
  ColorSpace: space,
  Background: numbers,
  BBox: numbers,
  AntiAlias: bool,
  Domain: numbers,
  Matrix: numbers,
  Function: functions,
  Coords: numbers,
  Extend: listOf(bool),
  BitsPerCoordinate: number,
  BitsPerComponent: number,
  BitsPerFlag: number,
  Decode: numbers,
  VerticesPerRow: number,
} as const;
const shading = either(dictOf(SHADING), dataOf(SHADING));

const BLENDS = oneOf(
  ...['Normal', 'Compatible', 'Multiply', 'Screen', 'Overlay', 'Darken', 'Lighten', 'ColorDodge', 'ColorBurn'],
  ...['HardLight', 'SoftLight', 'Difference', 'Exclusion', 'Hue', 'Saturation', 'Color', 'Luminosity'],
);
const state = dictOf({
  ...Object.fromEntries('LW LC LJ ML FL SM CA ca OPM'.split(' ').map((name) => [name, number])),
  ...Object.fromEntries('SA AIS TK OP op'.split(' ').map((name) => [name, bool])),
  D: listOf(either(number, numbers)),
  RI: oneOf('AbsoluteColorimetric', 'RelativeColorimetric', 'Saturation', 'Perceptual'),
  Font: listOf(either(number, font)),
  BM: either(BLENDS, listOf(BLENDS)),
  SMask: either(
    oneOf('None'),
    dictOf({ S: oneOf('Alpha', 'Luminosity'), G: form, BC: numbers, TR: either(oneOf('Identity'), calculation) }),
  ),
});

const pattern = either(
  wordsOf(
    {
      PatternType: number,
      PaintType: number,
      TilingType: number,
      BBox: numbers,
      XStep: number,
      YStep: number,
      Resources: later(() => resources),
      Matrix: numbers,
    },
    redrawn,
  ),
  dictOf({ PatternType: number, Shading: shading, Matrix: numbers, ExtGState: state }),
);

export const drawables = resourcesOf(drawable);

export const resources: Shape = dictOf({
  ExtGState: resourcesOf(state),
  ColorSpace: resourcesOf(space),
  Pattern: resourcesOf(pattern),
  Shading: resourcesOf(shading),
  XObject: drawables,
  Font: resourcesOf(font),
  Properties: resourcesOf(layer),
});

/** What a page has besides its drawing, its links, and its parent. */
export const PAGE = {
  MediaBox: numbers,
  CropBox: numbers,
  Rotate: number,
  UserUnit: number,
  Resources: resources,
  Group: group,
} as const;
