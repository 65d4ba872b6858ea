import type { ImportLimits, KnownNote, AnnotatedDraft, ReadText } from '@salt-circle/core';
import type { PageCopy } from './which-copy.js';

/** A part that is read as text, as its readers read it. */
export interface MarkedHtml {
  readonly id: string;
  readonly name: string;
  readonly html: string;
}

/** What becomes a document with comments. */
export interface DocumentTask {
  readonly draft: AnnotatedDraft;
  readonly texts: readonly MarkedHtml[];
}

/** What becomes a PDF with annotations: the reading copy of one part. */
export interface PagesTask {
  readonly draft: AnnotatedDraft;
  readonly partId: string;
  readonly bytes: Uint8Array;
}

/** A file that came back, and what it is to be found again in. */
export interface BringTask {
  readonly bytes: Uint8Array;
  readonly texts: readonly ReadText[];
  readonly copies: readonly PageCopy[];
  readonly already: readonly KnownNote[];
  readonly limits: ImportLimits;
}
