import { problem, type CoreProblem } from '../problem.js';
import type { CriterionItem, ReviewForm } from './form.js';

export type FormProblemCode =
  | 'form-empty'
  | 'item-untitled'
  | 'item-duplicate'
  | 'levels-too-few'
  | 'level-untitled'
  | 'level-duplicate'
  | 'levels-mixed-points'
  | 'points-invalid'
  | 'words-invalid';

/** More points than this on one level is a slip of the keyboard. */
export const MAX_POINTS = 1000;
export const MAX_MINIMUM_WORDS = 2000;
/** A criterion with one level gives nothing to choose. */
export const MIN_LEVELS = 2;

/** Says what must be mended before reviewers can use the form. Empty result: the form is usable. */
export function checkForm(form: ReviewForm): CoreProblem<FormProblemCode>[] {
  const problems: CoreProblem<FormProblemCode>[] = [];
  if (form.items.length === 0) problems.push(problem('form-empty', ['items']));
  const seen = new Set<string>();
  form.items.forEach((item, index) => {
    const at = ['items', index] as const;
    if (seen.has(item.id)) problems.push(problem('item-duplicate', [...at, 'id'], { id: item.id }));
    seen.add(item.id);
    if (item.title.trim() === '') problems.push(problem('item-untitled', [...at, 'title'], { number: index + 1 }));
    if (item.kind === 'criterion') problems.push(...checkLevels(item, at));
    else if (!Number.isInteger(item.minimumWords) || item.minimumWords < 0 || item.minimumWords > MAX_MINIMUM_WORDS) {
      problems.push(problem('words-invalid', [...at, 'minimumWords'], { number: index + 1, max: MAX_MINIMUM_WORDS }));
    }
  });
  return problems;
}

function checkLevels(item: CriterionItem, at: readonly [string, number]): CoreProblem<FormProblemCode>[] {
  const problems: CoreProblem<FormProblemCode>[] = [];
  const facts = { number: at[1] + 1, title: item.title };
  if (item.levels.length < MIN_LEVELS) problems.push(problem('levels-too-few', [...at, 'levels'], facts));
  const withPoints = item.levels.filter((level) => level.points !== null).length;
  if (withPoints > 0 && withPoints < item.levels.length) {
    problems.push(problem('levels-mixed-points', [...at, 'levels'], facts));
  }
  const ids = new Set<string>();
  item.levels.forEach((level, index) => {
    const path = [...at, 'levels', index];
    if (ids.has(level.id)) problems.push(problem('level-duplicate', [...path, 'id'], { ...facts, id: level.id }));
    ids.add(level.id);
    if (level.title.trim() === '') {
      problems.push(problem('level-untitled', [...path, 'title'], { ...facts, level: index + 1 }));
    }
    const { points } = level;
    // Steps of a tenth: finer points are noise in a judgement, and they keep sums exact in the display.
    const stepped = points === null || Math.abs(points * 10 - Math.round(points * 10)) < 1e-9;
    if (points !== null && (!Number.isFinite(points) || points < 0 || points > MAX_POINTS || !stepped)) {
      problems.push(problem('points-invalid', [...path, 'points'], { ...facts, level: index + 1, max: MAX_POINTS }));
    }
  });
  return problems;
}
