import { say } from '../words/form.js';
import type { ReviewForm } from './form.js';
import type { FormScore } from './score.js';

/** A score as people read it: in percent (rounded to whole ones) where the form goes by weights, else in points. */
export function scoreWords({ weighting }: Pick<ReviewForm, 'weighting'>, { percent, points, of }: FormScore): string {
  if (weighting === 'weights') return say('percentByWeight', { percent: Math.round(percent) });
  return say('pointsOf', { points, of });
}
