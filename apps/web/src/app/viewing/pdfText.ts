import type { PageRun } from '@salt-circle/core';
import type { PDFDocumentProxy, PDFPageProxy } from './pdf.js';

type Content = Awaited<ReturnType<PDFPageProxy['getTextContent']>>;

/** The words of a PDF, page by page; each page is read once. */
export class PdfTexts {
  readonly #pages = new Map<number, Promise<Content>>();

  constructor(private readonly pdf: PDFDocumentProxy) {}

  get count(): number {
    return this.pdf.numPages;
  }

  /** @param page from 1 */
  content(page: number): Promise<Content> {
    const known = this.#pages.get(page);
    if (known !== undefined) return known;
    const content = this.pdf.getPage(page).then((one) => one.getTextContent());
    this.#pages.set(page, content);
    // What failed once is tried again when it is next asked for.
    content.catch(() => this.#pages.delete(page));
    return content;
  }

  /** In the order in which the text layer has its elements. */
  async runs(page: number): Promise<PageRun[]> {
    const { items } = await this.content(page);
    return items.flatMap((item) => ('str' in item ? [{ str: item.str, hasEOL: item.hasEOL }] : []));
  }
}
