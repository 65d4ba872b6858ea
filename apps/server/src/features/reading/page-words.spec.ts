import { readFileSync } from 'node:fs';
import { pageText, runPieces, type PageRun } from '@salt-circle/core';
import { sample } from '../../testing/uploads.js';

interface Word {
  readonly word: string;
  /** Shares of the page. */
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

interface Run extends PageRun {
  /** Of its baseline's beginning, in shares of the page; `width` of its letters. */
  readonly x: number;
  readonly y: number;
  readonly width: number;
}

async function runsOf(name: string): Promise<Run[][]> {
  const { getDocument } = await import('pdfjs-dist/legacy/build/pdf.mjs');
  const pdf = await getDocument({ data: new Uint8Array(sample(name)), useSystemFonts: false }).promise;
  const pages: Run[][] = [];
  for (let number = 1; number <= pdf.numPages; number += 1) {
    const page = await pdf.getPage(number);
    const { width, height } = page.getViewport({ scale: 1 });
    const { items } = await page.getTextContent();
    pages.push(
      items.flatMap((item): Run[] => {
        if (!('str' in item)) return [];
        const [, , , , left, bottom] = item.transform as number[];
        return [
          {
            str: item.str,
            hasEOL: item.hasEOL,
            x: (left as number) / width,
            y: 1 - (bottom as number) / height,
            width: item.width / width,
          },
        ];
      }),
    );
  }
  await pdf.destroy();
  return pages;
}

// Against poppler 22.12 (`pdftotext -bbox`), whose words and boxes are kept beside the sample (scripts/make-page-words.mjs).
describe('words of a PDF, as places in it are counted', () => {
  it('are those that poppler finds, and stand where it finds them', async () => {
    const name = 'report.pdf';
    const pages = await runsOf(name);
    const { text } = pageText(pages);
    const words = (JSON.parse(readFileSync(`${samplePath(name)}.words.json`, 'utf8')) as Word[][])[0] ?? [];
    expect(words.length).toBeGreaterThan(30);
    const lost: string[] = [];
    for (const { word, x, y, width, height } of words) {
      const starts = [...text.matchAll(new RegExp(escaped(word), 'g'))].map(({ index }) => index);
      const fits = starts.some((start) =>
        runPieces(pages, pageText(pages), { start, end: start + word.length }).some(({ page, run, from }) => {
          const at = pages[page]?.[run];
          if (at === undefined) return false;
          // The baseline lies in the word's box, and its first letter within the run, by the letters before it.
          const left = at.x + (at.width * from) / Math.max(1, at.str.length);
          return at.y >= y - 0.005 && at.y <= y + height + 0.005 && Math.abs(left - x) < 0.03 + width;
        }),
      );
      if (!fits) lost.push(word);
    }
    expect(lost).toEqual([]);
  });
});

function samplePath(name: string): string {
  return new URL(`../../platform/files/samples/${name}`, `file://${import.meta.dirname}/`).pathname;
}

function escaped(word: string): string {
  return word.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
}
