import type { FeedbackView } from '@salt-circle/contracts';
import { OVERALL_ID, sameScale, type ReviewForm } from '@salt-circle/core';
import { say } from '../../words/app.js';

export interface Question {
  readonly id: string;
  readonly title: string;
  /** Undefined for the overall comment. */
  readonly item: ReviewForm['items'][number] | undefined;
}

/** All that a form asks, the overall comment last. */
export function questions(form: ReviewForm): Question[] {
  const items = form.items.map((item): Question => ({ id: item.id, title: item.title, item }));
  return form.overall === 'none'
    ? items
    : [...items, { id: OVERALL_ID, title: say('overallComment'), item: undefined }];
}

type Reviews = Pick<FeedbackView, 'form' | 'reviews'>;

/** By which a review was written: staff may have one of their own. */
export function formOfReview({ form }: Pick<Reviews, 'form'>, review: { readonly form?: ReviewForm }): ReviewForm {
  return review.form ?? form;
}

/** Whether a review was asked this, and not something else under the same id. */
export function wasAsked(feedback: Reviews, review: Reviews['reviews'][number], { id, item }: Question): boolean {
  return questions(formOfReview(feedback, review)).some((one) => one.id === id && sameQuestion(one.item, item));
}

/** What all these reviews were asked, each once: by the form of the exchange first, then what staff answered by one of their own. */
export function allQuestions(feedback: Reviews): Question[] {
  const answered = feedback.reviews.flatMap(({ form, answers }) =>
    form === undefined ? [] : questions(form).filter(({ id }) => id in answers),
  );
  const all: Question[] = [];
  for (const question of [...questions(feedback.form), ...answered])
    if (!all.some(({ id, item }) => id === question.id && sameQuestion(item, question.item))) all.push(question);
  return all;
}

function sameQuestion(one: Question['item'], other: Question['item']): boolean {
  return one === undefined || other === undefined ? one === other : sameScale(one, other);
}
