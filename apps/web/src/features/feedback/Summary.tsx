import type { FeedbackView } from '@salt-circle/contracts';
import { agreedOn, counted, listed } from '@salt-circle/core';

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
  const all = counted(byOthers.length, 'Your reviewer', 'All your reviewers');
  return (
    <div className="mt-1 mb-2 space-y-1 text-sm">
      {agree.length > 0 && (
        <p>
          {all} agree on {listed(agree.map(({ title, words }) => `“${title}” (${words[0] ?? ''})`))}.
        </p>
      )}
      {differ.length > 0 && (
        <p>
          They differ on {listed(differ.map(({ title, words }) => `“${title}” (from ${words[0]} to ${words[1]})`))}.
        </p>
      )}
    </div>
  );
}
