import type { FeedbackView } from '@salt-circle/contracts';
import { formScore, scoreWords } from '@salt-circle/core';
import type { ReactNode } from 'react';
import { AnswerWords } from '../form/AnswerWords.js';
import { allQuestions, formOfReview, questions, wasAsked, type Question } from '../form/questions.js';
import { labelWords } from '../People.js';
import { Rating } from './Rating.js';
import { Thread } from './Thread.js';
import { PleaseLook } from '../moderation/PleaseLook.js';
import { RemarkFiles } from '../remarks/RemarkFiles.js';
import { say } from '../../words/app.js';

interface AnswersProps {
  readonly feedback: FeedbackView;
}

interface ByReviewerProps extends AnswersProps {
  readonly timeZone: string;
  /** The instructor can be asked to look at each; not with borrowed eyes. */
  readonly asks: boolean;
  /** What stands below an answer. */
  readonly below?: (review: FeedbackView['reviews'][number], itemId: string) => ReactNode;
}

export function ByReviewer({ feedback, timeZone, asks, below = () => null }: ByReviewerProps) {
  return (
    <div className="divide-y divide-line">
      {feedback.reviews.map((review) => {
        const form = formOfReview(feedback, review);
        const score = formScore(form, review.answers);
        return (
          <section key={review.id} className="py-4">
            <h3 className="flex justify-between gap-3 text-lg font-semibold">
              {reviewerWords(review)}
              {score !== null && <span className="text-base font-normal text-ink-soft">{scoreWords(form, score)}</span>}
            </h3>
            <dl className="mt-2 space-y-3">
              {questions(form).map(({ id, title, item }) => (
                <div key={id}>
                  <dt className="font-medium">{title}</dt>
                  <dd>
                    <AnswerWords item={item} answer={review.answers[id]} />
                    <RemarkFiles reviewId={review.id} files={review.files.filter(({ itemId }) => itemId === id)} />
                    {asks && !review.self && id in review.answers && (
                      <Thread
                        reviewId={review.id}
                        itemId={id}
                        timeZone={timeZone}
                        quiet={(review.answers[id]?.text ?? '') === ''}
                      />
                    )}
                    {below(review, id)}
                  </dd>
                </div>
              ))}
            </dl>
            {asks && !review.self && (
              <>
                <Thread reviewId={review.id} timeZone={timeZone} />
                <Rating reviewId={review.id} />
                <PleaseLook reviewId={review.id} timeZone={timeZone} />
              </>
            )}
          </section>
        );
      })}
    </div>
  );
}

export function ByCriterion({ feedback }: AnswersProps) {
  return (
    <div className="divide-y divide-line">
      {allQuestions(feedback).map((question, index) => (
        <OneQuestion key={index} feedback={feedback} question={question} />
      ))}
    </div>
  );
}

function OneQuestion({ feedback, question }: AnswersProps & { readonly question: Question }) {
  const { id, title, item } = question;
  return (
    <section className="py-4">
      <h3 className="text-lg font-semibold">{title}</h3>
      {item !== undefined && item.guidance !== '' && <p className="text-sm text-ink-soft">{item.guidance}</p>}
      <dl className="mt-2 space-y-3">
        {feedback.reviews
          .filter((review) => wasAsked(feedback, review, question))
          .map((review) => (
            <div key={review.id}>
              <dt className="font-medium">{reviewerWords(review)}</dt>
              <dd>
                <AnswerWords item={item} answer={review.answers[id]} />
                <RemarkFiles reviewId={review.id} files={review.files.filter(({ itemId }) => itemId === id)} />
              </dd>
            </div>
          ))}
      </dl>
    </section>
  );
}

function reviewerWords({ reviewer, self }: FeedbackView['reviews'][number]): string {
  return self ? say('yourSelfReview') : labelWords(reviewer);
}
