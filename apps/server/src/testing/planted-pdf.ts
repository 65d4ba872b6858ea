import { deflateSync } from 'node:zlib';
import {
  PDFArray,
  PDFDict,
  PDFDocument,
  PDFHexString,
  PDFName,
  PDFRawStream,
  PDFStream,
  PDFString,
  StandardFonts,
  decodePDFRawStream,
  type PDFContext,
  type PDFObject,
} from '@cantoo/pdf-lib';
import sharp from 'sharp';

/** Where a word can stand in a PDF beside what its pages show (ISO 32000-2); each gets one of its own. */
export const PDF_PLACES = [
  'Info Author',
  'Info of somebody’s own',
  'trailer ID',
  'catalog Metadata',
  'catalog Names JavaScript',
  'catalog Names EmbeddedFiles',
  'catalog OpenAction',
  'catalog PieceInfo',
  'catalog PageLabels',
  'catalog StructTreeRoot Alt',
  'catalog StructTreeRoot ActualText',
  'catalog Perms',
  'catalog key of somebody’s own',
  'catalog Lang',
  'layer Name',
  'layer list Order',
  'page Metadata',
  'page PieceInfo',
  'page Thumb',
  'page key of somebody’s own',
  'content remark',
  'content marked ActualText',
  'content marked name',
  'content unknown operator',
  'content name of a resource',
  'content after the end of a stream',
  'remark T',
  'remark Contents',
  'remark Subj',
  'remark NM',
  'remark RC',
  'remark Popup',
  'attached file remark',
  'field T',
  'field TU',
  'field DV',
  'field MK CA hidden',
  'signature Name',
  'signature Reason',
  'signature Contents',
  'link to a mailbox',
  'link that runs a program',
  'named destination',
  'picture Exif',
  'picture XMP',
  'picture comment',
  'picture of a mask',
  'picture Metadata',
  'picture within a drawing',
  'picture JPEG 2000 box',
  'picture JPEG 2000 comment',
  'picture JBIG2 extension',
  'profile of colours',
  'name of an ink',
  'form PieceInfo',
  'form LastModified key',
  'pattern remark',
  'shading function remark',
  'font BaseFont',
  'font FontFamily',
  'font program name table',
  'font program compact notice',
  'font program Type 1 head',
  'font ToUnicode remark',
  'font CharSet',
  'object that nothing leads to',
  'behind the end of the file',
] as const;
export type PdfPlace = (typeof PDF_PLACES)[number];

export const wordOf = (place: PdfPlace) => `Sekrit${PDF_PLACES.indexOf(place) + 100}x`;

const name = (text: string) => PDFName.of(text);

