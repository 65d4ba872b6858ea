import { readDom } from './domText.js';

/** The plain text of rich text, as notes and word counts know it. Parsed apart from the page: nothing of it runs. */
export function plainText(html: string): string {
  return readDom(new DOMParser().parseFromString(html, 'text/html').body).text;
}
