import type { PDFDocumentProxy } from 'pdfjs-dist';
import { Refused } from '../../../platform/bytes/refused.js';
import type { Drawn } from './page-words.js';
import { say } from '../../../words/annotated-files.js';

/** What PDF.js tells of an annotation, as far as it is asked for here. */
export interface Annotation extends Drawn {
  readonly id: string;
  readonly subtype: string;
  readonly contentsObj?: { readonly str: string };
  readonly richText?: { readonly str: string } | null;
  readonly inReplyTo?: string;
  readonly replyType?: 'R' | 'Group';
}

/** More than anybody reads. */
const MOST_MARKS = 5_000;
/** Of the page’s own, or a window of another one. */
const NO_MARKS: ReadonlySet<string> = new Set(['Link', 'Widget', 'Popup']);

export interface AnnotatedPage {
  readonly number: number;
  readonly annotations: readonly Annotation[];
}

/** Pages with annotations that somebody made. @throws Refused for more than can be looked through */
export async function annotatedPages(file: PDFDocumentProxy): Promise<AnnotatedPage[]> {
  const pages: AnnotatedPage[] = [];
  let count = 0;
  for (let number = 1; number <= file.numPages; number += 1) {
    const page = await file.getPage(number);
    const all = (await page.getAnnotations()) as unknown as readonly Annotation[];
    const annotations = all.filter(({ subtype }) => !NO_MARKS.has(subtype));
    if (annotations.length > 0) pages.push({ number, annotations });
    count += annotations.length;
    if (count > MOST_MARKS) {
      throw new Refused(say('thisPdfHoldsMoreThan', { mostmarks: MOST_MARKS }), say('bringPagesThatAuthorShould'));
    }
  }
  return pages;
}

/** What an annotation says, and then what was answered to it. */
export function saidIn(annotation: Annotation, all: readonly Annotation[]): string[] {
  const ids = new Set([annotation.id]);
  // Each gets one turn, however they are tied to each other.
  for (const id of ids) for (const one of all) if (one.inReplyTo === id && one.replyType !== 'Group') ids.add(one.id);
  return [annotation, ...all.filter((one) => one !== annotation && ids.has(one.id))].map(wordsOf);
}

function wordsOf({ subtype, contentsObj, richText }: Annotation): string {
  const said = contentsObj?.str ?? '';
  const words = (said === '' ? (richText?.str ?? '') : said).replace(/\r\n?/g, '\n');
  // What is put in keeps its blanks.
  return subtype === 'Caret' ? words : words.trim();
}