/** A PDF of one page with a word in every place above, and "Seen on the page." in its text. */
export async function plantedPdf(): Promise<Buffer> {
  const pdf = await PDFDocument.create({ updateMetadata: false });
  const { context, catalog } = pdf;
  const put = (dict: PDFDict, entries: Record<string, PDFObject>) => {
    for (const [key, value] of Object.entries(entries)) dict.set(name(key), value);
  };
  const word = (place: PdfPlace) => PDFString.of(wordOf(place));
  const dict = (entries: Record<string, PDFObject>) => {
    const made = PDFDict.withContext(context);
    put(made, entries);
    return made;
  };
  const list = (...values: PDFObject[]) => {
    const made = PDFArray.withContext(context);
    values.forEach((value) => made.push(value));
    return made;
  };
  const n = (value: number) => context.obj(value);
  const stream = (bytes: Uint8Array | string, entries: Record<string, PDFObject> = {}) => {
    const body = typeof bytes === 'string' ? Buffer.from(bytes, 'latin1') : bytes;
    return context.register(PDFRawStream.of(dict(entries), body));
  };
  const xmp = (place: PdfPlace) =>
    stream(`<x:xmpmeta xmlns:x="adobe:ns:meta/">${wordOf(place)}</x:xmpmeta>`, {
      Type: name('Metadata'),
      Subtype: name('XML'),
    });
  const page = pdf.addPage([300, 300]);
  page.drawText('Seen on the page.', { x: 20, y: 250, size: 12, font: await pdf.embedFont(StandardFonts.Helvetica) });
  await pdf.flush();
  const { node } = page;

  pdf.setAuthor(wordOf('Info Author'));
  (context.lookup(context.trailerInfo.Info) as PDFDict).set(name('Group'), word('Info of somebody’s own'));
  context.trailerInfo.ID = list(word('trailer ID'), word('trailer ID'));
  const layer = context.register(dict({ Type: name('OCG'), Name: word('layer Name') }));
  put(catalog, {
    Metadata: xmp('catalog Metadata'),
    OpenAction: dict({ S: name('JavaScript'), JS: word('catalog OpenAction') }),
    PieceInfo: dict({ Program: dict({ Private: word('catalog PieceInfo') }) }),
    PageLabels: dict({ Nums: list(n(0), dict({ P: word('catalog PageLabels') })) }),
    StructTreeRoot: dict({
      Type: name('StructTreeRoot'),
      K: dict({
        S: name('Figure'),
        Alt: word('catalog StructTreeRoot Alt'),
        ActualText: word('catalog StructTreeRoot ActualText'),
      }),
    }),
    Perms: dict({ DocMDP: dict({ Name: word('catalog Perms') }) }),
    Sekrit: word('catalog key of somebody’s own'),
    Lang: word('catalog Lang'),
    OCProperties: dict({ OCGs: list(layer), D: dict({ Order: list(word('layer list Order'), layer) }) }),
    Names: dict({
      JavaScript: dict({
        Names: list(PDFString.of('a'), dict({ S: name('JavaScript'), JS: word('catalog Names JavaScript') })),
      }),
      EmbeddedFiles: dict({
        Names: list(
          word('catalog Names EmbeddedFiles'),
          dict({ Type: name('Filespec'), UF: word('catalog Names EmbeddedFiles') }),
        ),
      }),
      Dests: dict({ Names: list(word('named destination'), list(page.ref, name('Fit'))) }),
    }),
  });

  const exif = await sharp({ create: { width: 8, height: 8, channels: 3, background: '#888' } })
    .withExif({ IFD0: { Artist: wordOf('picture Exif') } })
    .withXmp(`<x:xmpmeta xmlns:x="adobe:ns:meta/">${wordOf('picture XMP')}</x:xmpmeta>`)
    .jpeg()
    .toBuffer();
  const comment = (place: PdfPlace) => {
    const words = Buffer.from(wordOf(place));
    return Buffer.concat([Buffer.from([0xff, 0xd8, 0xff, 0xfe, 0, words.length + 2]), words, exif.subarray(2)]);
  };
  const jpeg = (bytes: Uint8Array, more: Record<string, PDFObject> = {}) =>
    stream(bytes, {
      ...{ Type: name('XObject'), Subtype: name('Image'), Width: n(8), Height: n(8), BitsPerComponent: n(8) },
      ...{ ColorSpace: name('DeviceRGB'), Filter: name('DCTDecode'), ...more },
    });
  const profiled = list(name('ICCBased'), stream(`profile ${wordOf('profile of colours')}`, { N: n(3) }));
  const tint = dict({ FunctionType: n(2), Domain: list(n(0), n(1)), C0: list(n(1)), C1: list(n(0)), N: n(1) });
  const packed = (filter: string, bytes: Uint8Array) =>
    stream(bytes, {
      Type: name('XObject'),
      Subtype: name('Image'),
      Width: n(1),
      Height: n(1),
      ColorSpace: name('DeviceGray'),
      BitsPerComponent: n(8),
      Filter: name(filter),
    });
  const form = stream(`${'0 0 5 5 re f'}`, {
    Type: name('XObject'),
    Subtype: name('Form'),
    BBox: list(n(0), n(0), n(9), n(9)),
    PieceInfo: dict({ Program: dict({ Private: word('form PieceInfo') }) }),
    SekritKey: word('form LastModified key'),
  });
  const calculator = stream(`{ % ${wordOf('shading function remark')}\n dup dup }`, {
    FunctionType: n(4),
    Domain: list(n(0), n(1)),
    Range: list(n(0), n(1), n(0), n(1), n(0), n(1)),
  });
  const resourceName = wordOf('content name of a resource');
  const fonts = {
    Open: font(
      'TrueType',
      { FontFile2: stream(openTypeWith(wordOf('font program name table'))) },
      wordOf('font BaseFont'),
    ),
    Compact: font(
      'Type1',
      { FontFile3: stream(compactWith(wordOf('font program compact notice')), { Subtype: name('Type1C') }) },
      'Compact',
    ),
    Old: font(
      'Type1',
      {
        FontFile: stream(
          `%!PS-AdobeFont-1.0: ${wordOf('font program Type 1 head')}\n/FontMatrix [0.001 0 0 0.001 0 0] def\ncurrentfile eexec\n\x80\x81\x82\x83`,
        ),
      },
      'Old',
    ),
  };
  function font(kind: string, program: Record<string, PDFObject>, called: string) {
    return context.register(
      dict({
        ...{
          Type: name('Font'),
          Subtype: name(kind),
          BaseFont: name(called),
          FirstChar: n(65),
          LastChar: n(65),
          Widths: list(n(500)),
        },
        ToUnicode: stream(`% ${wordOf('font ToUnicode remark')}\n1 beginbfchar\n<41> <0041>\nendbfchar`),
        FontDescriptor: context.register(
          dict({
            Type: name('FontDescriptor'),
            FontName: name(called),
            FontFamily: word('font FontFamily'),
            CharSet: word('font CharSet'),
            Flags: n(32),
            ...program,
          }),
        ),
      }),
    );
  }
  put(node, {
    Metadata: xmp('page Metadata'),
    PieceInfo: dict({ Program: dict({ Private: word('page PieceInfo') }) }),
    Thumb: stream(wordOf('page Thumb')),
    SekritPage: word('page key of somebody’s own'),
  });
  const resources = node.Resources() as PDFDict;
  const old = resources.lookup(name('Font')) as PDFDict;
  put(old, { [resourceName]: fonts.Open, F8: fonts.Compact, F9: fonts.Old });
  put(resources, {
    XObject: dict({
      Photo: jpeg(comment('picture comment'), {
        Metadata: xmp('picture Metadata'),
        ColorSpace: profiled,
        SMask: jpeg(comment('picture of a mask')),
      }),
      Two: packed('JPXDecode', jpeg2000()),
      Bi: packed('JBIG2Decode', jbig2()),
      Form: form,
    }),
    ColorSpace: dict({ Ink: list(name('Separation'), name(wordOf('name of an ink')), name('DeviceGray'), tint) }),
    Properties: dict({ L: layer }),
    Pattern: dict({
      P: stream(`% ${wordOf('pattern remark')}\n0 0 1 1 re f`, {
        PatternType: n(1),
        PaintType: n(1),
        TilingType: n(1),
        BBox: list(n(0), n(0), n(1), n(1)),
        XStep: n(1),
        YStep: n(1),
        Resources: dict({}),
      }),
    }),
    Shading: dict({
      S: dict({
        ShadingType: n(2),
        ColorSpace: name('DeviceRGB'),
        Coords: list(n(0), n(0), n(1), n(1)),
        Function: calculator,
      }),
    }),
  });
  const drawing = Buffer.concat([
    Buffer.from(
      `% ${wordOf('content remark')}\n/Span <</ActualText (${wordOf('content marked ActualText')})>> BDC /${wordOf('content marked name')} BMC ` +
        `/OC /L BDC q 8 0 0 8 9 9 cm /Photo Do Q EMC EMC EMC (${wordOf('content unknown operator')}) sekrit /Two Do /Bi Do /Form Do /S sh ` +
        `/Ink cs 1 scn /Pattern cs /P scn 1 1 2 2 re f BT /${resourceName} 9 Tf 5 5 Td (A) Tj /F8 9 Tf (A) Tj /F9 9 Tf (A) Tj ET\n` +
        'BI /W 8 /H 8 /BPC 8 /CS /RGB /F /DCT ID ',
      'latin1',
    ),
    comment('picture within a drawing'),
    Buffer.from('\nEI\nq Q\n'),
  ]);
  const contents = node.lookup(name('Contents'));
  const first = contents instanceof PDFArray ? contents.asArray() : [node.get(name('Contents')) as PDFObject];
  const hidden = stream(
    Buffer.concat([deflateSync(drawing), Buffer.from(wordOf('content after the end of a stream'))]),
    { Filter: name('FlateDecode') },
  );
  node.set(name('Contents'), list(...first, hidden));

  const rect = list(n(10), n(10), n(40), n(20));
  const appearance = dict({
    N: stream('0 0 1 1 re f', { Type: name('XObject'), Subtype: name('Form'), BBox: list(n(0), n(0), n(1), n(1)) }),
  });
  const field = context.register(
    dict({
      ...{ Type: name('Annot'), Subtype: name('Widget'), FT: name('Tx'), Rect: rect, AP: appearance },
      ...{
        T: word('field T'),
        TU: word('field TU'),
        DV: word('field DV'),
        MK: dict({ CA: word('field MK CA hidden') }),
      },
    }),
  );
  const signature = context.register(
    dict({
      ...{ Type: name('Annot'), Subtype: name('Widget'), FT: name('Sig'), Rect: rect, AP: appearance },
      V: dict({
        Type: name('Sig'),
        Name: word('signature Name'),
        Reason: word('signature Reason'),
        Contents: word('signature Contents'),
      }),
    }),
  );
  catalog.set(name('AcroForm'), dict({ Fields: list(field, signature) }));
  const link = (action: Record<string, PDFObject>) =>
    dict({ Type: name('Annot'), Subtype: name('Link'), Rect: rect, A: dict(action) });
  node.set(
    name('Annots'),
    list(
      dict({
        ...{
          Type: name('Annot'),
          Subtype: name('Text'),
          Rect: rect,
          AP: appearance,
          T: word('remark T'),
          NM: word('remark NM'),
        },
        ...{ Contents: word('remark Contents'), Subj: word('remark Subj'), RC: word('remark RC') },
        Popup: dict({ Type: name('Annot'), Subtype: name('Popup'), Rect: rect, Contents: word('remark Popup') }),
      }),
      dict({
        Type: name('Annot'),
        Subtype: name('FileAttachment'),
        Rect: rect,
        Contents: word('attached file remark'),
      }),
      field,
      signature,
      link({ S: name('URI'), URI: PDFString.of(`mailto:${wordOf('link to a mailbox')}@uni.example`) }),
      link({ S: name('Launch'), F: word('link that runs a program') }),
      link({ S: name('GoTo'), D: word('named destination') }),
      link({ S: name('URI'), URI: PDFString.of('https://example.org/gauge') }),
    ),
  );
  context.register(dict({ Old: word('object that nothing leads to') }));
  const bytes = await pdf.save({ useObjectStreams: false, addDefaultPage: false, updateFieldAppearances: false });
  return Buffer.concat([bytes, Buffer.from(`\n% ${wordOf('behind the end of the file')}\n`)]);
}

