import { listed, wordsBy } from '@salt-circle/core';
import type { ReviewNamesView } from '@salt-circle/contracts';
import { say } from '../../words/desk.js';

type Policy = ReviewNamesView['policy'];

const HIDDEN: Readonly<Record<Exclude<Policy, 'open'>, string>> = wordsBy(say, {
  'both-ways': 'namesAreHiddenInThis',
  'reviewers-only': 'authorIsNotToldWho',
  'authors-only': 'reviewersAreNotToldWho',
});

/**
 * What is told of names before a review is submitted.
 * @param found undefined where the server could not be asked
 * @param self of a review of the own draft
 */
export function namesWords(found: ReviewNamesView | undefined, self: boolean): string {
  if (found === undefined) return say('namesCouldNotBeLooked');
  const { policy, searched, names } = found;
  if (self) return say('thisIsYourOwnDraft');
  if (policy === 'open' || searched === 'none') return say('namesAreShownInThis');
  const limits = [
    ...(searched === 'beginning' ? [say('itIsVeryLongOnly')] : []),
    ...(found.unread === 0 ? [] : [say('attachedFilesWereNotLooked', { unread: found.unread })]),
  ];
  // Where authors are told who reviews them, one's own name tells nothing.
  const shown = policy === 'authors-only';
  const telling = names.filter(({ own }) => !(own && shown));
  if (telling.length === 0) return [say(shown ? 'noNameOfAnybodyElse' : 'noNameOfAnybodyOf'), ...limits].join(' ');
  const exact = [...new Set(telling.map(({ exact: words }) => say('quoted', { words })))];
  const key = telling.some(({ own }) => own) ? 'thatMayTellWhoYou' : 'thatIsSomebodyOfCourse';
  return [say(key, { words: listed(exact, 'comma') }), HIDDEN[policy], ...limits].join(' ');
}
