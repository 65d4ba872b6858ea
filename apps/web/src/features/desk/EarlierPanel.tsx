import type { EarlierView } from '@salt-circle/contracts';
import { OVERALL_ID } from '@salt-circle/core';
import { AnswerWords } from '../../app/form/AnswerWords.js';
import { labelWords } from '../../app/People.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { NoteText } from '../../app/reading/NoteText.js';
import { Empty, Loading } from '../../kit/index.js';
import { useEarlierQuery } from './deskApi.js';
import { say } from '../../words/desk.js';

/** Beside the review of a revision: what was said of the draft in the round before. */
export function EarlierPanel({ reviewId }: { readonly reviewId: string }) {
  const { data, error } = useEarlierQuery(reviewId, { refetchOnMountOrArgChange: true });
  if (error !== undefined) return <ProblemNotice error={error} />;
  if (data === undefined) return <Loading what={say('earlierFeedback')} />;
  if (data.reviews.length === 0) {
    return (
      <Empty title={say('noEarlierFeedbackIsOpen')}>
        <p>{say('youDidNotReviewThis', { exchangeTitle: data.exchangeTitle })}</p>
      </Empty>
    );
  }
  return (
    <div className="divide-y divide-line">
      <p className="py-3 text-sm text-ink-soft">{say('whatWasSaidOfDraft', { exchangeTitle: data.exchangeTitle })}</p>
      {data.reviews.map((review) => (
        <Earlier key={review.id} form={review.form ?? data.form} review={review} />
      ))}
    </div>
  );
}

function Earlier({
  form,
  review,
}: {
  readonly form: EarlierView['form'];
  readonly review: EarlierView['reviews'][number];
}) {
  const answered = form.items.filter(({ id }) => id in review.answers);
  return (
    <section className="py-4">
      <h3 className="text-lg font-semibold">
        {review.reviewer.you === true ? say('yourReviewOfThen') : labelWords(review.reviewer)}
      </h3>
      <dl className="mt-2 space-y-3">
        {answered.map((item) => (
          <div key={item.id}>
            <dt className="font-medium">{item.title}</dt>
            <dd>
              <AnswerWords item={item} answer={review.answers[item.id]} />
            </dd>
          </div>
        ))}
        {OVERALL_ID in review.answers && (
          <div>
            <dt className="font-medium">{say('overallComment')}</dt>
            <dd>
              <AnswerWords item={undefined} answer={review.answers[OVERALL_ID]} />
            </dd>
          </div>
        )}
      </dl>
      <ul className="mt-3 space-y-3">
        {review.notes.map((note) => (
          <li key={note.id}>
            <NoteText note={note} quoted />
          </li>
        ))}
      </ul>
    </section>
  );
}