/** A whole picture in JPEG 2000 is not needed: its boxes and markers are what is cleaned. */
function jpeg2000(): Uint8Array {
  const box = (kind: string, ...parts: Uint8Array[]) => {
    const body = Buffer.concat(parts);
    const head = Buffer.alloc(8);
    head.writeUInt32BE(body.length + 8);
    head.write(kind, 4, 'latin1');
    return Buffer.concat([head, body]);
  };
  const words = Buffer.from(wordOf('picture JPEG 2000 comment'));
  const code = Buffer.concat([
    Buffer.from([0xff, 0x4f, 0xff, 0x64, 0, words.length + 4, 0, 1]),
    words,
    Buffer.from([0xff, 0x90, 0, 2]),
  ]);
  return Buffer.concat([
    box('jP  ', Buffer.from([13, 10, 135, 10])),
    box('ftyp', Buffer.from('jp2 \0\0\0\0jp2 ')),
    box('xml ', Buffer.from(wordOf('picture JPEG 2000 box'))),
    box('jp2c', code),
  ]);
}

function jbig2(): Uint8Array {
  const words = Buffer.from(wordOf('picture JBIG2 extension'));
  const segment = (kind: number, body: Uint8Array) => {
    const head = Buffer.alloc(11);
    head[4] = kind;
    head.writeUInt32BE(body.length, 7);
    return Buffer.concat([head, body]);
  };
  return Buffer.concat([segment(48, Buffer.alloc(19)), segment(62, words)]);
}

