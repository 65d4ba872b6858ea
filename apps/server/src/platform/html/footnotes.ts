import { escapeHtml, unescapeHtml } from './escape.js';

/** A footnote of a typed text stands where it belongs, with its words in an attribute: `<sup data-footnote="…"></sup>`. */
const FOOTNOTE = /<sup data-footnote="([^"]*)"><\/sup>/g;

/** Words of the footnotes of a cleaned text, in their order. */
export function footnotesIn(html: string): string[] {
  return [...html.matchAll(FOOTNOTE)].map(([, words = '']) => unescapeHtml(words));
}

/** For reading: a number that leads to the note, and the notes as a list at the end. */
export function withFootnotes(html: string): string {
  const notes: string[] = [];
  const body = html.replace(FOOTNOTE, (_, words: string) => {
    const number = notes.push(words);
    return `<sup><a href="#fn-${number}" data-anchor="fnref-${number}">${number}</a></sup>`;
  });
  if (notes.length === 0) return html;
  const items = notes.map((words, index) => `<li data-anchor="fn-${index + 1}">${words}</li>`);
  return `${body}<hr><ol>${items.join('')}</ol>`;
}

/** The same text with other words in one of its footnotes. @param number from 0 */
export function withFootnote(html: string, number: number, words: string): string {
  let at = -1;
  return html.replace(FOOTNOTE, (whole) => {
    at += 1;
    return at === number ? `<sup data-footnote="${escapeHtml(words)}"></sup>` : whole;
  });
}
