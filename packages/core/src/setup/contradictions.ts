import { itemMaximum } from '../form/score.js';
import type { ReviewForm } from '../form/form.js';
import { problem, type CoreProblem } from '../problem.js';
import type { LateRule } from '../timeline/late.js';
import type { GradePart, GradePartName } from './gradeParts.js';

export type ContradictionCode =
  | 'late-points-without-points'
  | 'late-without-grade'
  | 'part-needs-notes'
  | 'part-needs-stage'
  | 'criterion-gives-nothing'
  | 'bands-apart';

export interface Planned {
  readonly late: LateRule | null;
  readonly gradeParts: readonly GradePart[];
  readonly form: ReviewForm;
  readonly hasReplies: boolean;
  readonly hasRevision: boolean;
}

/**
 * Settings that may each be meant and do not go together: to be looked at, not to be forbidden. Paths as in the plan, those of
 * the form below `form`.
 */
export function contradictions({
  late,
  gradeParts,
  form,
  hasReplies,
  hasRevision,
}: Planned): CoreProblem<ContradictionCode>[] {
  const found: CoreProblem<ContradictionCode>[] = [];
  const givesPoints = form.items.some((item) => itemMaximum(item) !== null);
  if (late?.unit === 'points' && !givesPoints) found.push(problem('late-points-without-points', ['late', 'unit']));
  if (late !== null && gradeParts.length === 0) found.push(problem('late-without-grade', ['late']));
  const needs: Readonly<Partial<Record<GradePartName, ContradictionCode>>> = {
    ...(form.minimumNotes === 0 && form.targetNotes === 0 && { 'notes-made': 'part-needs-notes' }),
    ...(!hasReplies && !hasRevision && { reflection: 'part-needs-stage' }),
  };
  gradeParts.forEach(({ part }, index) => {
    const code = needs[part];
    if (code !== undefined) found.push(problem(code, ['gradeParts', index], { part }));
  });
  form.items.forEach((item, index) => {
    const at = ['form', 'items', index] as const;
    const nothing = item.kind === 'criterion' && itemMaximum(item) === 0;
    if (nothing) found.push(problem('criterion-gives-nothing', at, { title: item.title }));
    if (item.kind !== 'range') return;
    const sorted = [...item.bands].sort((a, b) => a.from - b.from);
    const gap = sorted.findIndex((band, nth) => nth > 0 && band.from - (sorted[nth - 1]?.to ?? 0) > item.step + 1e-9);
    if (gap > 0) {
      const facts = { title: item.title, above: sorted[gap - 1]?.to ?? 0, below: sorted[gap]?.from ?? 0 };
      found.push(problem('bands-apart', at, facts));
    }
  });
  return found;
}
