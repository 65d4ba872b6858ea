import type { TextRange } from '@salt-circle/core';
import { readDom } from './domText.js';

const LIST_NUMBER = /^(?:\d{1,3}|\p{L})[.)]$/u;

/** Sentences of a text, without the white space between them. A line feed ends a sentence: headings have no full stop. */
export function sentencesOf(text: string): TextRange[] {
  const segmenter = new Intl.Segmenter('en', { granularity: 'sentence' });
  const found: TextRange[] = [];
  let lineStart = 0;
  for (const line of text.split('\n')) {
    let number: number | null = null;
    for (const { segment, index } of segmenter.segment(line)) {
      const words = segment.trim();
      const start: number = number ?? lineStart + index + segment.indexOf(words);
      // "1." or "b)" in front of a sentence is part of it.
      number = LIST_NUMBER.test(words) && index + segment.length < line.trimEnd().length ? start : null;
      if (words !== '' && number === null) {
        found.push({ start, end: lineStart + index + segment.indexOf(words) + words.length });
      }
    }
    lineStart += line.length + 1;
  }
  return found;
}

/** Selects the next or previous sentence, or, when extending, one more of them. */
export function stepSentence(root: HTMLElement, step: 1 | -1, extend: boolean): void {
  const dom = readDom(root);
  const sentences = sentencesOf(dom.text);
  const selection = document.getSelection();
  if (selection === null || sentences.length === 0) return;
  const current = selection.rangeCount > 0 && !selection.isCollapsed ? dom.toText(selection.getRangeAt(0)) : null;
  const next = nextRange(sentences, current, step, extend);
  const range = dom.toDom(next);
  if (range === null) return;
  selection.removeAllRanges();
  selection.addRange(range);
  const box = range.getBoundingClientRect();
  if (box.top < 80 || box.bottom > window.innerHeight - 100)
    range.startContainer.parentElement?.scrollIntoView({ block: 'center' });
}

export function nextRange(
  sentences: readonly TextRange[],
  current: TextRange | null,
  step: 1 | -1,
  extend: boolean,
): TextRange {
  const first = sentences[0] as TextRange;
  if (current === null) return first;
  const lastAt = sentences.findLastIndex(({ start }) => start < current.end);
  const firstAt = sentences.findIndex(({ end }) => end > current.start);
  const at = Math.min(Math.max((step === 1 ? lastAt : firstAt) + step, 0), sentences.length - 1);
  const next = sentences[at] ?? first;
  if (!extend) return next;
  return { start: Math.min(current.start, next.start), end: Math.max(current.end, next.end) };
}
