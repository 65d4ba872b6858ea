import {
  formMaximum,
  readyReviewingForm,
  USUAL_GRADE_RULE,
  type GradeRule,
  type MarkingForms,
  type ReviewForm,
} from '@salt-circle/core';
import type { Exchange } from '../model/exchange.js';

/** How parts become a grade, of an exchange. */
export function ruleOf({ gradeRule }: Pick<Exchange, 'gradeRule'>): GradeRule {
  // One that was kept before there was something to choose has the usual there.
  const quality = { ...USUAL_GRADE_RULE.quality, ...gradeRule?.quality };
  return { ...USUAL_GRADE_RULE, ...gradeRule, quality };
}

/** The form by which reviewing is marked. */
export function reviewingFormOf({
  reviewingForm,
  reviewingWeighting,
}: Pick<Exchange, 'reviewingForm' | 'reviewingWeighting'>): Pick<ReviewForm, 'items' | 'weighting'> {
  return reviewingForm === null
    ? { items: readyReviewingForm(), weighting: 'points' }
    : { items: reviewingForm, weighting: reviewingWeighting };
}

/** Whether forms that were chosen for marking give points. */
export function markingFormsOf({
  draftForm,
  reviewingForm,
}: Pick<Exchange, 'draftForm' | 'reviewingForm'>): MarkingForms {
  const gives = (form: Pick<ReviewForm, 'items'> | null) => (form === null ? null : formMaximum(form) !== null);
  return { draft: gives(draftForm), reviewing: gives(reviewingForm === null ? null : { items: reviewingForm }) };
}
