import type { PartView } from '@salt-circle/contracts';
import { listed } from '@salt-circle/core';
import { bytesInWords, secondsInWords } from './sizes.js';
import { say } from '../../words/app.js';

/** What is known of a part, in a few words: "12 pages, 3.4 MB". */
export function partWords({ show, words, size, facts }: PartView): string {
  const { pages, seconds, width, height } = facts;
  const known = [
    pages === undefined ? '' : say('pagesCounted', { pages }),
    show === 'html' && words > 0 ? say('wordsCounted', { words }) : '',
    seconds === undefined ? '' : secondsInWords(seconds),
    width === undefined || height === undefined ? '' : `${width} × ${height}`,
    size === null ? '' : bytesInWords(size),
  ];
  return listed(
    known.filter((one) => one !== ''),
    'comma',
  );
}

/** Name of a part among the others of its draft. */
export function partLabel(part: PartView, parts: readonly PartView[]): string {
  const same = parts.filter(({ deliverableId }) => deliverableId === part.deliverableId);
  if (part.kind === 'link') return part.title;
  return same.length > 1 ? `${part.deliverable} ${same.indexOf(part) + 1}` : part.deliverable;
}