/** The least program of letters with a table of names. */
function openTypeWith(words: string): Uint8Array {
  const tables: Array<[string, Buffer]> = [
    ['head', Buffer.alloc(54)],
    ['name', Buffer.from(words)],
    ['glyf', Buffer.alloc(4)],
  ];
  const head = Buffer.alloc(12 + tables.length * 16);
  head.writeUInt32BE(0x00010000, 0);
  head.writeUInt16BE(tables.length, 4);
  let at = head.length;
  tables.forEach(([tag, bytes], index) => {
    head.write(tag, 12 + index * 16, 'latin1');
    head.writeUInt32BE(at, 20 + index * 16);
    head.writeUInt32BE(bytes.length, 24 + index * 16);
    at += bytes.length;
  });
  return Buffer.concat([head, ...tables.map(([, bytes]) => bytes)]);
}

/** Head, name, top dictionary that has a notice (operator 1) as string 391, and that string. */
function compactWith(words: string): Uint8Array {
  const index = (body: Buffer) => Buffer.concat([Buffer.from([0, 1, 1, 1, body.length + 1]), body]);
  const notice = Buffer.from([28, 391 >> 8, 391 & 255, 1]);
  return Buffer.concat([
    Buffer.from([1, 0, 4, 1]),
    index(Buffer.from('AName')),
    index(notice),
    index(Buffer.from(words)),
    Buffer.from([0, 0]),
  ]);
}

