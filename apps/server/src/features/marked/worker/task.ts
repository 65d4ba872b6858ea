import type { MarkedDraft } from '@salt-circle/core';

/** A part that is read as text, as its readers read it. */
export interface MarkedHtml {
  readonly id: string;
  readonly name: string;
  readonly html: string;
}

/** What becomes a document with comments. */
export interface DocumentTask {
  readonly draft: MarkedDraft;
  readonly texts: readonly MarkedHtml[];
}

/** What becomes a PDF with annotations: the reading copy of one part. */
export interface PagesTask {
  readonly draft: MarkedDraft;
  readonly partId: string;
  readonly bytes: Uint8Array;
}
