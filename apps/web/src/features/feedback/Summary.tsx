import type { FeedbackView } from '@salt-circle/contracts';
import { agreedOn, listed } from '@salt-circle/core';
import { say } from '../../words/feedback.js';

/** In sentences: what all reviews agree on, and where they differ. */
export function Summary({ feedback }: { readonly feedback: FeedbackView }) {
  // Staff have the last word, and are not among those who agree or differ.
  const byOthers = feedback.reviews.filter(({ self, reviewer }) => !self && reviewer.role === undefined);
  const found = agreedOn(
    feedback.form,
    byOthers.map(({ answers }) => answers),
  );
  // “All” are all: not those that said anything.
  const agree = found.agree.filter(({ reviews }) => reviews === byOthers.length);
  const { differ } = found;
  if (agree.length === 0 && differ.length === 0) return null;
  return (
    <div className="mt-1 mb-2 space-y-1 text-sm">
      {agree.length > 0 && (
        <p>
          {say('agreeOn', {
            reviewers: byOthers.length,
            items: listed(agree.map(({ title, words }) => say('itemSaid', { title, words: words[0] ?? '' }))),
          })}
        </p>
      )}
      {differ.length > 0 && (
        <p>
          {say('theyDifferOn', {
            differ: listed(
              differ.map(({ title, words }) => say('fromTo', { title, low: words[0] ?? '', high: words[1] ?? '' })),
            ),
          })}
        </p>
      )}
    </div>
  );
}
