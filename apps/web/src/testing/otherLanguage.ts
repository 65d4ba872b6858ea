import { catalogues, ENGLISH, speakBy } from '@salt-circle/core';

/** Speaks a language in which each sentence stands in brackets, until the function that it gives back is called. */
export function speakInBrackets(): () => void {
  const bracketed = (english: Readonly<Record<string, string>>) =>
    Object.fromEntries(Object.entries(english).map(([key, sentence]) => [key, `⟦${sentence}⟧`]));
  speakBy(() => ({
    language: 'en-GB',
    sentences: Object.fromEntries([...catalogues()].map(([area, english]) => [area, bracketed(english)])),
  }));
  return () => speakBy(() => ENGLISH);
}

/** Words on a page that are no sentence of ours, seen or heard: what people wrote, and what was forgotten. */
export function wordsOutside(page: Element): string[] {
  const found = new Set<string>();
  let depth = 0;
  const look = (text: string) => {
    let outside = '';
    for (const sign of text) {
      if (sign === '⟦') depth += 1;
      if (depth === 0) outside += sign;
      if (sign === '⟧') depth -= 1;
    }
    if (/\p{L}{2}/u.test(outside)) found.add(outside.trim());
  };
  const texts = document.createTreeWalker(page, NodeFilter.SHOW_TEXT);
  while (texts.nextNode() !== null) look(texts.currentNode.textContent ?? '');
  for (const element of page.querySelectorAll('*')) {
    for (const name of ['aria-label', 'title', 'placeholder', 'aria-valuetext', 'alt'])
      look(element.getAttribute(name) ?? '');
  }
  return [...found].sort();
}
