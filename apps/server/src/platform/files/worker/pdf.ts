import { readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { countWords } from '@salt-circle/core';
import {
  PDFArray,
  PDFDict,
  PDFDocument,
  PDFHexString,
  PDFName,
  PDFRawStream,
  PDFRef,
  PDFStream,
  PDFString,
  type PDFContext,
  type PDFObject,
} from 'pdf-lib';
import type { FoundMetadata } from '../../../model/stored-file.js';
import type { Converted, Tell } from './converted.js';
import { Refused } from '../../bytes/refused.js';

/** More than any draft that classmates are asked to read. */
export const MOST_PAGES = 1_000;

async function open(bytes: Buffer) {
  const { getDocument } = await import('pdfjs-dist/legacy/build/pdf.mjs');
  return getDocument({
    data: new Uint8Array(bytes),
    isEvalSupported: false,
    disableFontFace: true,
    useSystemFonts: false,
    stopAtErrors: false,
    verbosity: 0,
  }).promise;
}

/** @throws Refused for a PDF that is protected, broken or too long */
export async function inspectPdf(path: string): Promise<{ pages: number }> {
  const document = await open(await readFile(path)).catch((error: Error) => {
    if (error.name === 'PasswordException') {
      throw new Refused(
        'This PDF is protected by a password, so nobody could read it.',
        'Save it without a password, then hand in that.',
      );
    }
    throw new Refused(
      'This PDF is damaged, so it cannot be read.',
      'Export it again from the program it was made with.',
    );
  });
  const { numPages: pages } = document;
  const { info } = await document.getMetadata();
  await document.loadingTask.destroy();
  if ((info as { EncryptFilterName?: string | null }).EncryptFilterName != null) {
    throw new Refused(
      'This PDF is protected against changes, so a copy without names cannot be made.',
      'Export it again without protection.',
    );
  }
  if (pages === 0) throw new Refused('This PDF has no pages.', 'Export it again from the program it was made with.');
  if (pages > MOST_PAGES) {
    throw new Refused(
      `This PDF has ${pages} pages; up to ${MOST_PAGES} are taken.`,
      'Hand in the part that is to be reviewed.',
    );
  }
  return { pages };
}

/** The same pages without metadata, scripts and attachments. @throws Refused where none can be made */
export async function convertPdf(path: string, folder: string, tell: Tell): Promise<Converted> {
  const bytes = await readFile(path);
  const { text, metadata } = await textOf(bytes, (share) => tell(share * 0.7));
  const clean = await cleanPdf(bytes);
  await writeFile(join(folder, 'copy'), clean.bytes);
  return {
    facts: { pages: clean.pages, words: countWords(text) },
    copyText: text,
    copyFile: 'copy',
    metadata: [...metadata, ...clean.metadata],
  };
}

async function textOf(bytes: Buffer, tell: Tell): Promise<{ text: string; metadata: FoundMetadata[] }> {
  const document = await open(bytes);
  const pages: string[] = [];
  for (let number = 1; number <= document.numPages; number += 1) {
    const page = await document.getPage(number);
    const { items } = await page.getTextContent();
    pages.push(items.map((item) => ('str' in item ? item.str + (item.hasEOL ? '\n' : '') : '')).join(''));
    page.cleanup();
    tell(number / document.numPages);
  }
  const { info, metadata } = await document.getMetadata();
  const properties = info as Readonly<Record<string, unknown>>;
  const named = (where: string, value: unknown): FoundMetadata[] =>
    typeof value === 'string' && value.trim() !== '' ? [{ where, value: value.trim() }] : [];
  const xmp = metadata as { get(name: string): unknown } | null;
  const creators = xmp?.get('dc:creator');
  const found = [
    ...named('author in the PDF’s properties', properties['Author']),
    ...named('title in the PDF’s properties', properties['Title']),
    ...named('subject in the PDF’s properties', properties['Subject']),
    ...named('keywords in the PDF’s properties', properties['Keywords']),
    ...(Array.isArray(creators) ? creators : [creators]).flatMap((one) => named('creator in the PDF’s XMP', one)),
  ];
  await document.loadingTask.destroy();
  return { text: pages.join('\n\n'), metadata: found };
}

/** Things that run or lead elsewhere, and private data of programs. */
const CATALOG_KEYS = [
  'Metadata',
  'OpenAction',
  'AA',
  'PieceInfo',
  'Names',
  'AF',
  'Collection',
  'JT',
  'URI',
  'SpiderInfo',
];
const PAGE_KEYS = ['Metadata', 'PieceInfo', 'AA', 'LastModified', 'AF', 'B'];

/** The same pages without properties, XMP, attachments, scripts, authors of remarks, and what earlier savings left behind. */
async function cleanPdf(bytes: Buffer): Promise<{ bytes: Uint8Array; pages: number; metadata: FoundMetadata[] }> {
  const pdf = await PDFDocument.load(bytes, { updateMetadata: false, throwOnInvalidObject: false }).catch(() => {
    throw new Refused(
      'A copy without names could not be made of this PDF.',
      'Export it again, or print it into a new PDF.',
    );
  });
  const { context, catalog } = pdf;
  const metadata: FoundMetadata[] = [];
  for (const key of CATALOG_KEYS) catalog.delete(PDFName.of(key));
  for (const { node } of pdf.getPages()) {
    for (const key of PAGE_KEYS) node.delete(PDFName.of(key));
    cleanRemarks(node.lookupMaybe(PDFName.of('Annots'), PDFArray), metadata);
  }
  if (context.trailerInfo.Info instanceof PDFRef) context.delete(context.trailerInfo.Info);
  delete context.trailerInfo.Info;
  delete context.trailerInfo.ID;
  for (const [ref, object] of context.enumerateIndirectObjects()) {
    const dict = object instanceof PDFRawStream || object instanceof PDFStream ? object.dict : null;
    dict?.delete(PDFName.of('Metadata'));
    dict?.delete(PDFName.of('PieceInfo'));
    if (dict?.lookup(PDFName.of('Type')) === PDFName.of('Metadata')) context.delete(ref);
  }
  dropUnreachable(context);
  return {
    bytes: await pdf.save({ useObjectStreams: true, addDefaultPage: false, updateFieldAppearances: false }),
    pages: pdf.getPageCount(),
    metadata,
  };
}

function cleanRemarks(remarks: PDFArray | undefined, metadata: FoundMetadata[]): void {
  if (remarks === undefined) return;
  for (let index = remarks.size() - 1; index >= 0; index -= 1) {
    const remark = remarks.lookupMaybe(index, PDFDict);
    if (remark === undefined) continue;
    const kind = remark.lookup(PDFName.of('Subtype'));
    const author = remark.lookup(PDFName.of('T'));
    // In a form field T is its name, which the field needs.
    if (kind !== PDFName.of('Widget')) {
      if (author instanceof PDFString || author instanceof PDFHexString) {
        metadata.push({ where: 'author of a remark', value: author.decodeText() });
      }
      for (const key of ['T', 'M', 'CreationDate', 'NM', 'RC']) remark.delete(PDFName.of(key));
    }
    if (kind === PDFName.of('FileAttachment') || !isPlainLink(remark)) remarks.remove(index);
  }
}

/** Links may lead to web and mail addresses and within the document; anything else an action does is taken out. */
function isPlainLink(remark: PDFDict): boolean {
  remark.delete(PDFName.of('AA'));
  const action = remark.lookup(PDFName.of('A'));
  if (!(action instanceof PDFDict)) return true;
  const kind = action.lookup(PDFName.of('S'));
  return kind === PDFName.of('URI') || kind === PDFName.of('GoTo');
}

/** An object that nothing refers to would still be written: earlier states of the file, with names in them. */
function dropUnreachable(context: PDFContext): void {
  const seen = new Set<PDFRef>();
  const open: PDFObject[] = [context.trailerInfo.Root as PDFObject];
  for (let object = open.pop(); object !== undefined; object = open.pop()) {
    if (object instanceof PDFRef) {
      if (seen.has(object)) continue;
      seen.add(object);
      const target = context.lookup(object);
      if (target !== undefined) open.push(target);
    } else if (object instanceof PDFArray) open.push(...object.asArray());
    else if (object instanceof PDFDict) open.push(...object.values());
    else if (object instanceof PDFStream) open.push(object.dict);
  }
  for (const [ref] of context.enumerateIndirectObjects()) if (!seen.has(ref)) context.delete(ref);
}
