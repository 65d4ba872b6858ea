import type { ReviewForm } from './form.js';
import type { FormScore } from './score.js';

/** A score as people read it: in percent (rounded to whole ones) where the form goes by weights, else in points. */
export function scoreWords({ weighting }: Pick<ReviewForm, 'weighting'>, { percent, points, of }: FormScore): string {
  if (weighting === 'weights') return `${Math.round(percent)} percent, by weight`;
  return `${points} of ${of} ${of === 1 ? 'point' : 'points'}`;
}
