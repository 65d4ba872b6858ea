import type { Answer, FormItem } from './form.js';
import { rangeBounds } from './range.js';
import { itemPoints } from './score.js';

/**
 * What several answers to one item come to on average, as an answer to it: the level whose points are nearest to their mean (of two as
 * near the one that gives less), or the mean of points, to the nearest step of a range.
 *
 * @returns null for an item without points, or without answers; what is no matter of points has no mean
 */
export function meanAnswer(item: FormItem, answers: ReadonlyArray<Answer | undefined>): Answer | null {
  const given = answers.map((answer) => itemPoints(item, answer)).filter((points) => points !== null);
  if (given.length === 0) return null;
  const mean = given.reduce((sum, points) => sum + points, 0) / given.length;
  if (item.kind === 'range') {
    const { least, most } = rangeBounds(item);
    const steps = Math.round((mean - least) / item.step);
    // In whole thousandths: steps of a tenth are not what they are called in binary.
    const value = Math.round((least + steps * item.step) * 1_000) / 1_000;
    return { value: Math.min(most, value) };
  }
  if (item.kind !== 'criterion') return null;
  const levels = item.levels.flatMap(({ id, points }) => (points === null ? [] : [{ id, points }]));
  const [nearest] = levels.sort((a, b) => Math.abs(a.points - mean) - Math.abs(b.points - mean) || a.points - b.points);
  return nearest === undefined ? null : { levelId: nearest.id };
}
