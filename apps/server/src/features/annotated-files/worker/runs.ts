import type { PageRun } from '@salt-circle/core';
import type { PDFDocumentProxy } from 'pdfjs-dist';

/** Nothing of a file is run, and nothing is fetched for it. */
const CAREFUL = {
  ...{ isEvalSupported: false, disableFontFace: true, useSystemFonts: false, stopAtErrors: false, verbosity: 0 },
} as const;

/** @throws what PDF.js throws for what is damaged or locked */
export async function opened(bytes: Uint8Array): Promise<PDFDocumentProxy> {
  const { getDocument } = await import('pdfjs-dist/legacy/build/pdf.mjs');
  // It takes the bytes for itself.
  return getDocument({ data: new Uint8Array(bytes), ...CAREFUL }).promise;
}

export interface Run extends PageRun {
  /** From its letters to the page. */
  readonly transform: readonly number[];
  /** Of its letters, along the line. */
  readonly width: number;
}

/** Runs of pages, each read once. */
export class Texts {
  readonly #runs = new Map<number, Promise<Run[]>>();

  constructor(private readonly reading: PDFDocumentProxy) {}

  get count(): number {
    return this.reading.numPages;
  }

  /** @param page from 1 */
  runs(page: number): Promise<Run[]> {
    const known = this.#runs.get(page);
    if (known !== undefined) return known;
    const runs = this.#read(page);
    this.#runs.set(page, runs);
    return runs;
  }

  async #read(page: number): Promise<Run[]> {
    const { items } = await (await this.reading.getPage(page)).getTextContent();
    return items.flatMap((item): Run[] =>
      'str' in item
        ? [{ str: item.str, hasEOL: item.hasEOL, transform: item.transform as number[], width: item.width }]
        : [],
    );
  }
}
