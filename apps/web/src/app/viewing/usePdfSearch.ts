import { pageText } from '@salt-circle/core';
import { useRef, useState } from 'react';
import type { PdfTexts } from './pdfText.js';
import { say } from '../../words/app.js';

export interface PdfSearch {
  readonly words: string;
  readonly setWords: (words: string) => void;
  /** Goes to the next page that has the words. @returns its number, or null when no page has them */
  readonly next: () => Promise<number | null>;
  readonly told: string;
}

/** Finds words in a PDF, page by page, also where a line ends between them. */
export function usePdfSearch(texts: PdfTexts): PdfSearch {
  const last = useRef(0);
  const [words, setWords] = useState('');
  const [told, setTold] = useState('');
  const textOf = async (number: number): Promise<string> =>
    pageText([await texts.runs(number)])
      .text.replaceAll('\n', ' ')
      .toLowerCase();
  const next = async (): Promise<number | null> => {
    const wanted = words.trim().toLowerCase();
    if (wanted === '') return null;
    setTold('…');
    for (let step = 1; step <= texts.count; step += 1) {
      const number = ((last.current + step - 1) % texts.count) + 1;
      if (!(await textOf(number)).includes(wanted)) continue;
      last.current = number;
      setTold(say('onPageOf', { number }));
      return number;
    }
    setTold(say('notFound'));
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