/** All that the bytes of a PDF say, unpacked, and strings in whatever way they are written. */
export async function sayingsOf(bytes: Uint8Array): Promise<string> {
  const { context } = await PDFDocument.load(bytes, { updateMetadata: false });
  return [Buffer.from(bytes).toString('latin1'), ...everything(context)].join('\n');
}

function* everything(context: PDFContext): Generator<string> {
  const open: PDFObject[] = context.enumerateIndirectObjects().map(([, object]) => object);
  for (let object = open.pop(); object !== undefined; object = open.pop()) {
    if (object instanceof PDFString || object instanceof PDFHexString) {
      yield object.decodeText();
      yield Buffer.from(object.asBytes()).toString('latin1');
    } else if (object instanceof PDFName) yield object.decodeText();
    else if (object instanceof PDFArray) open.push(...object.asArray());
    else if (object instanceof PDFDict) {
      for (const [key, value] of object.entries()) open.push(key, value);
    } else if (object instanceof PDFStream) {
      open.push(object.dict);
      yield Buffer.from(object.getContents()).toString('latin1');
      if (object instanceof PDFRawStream) yield unpackedText(object);
    }
  }
}

function unpackedText(stream: PDFRawStream): string {
  try {
    return Buffer.from(decodePDFRawStream(stream).decode()).toString('latin1');
  } catch {
    return '';
  }
}
