import type { FeedbackView } from '@salt-circle/contracts';
import { formScore, itemMaximum, type Answer, type FormItem } from '@salt-circle/core';
import { labelWords } from '../../app/People.js';

interface AnswersProps {
  readonly feedback: FeedbackView;
}

export function ByReviewer({ feedback }: AnswersProps) {
  return (
    <div className="divide-y divide-line">
      {feedback.reviews.map((review) => {
        const score = formScore({ items: feedback.form }, review.answers);
        return (
          <section key={review.id} className="py-4">
            <h3 className="flex justify-between gap-3 text-lg font-semibold">
              {labelWords(review.reviewer)}
              {score !== null && (
                <span className="text-base font-normal text-ink-soft">
                  {score.points} of {score.of} points
                </span>
              )}
            </h3>
            <dl className="mt-2 space-y-3">
              {feedback.form.map((item) => (
                <div key={item.id}>
                  <dt className="font-medium">{item.title}</dt>
                  <dd>
                    <AnswerWords item={item} answer={review.answers[item.id]} />
                  </dd>
                </div>
              ))}
            </dl>
          </section>
        );
      })}
    </div>
  );
}

export function ByCriterion({ feedback }: AnswersProps) {
  return (
    <div className="divide-y divide-line">
      {feedback.form.map((item) => (
        <section key={item.id} className="py-4">
          <h3 className="text-lg font-semibold">{item.title}</h3>
          {item.guidance !== '' && <p className="text-sm text-ink-soft">{item.guidance}</p>}
          <dl className="mt-2 space-y-3">
            {feedback.reviews.map((review) => (
              <div key={review.id}>
                <dt className="font-medium">{labelWords(review.reviewer)}</dt>
                <dd>
                  <AnswerWords item={item} answer={review.answers[item.id]} />
                </dd>
              </div>
            ))}
          </dl>
        </section>
      ))}
    </div>
  );
}

function AnswerWords({ item, answer }: { readonly item: FormItem; readonly answer: Answer | undefined }) {
  const level = item.kind === 'criterion' ? item.levels.find(({ id }) => id === answer?.levelId) : undefined;
  const text = answer?.text ?? '';
  if (level === undefined && text === '') return <span className="text-ink-soft">not answered</span>;
  const most = item.kind === 'criterion' ? itemMaximum(item) : null;
  return (
    <>
      {level !== undefined && (
        <p>
          {level.points !== null && (
            <span className="mr-1.5">
              <strong>{level.points}</strong> of {most}
            </span>
          )}
          {level.title}
          {level.description !== '' && <span className="text-ink-soft">: {level.description}</span>}
        </p>
      )}
      {text !== '' && <p className="font-serif whitespace-pre-wrap">{text}</p>}
    </>
  );
}
