import type { TextRange } from './selectors.js';

/** A run of letters of a page, as PDF.js and other readers of PDFs give them: in the order in which the file draws them. */
export interface PageRun {
  readonly str: string;
  /** A line ends after it. */
  readonly hasEOL: boolean;
}

/** Text of pages with where each run begins in it, in UTF-16 code units. */
export interface PageText {
  readonly text: string;
  /** By the index of the page among those given, then by the index of the run. */
  readonly starts: ReadonlyArray<readonly number[]>;
}

/** A stretch of one run; `from` and `to` are UTF-16 code units in its letters. */
export interface RunPiece {
  /** Index among the pages given, from 0. */
  readonly page: number;
  /** Index of the run on its page, from 0. */
  readonly run: number;
  readonly from: number;
  readonly to: number;
}

/** Between two pages, and where a line ends. */
const LINE_END = '\n';

/**
 * The words of pages that follow each other, as one text: a passage can run over the edge of a page. A line end is one letter;
 * whether it ends a paragraph the file does not say.
 */
export function pageText(pages: ReadonlyArray<readonly PageRun[]>): PageText {
  let text = '';
  const starts = pages.map((runs, index) => {
    if (index > 0 && text !== '' && !text.endsWith(LINE_END)) text += LINE_END;
    return runs.map(({ str, hasEOL }) => {
      const start = text.length;
      text += hasEOL ? str + LINE_END : str;
      return start;
    });
  });
  return { text, starts };
}

/** The stretches of runs that make up a range of the text of these pages, in order. */
export function runPieces(
  pages: ReadonlyArray<readonly PageRun[]>,
  { starts }: PageText,
  { start, end }: TextRange,
): RunPiece[] {
  return pages.flatMap((runs, page) =>
    runs.flatMap(({ str }, run): RunPiece[] => {
      const at = starts[page]?.[run] ?? 0;
      const from = Math.max(0, start - at);
      const to = Math.min(str.length, end - at);
      return from < to ? [{ page, run, from, to }] : [];
    }),
  );
}
