import { pageText } from '@salt-circle/core';
import type { PDFDocumentProxy } from 'pdfjs-dist';
import { Refused } from '../../../platform/bytes/refused.js';
import type { AnnotatedPage } from './page-annotations.js';
import { opened, Texts } from './runs.js';
import { say } from '../../../words/annotated-files.js';

/** The reading copy of a part of the draft that is a PDF. */
export interface PageCopy {
  readonly id: string;
  readonly bytes: Uint8Array;
}

/** So many pages are compared to tell of which part a file is. */
const COMPARED = 12;
export interface OpenCopy {
  readonly id: string;
  readonly reading: PDFDocumentProxy;
  readonly texts: Texts;
  readonly otherText: boolean;
}

/** The part whose pages read most like those of the file. */
export async function copyOf(
  file: PDFDocumentProxy,
  texts: Texts,
  pages: readonly AnnotatedPage[],
  copies: readonly PageCopy[],
): Promise<OpenCopy> {
  const numbers = [...new Set([1, ...pages.map(({ number }) => number)])].slice(0, COMPARED);
  let best: (OpenCopy & { readonly alike: number }) | null = null;
  for (const { id, bytes } of copies) {
    const reading = await opened(bytes);
    const own = new Texts(reading);
    let alike = 0;
    for (const number of numbers) {
      if (number > reading.numPages) continue;
      const [here, there] = [await wordsOn(texts, number), await wordsOn(own, number)];
      // Pages without words, as of a scan, are told by how many there are.
      if (here === there) alike += here === '' ? Number(reading.numPages === file.numPages) : 1;
      else if (here !== '' && there !== '' && similar(here, there)) alike += 0.5;
    }
    if (alike > (best?.alike ?? 0)) {
      await best?.reading.loadingTask.destroy();
      best = { id, reading, texts: own, alike, otherText: alike < numbers.length };
    } else await reading.loadingTask.destroy();
  }
  if (best === null) {
    throw new Refused(say('theseAreNotPagesOf'), say('bringFileThatYouTook'));
  }
  return best;
}

async function wordsOn(texts: Texts, number: number): Promise<string> {
  return pageText([await texts.runs(number)]).text;
}

/** Half of the words of one are on the other. */
function similar(here: string, there: string): boolean {
  const own = new Set(here.split(/\s+/));
  const words = there.split(/\s+/);
  return words.filter((word) => own.has(word)).length >= words.length / 2;
}
