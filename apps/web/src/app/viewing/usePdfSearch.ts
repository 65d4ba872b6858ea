import { useRef, useState } from 'react';
import type { PDFDocumentProxy } from './pdf.js';

export interface PdfSearch {
  readonly words: string;
  readonly setWords: (words: string) => void;
  /** Goes to the next page that has the words. @returns its number, or null when no page has them */
  readonly next: () => Promise<number | null>;
  readonly told: string;
}

/** Finds words in a PDF, page by page, and keeps what has been read. */
export function usePdfSearch(pdf: PDFDocumentProxy): PdfSearch {
  const texts = useRef(new Map<number, string>());
  const last = useRef(0);
  const [words, setWords] = useState('');
  const [told, setTold] = useState('');
  const textOf = async (number: number): Promise<string> => {
    const known = texts.current.get(number);
    if (known !== undefined) return known;
    const page = await pdf.getPage(number);
    const { items } = await page.getTextContent();
    const text = items
      .map((item) => ('str' in item ? item.str + (item.hasEOL ? ' ' : '') : ''))
      .join('')
      .toLowerCase();
    texts.current.set(number, text);
    return text;
  };
  const next = async (): Promise<number | null> => {
    const wanted = words.trim().toLowerCase();
    if (wanted === '') return null;
    setTold('…');
    for (let step = 1; step <= pdf.numPages; step += 1) {
      const number = ((last.current + step - 1) % pdf.numPages) + 1;
      if (!(await textOf(number)).includes(wanted)) continue;
      last.current = number;
      setTold(`on page ${number}`);
      return number;
    }
    setTold('not found');
    return null;
  };
  return {
    words,
    setWords: (typed) => {
      setWords(typed);
      setTold('');
      last.current = 0;
    },
    next,
    told,
  };
}
