import { problem, type CoreProblem } from '../problem.js';
import type { GradePart, GradePartName } from '../setup/gradeParts.js';
import type { GradeRule } from './gradeRule.js';
import type { GradingWork } from './shareOut.js';

export type MarkingProblemCode = 'mark-needs-points';

/** Whether forms of their own, by which staff mark, give points; null where the usual form is used. */
export type MarkingForms = Readonly<Record<GradingWork, boolean | null>>;

/** Whether the grade rests on what staff mark, so that it has to have points. */
function counts(parts: readonly GradePart[], { quality }: Pick<GradeRule, 'quality'>, work: GradingWork): boolean {
  const has = (name: GradePartName) => parts.some(({ part }) => part === name);
  if (work === 'reviewing') return has('review-quality') && quality.mark > 0;
  return has('instructor-mark') || (has('review-quality') && quality.staff > 0);
}

/** Where a mark counts, a form that was chosen for it gives points: else there would never be anything to go by. */
export function checkMarkingForms(
  parts: readonly GradePart[],
  rule: Pick<GradeRule, 'quality'>,
  forms: MarkingForms,
): CoreProblem<MarkingProblemCode>[] {
  return (['draft', 'reviewing'] as const)
    .filter((work) => forms[work] === false && counts(parts, rule, work))
    .map((work) => problem('mark-needs-points', ['gradeParts'], { work }));
}
