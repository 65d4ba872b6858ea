import { Parser } from 'htmlparser2';
import { escapeHtml } from './escape.js';

/** What of a text is not seen and yet is there: where links lead, and what stands for a picture. */
export interface BehindText {
  readonly kind: 'link' | 'picture';
  readonly words: string;
}

/** Of cleaned HTML, in its order. Links within the text lead nowhere else. */
export function behindText(html: string): BehindText[] {
  const found: BehindText[] = [];
  const parser = new Parser({
    onopentag: (name, { href, alt }) => {
      if (name === 'a' && href !== undefined && !href.startsWith('#'))
        found.push({ kind: 'link', words: readable(href) });
      if (name === 'img' && alt !== undefined && alt !== '') found.push({ kind: 'picture', words: alt });
    },
  });
  parser.write(html);
  parser.end();
  return found;
}

// regex: over HTML that has been cleaned, in which each tag is closed
const ATTRIBUTE = /<(a|img)\b([^>]*)>/g;

/** The same text without the links and descriptions of which `tells` says that they tell too much; link texts stay. */
export function withoutTelling(html: string, tells: (behind: BehindText) => boolean): string {
  return html.replace(ATTRIBUTE, (whole, tag: string) => {
    const telling = behindText(whole).some(tells);
    if (!telling) return whole;
    return tag === 'a' ? '<a>' : whole.replace(/ alt="[^"]*"/, ` alt="${escapeHtml('')}"`);
  });
}

/** An address as somebody would read it: signs that are written as numbers are signs again. */
function readable(address: string): string {
  try {
    return decodeURIComponent(address.replace(/\+/g, ' '));
  } catch {
    return address;
  }
}
