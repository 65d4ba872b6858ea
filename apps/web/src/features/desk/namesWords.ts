import type { ReviewNamesView } from '@salt-circle/contracts';
import { counted } from '@salt-circle/core';

type Policy = ReviewNamesView['policy'];

const HIDDEN: Readonly<Record<Exclude<Policy, 'open'>, string>> = {
  'both-ways': 'Names are hidden in this exchange.',
  'reviewers-only': 'The author is not told who reviewed the draft.',
  'authors-only': 'Reviewers are not told who wrote the draft.',
};

/**
 * What is told of names before a review is submitted.
 * @param found undefined where the server could not be asked
 * @param self of a review of the own draft
 */
export function namesWords(found: ReviewNamesView | undefined, self: boolean): string {
  if (found === undefined) return 'Names could not be looked for just now. Look again in a moment, or read through it.';
  const { policy, searched, names } = found;
  if (self) return 'This is your own draft, so no names were looked for.';
  if (policy === 'open' || searched === 'none') return 'Names are shown in this exchange, so none were looked for.';
  const long = searched === 'beginning' ? ' It is very long: only the beginning was looked through.' : '';
  const unread = counted(
    found.unread,
    ' The attached file was not looked through: it has no text, or is still being read.',
    ' # attached files were not looked through: they have no text, or are still being read.',
  );
  const within = `${long}${found.unread === 0 ? '' : unread}`;
  // Where authors are told who reviews them, one's own name tells nothing.
  const shown = policy === 'authors-only';
  const telling = names.filter(({ own }) => !(own && shown));
  if (telling.length === 0) return `No name of anybody${shown ? ' else' : ''} of the course was found in it.${within}`;
  const words = [...new Set(telling.map(({ exact }) => `“${exact}”`))].join(', ');
  const whose = telling.some(({ own }) => own) ? 'that may tell who you are' : 'that is somebody of the course';
  return `In what you wrote stands ${words}: ${whose}. ${HIDDEN[policy]}${within}`;
}
