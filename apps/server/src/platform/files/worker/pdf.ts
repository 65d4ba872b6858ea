import { readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { countWords } from '@salt-circle/core';
import { PDFDocument } from '@cantoo/pdf-lib';
import type { Converted, Tell } from './converted.js';
import { Refused } from '../../bytes/refused.js';
import { rebuilt, webAddress } from './pdf/rebuild.js';
import { wordsBeside } from './pdf/words.js';
import { say } from '../../../words/files.js';

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
      throw new Refused(say('thisPdfIsProtectedBy'), say('saveItWithoutPasswordThen'));
    }
    throw new Refused(say('thisPdfIsDamagedSo'), say('exportItAgainFromProgram'));
  });
  const { numPages: pages } = document;
  const { info } = await document.getMetadata();
  await document.loadingTask.destroy();
  if ((info as { EncryptFilterName?: string | null }).EncryptFilterName != null) {
    throw new Refused(say('thisPdfIsProtectedAgainst'), say('exportItAgainWithoutProtection'));
  }
  if (pages === 0) throw new Refused(say('thisPdfHasNoPages'), say('exportItAgainFromProgram'));
  if (pages > MOST_PAGES) {
    throw new Refused(say('thisPdfHasPagesUp', { pages, mostpages: MOST_PAGES }), say('handInPartThatIs'));
  }
  return { pages };
}

/**
 * The same pages in a new file, built from what may be in it. What the copy shows is what is searched: fields and remarks that
 * are drawn into its pages are text of it.
 *
 * @throws Refused where none can be made
 */
export async function convertPdf(path: string, folder: string, tell: Tell): Promise<Converted> {
  const source = await PDFDocument.load(await readFile(path), {
    updateMetadata: false,
    throwOnInvalidObject: false,
    warnOnInvalidObjects: false,
  }).catch(() => {
    throw new Refused(...noCopy());
  });
  const beside = wordsBeside(source.context);
  drawFields(source);
  const { bytes, pages, addresses, bookmarks, remarks } = await rebuilt(source, (share) => tell(share * 0.5)).catch(
    () => {
      throw new Refused(...noCopy());
    },
  );
  const text = await textOf(bytes, pages, (share) => tell(0.5 + share * 0.5));
  await writeFile(join(folder, 'copy'), bytes);
  const shown = new Set([...addresses, ...bookmarks]);
  return {
    facts: { pages, words: countWords(text) },
    copyText: text,
    copyFile: 'copy',
    metadata: [
      ...beside.filter(({ value }) => !shown.has(webAddress(value) ?? value)),
      ...addresses.map((value) => ({ where: say('linkInPdf'), value, inCopy: true })),
      ...bookmarks.map((value) => ({ where: say('bookmarkOfPdf'), value, inCopy: true })),
    ],
    remarks,
  };
}

const noCopy = () => [say('copyWithoutNamesCouldNot'), say('exportItAgainOrPrint')] as const;

/** Programs may leave it to readers to draw what was filled in. */
function drawFields(source: PDFDocument): void {
  try {
    if (source.catalog.getAcroForm() !== undefined) source.getForm().updateFieldAppearances();
  } catch {
    // Signs that the usual letters do not have: the field is told of as one that is not drawn.
  }
}

/** @throws Refused for a copy with other pages than it should have */
async function textOf(bytes: Uint8Array, wanted: number, tell: Tell): Promise<string> {
  const document = await open(Buffer.from(bytes));
  if (document.numPages !== wanted) throw new Refused(...noCopy());
  const pages: string[] = [];
  for (let number = 1; number <= document.numPages; number += 1) {
    const page = await document.getPage(number);
    const { items } = await page.getTextContent();
    pages.push(items.map((item) => ('str' in item ? item.str + (item.hasEOL ? '\n' : '') : '')).join(''));
    page.cleanup();
    tell(number / document.numPages);
  }
  await document.loadingTask.destroy();
  return pages.join('\n\n');
}
