import { counted } from '@salt-circle/core';
import type { PartView } from '@salt-circle/contracts';
import { bytesInWords, secondsInWords } from './sizes.js';

/** What is known of a part, in a few words: "12 pages, 3.4 MB". */
export function partWords({ show, words, size, facts }: PartView): string {
  const { pages, seconds, width, height } = facts;
  return [
    pages === undefined ? '' : counted(pages, '1 page', '# pages'),
    show === 'html' && words > 0 ? counted(words, '1 word', '# words') : '',
    seconds === undefined ? '' : secondsInWords(seconds),
    width === undefined || height === undefined ? '' : `${width} × ${height}`,
    size === null ? '' : bytesInWords(size),
  ]
    .filter((one) => one !== '')
    .join(', ');
}

/** Name of a part among the others of its draft. */
export function partLabel(part: PartView, parts: readonly PartView[]): string {
  const same = parts.filter(({ deliverableId }) => deliverableId === part.deliverableId);
  if (part.kind === 'link') return part.title;
  return same.length > 1 ? `${part.deliverable} ${same.indexOf(part) + 1}` : part.deliverable;
}
