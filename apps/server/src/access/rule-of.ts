import { READY_REVIEWING_FORM, USUAL_GRADE_RULE, type FormItem, type GradeRule } from '@salt-circle/core';
import type { Exchange } from '../model/exchange.js';

/** How parts become a grade, of an exchange. */
export function ruleOf({ gradeRule }: Pick<Exchange, 'gradeRule'>): GradeRule {
  // One that was kept before there was something to choose has the usual there.
  const quality = { ...USUAL_GRADE_RULE.quality, ...gradeRule?.quality };
  return { ...USUAL_GRADE_RULE, ...gradeRule, quality };
}

/** The form by which reviewing is marked. */
export function reviewingFormOf({ reviewingForm }: Pick<Exchange, 'reviewingForm'>): readonly FormItem[] {
  return reviewingForm ?? READY_REVIEWING_FORM;
}
