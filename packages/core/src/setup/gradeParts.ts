import { problem, type CoreProblem } from '../problem.js';

/** The components that a grade can be made of. */
export const GRADE_PARTS = [
  'handing-in',
  'reviews-done',
  'form-completed',
  'notes-made',
  'peer-score',
  'review-quality',
  'replies',
  'reflection',
  'instructor-mark',
] as const;
export type GradePartName = (typeof GRADE_PARTS)[number];

export interface GradePart {
  readonly part: GradePartName;
  /** More than 0, in any unit: parts count in proportion to their weights. */
  readonly weight: number;
}

export const MAX_PART_WEIGHT = 1000;

export type GradeProblemCode = 'part-twice' | 'part-weight' | 'part-needs-points' | 'part-needs-replies';

export interface GradeContext {
  readonly formHasPoints: boolean;
  readonly hasReplies: boolean;
}

/** No parts at all means that the exchange gives no grade, which is fine. */
export function checkGradeParts(parts: readonly GradePart[], context: GradeContext): CoreProblem<GradeProblemCode>[] {
  const problems: CoreProblem<GradeProblemCode>[] = [];
  const seen = new Set<GradePartName>();
  parts.forEach(({ part, weight }, index) => {
    const at = ['gradeParts', index] as const;
    if (seen.has(part)) problems.push(problem('part-twice', at, { part }));
    seen.add(part);
    if (!(weight > 0 && weight <= MAX_PART_WEIGHT)) {
      problems.push(problem('part-weight', [...at, 'weight'], { part, max: MAX_PART_WEIGHT }));
    }
    if (part === 'peer-score' && !context.formHasPoints) problems.push(problem('part-needs-points', at, { part }));
    if (part === 'replies' && !context.hasReplies) problems.push(problem('part-needs-replies', at, { part }));
  });
  return problems;
}
