import { problem, type CoreProblem } from '../problem.js';
import {
  OVERALL_ID,
  type ChecklistItem,
  type CriterionItem,
  type FormItem,
  type NumberItem,
  type RangeItem,
  type ReviewForm,
} from './form.js';
import { itemMaximum, weightSum } from './score.js';

export type FormProblemCode =
  | 'form-empty'
  | 'item-untitled'
  | 'item-duplicate'
  | 'levels-too-few'
  | 'level-untitled'
  | 'part-duplicate'
  | 'mixed-points'
  | 'points-invalid'
  | 'words-invalid'
  | 'notes-invalid'
  | 'target-below-minimum'
  | 'bands-too-few'
  | 'band-untitled'
  | 'band-reversed'
  | 'bands-overlap'
  | 'step-invalid'
  | 'entries-too-few'
  | 'entry-empty'
  | 'options-too-few'
  | 'option-untitled'
  | 'bounds-reversed'
  | 'weight-invalid'
  | 'weights-zero';

/** More points than this on one level is a slip of the keyboard. */
export const MAX_POINTS = 1000;
export const MAX_WEIGHT = 1000;
export const MAX_MINIMUM_WORDS = 2000;
export const MAX_NOTES = 100;
/** A criterion with one level gives nothing to choose. */
export const MIN_LEVELS = 2;
/** What a range can be stepped by. Finer points are noise in a judgement, and tenths keep sums exact in the display. */
export const RANGE_STEPS: readonly number[] = [1, 0.5, 0.1];

type Path = readonly [string, number];
type Problem = CoreProblem<FormProblemCode>;

/** Says what must be mended before reviewers can use the form. Empty result: the form is usable. */
export function checkForm(form: ReviewForm): Problem[] {
  const problems: Problem[] = [];
  const asksNothing = form.items.length === 0 && form.overall === 'none' && form.minimumNotes === 0;
  if (asksNothing) problems.push(problem('form-empty', ['items']));
  // A form without items serves for notes and an overall comment alone, but one of them must be asked for.
  else if (form.items.length === 0 && form.overall !== 'required' && form.minimumNotes === 0) {
    problems.push(problem('form-empty', ['items']));
  }
  problems.push(...checkWhole(form));
  const seen = new Set<string>([OVERALL_ID]);
  form.items.forEach((item, index) => {
    const at: Path = ['items', index];
    if (seen.has(item.id)) problems.push(problem('item-duplicate', [...at, 'id'], { id: item.id }));
    seen.add(item.id);
    if (item.title.trim() === '') problems.push(problem('item-untitled', [...at, 'title'], { number: index + 1 }));
    problems.push(...checkItem(item, at));
    if (!(item.weight >= 0 && item.weight <= MAX_WEIGHT)) {
      problems.push(problem('weight-invalid', [...at, 'weight'], { ...named(item, at), max: MAX_WEIGHT }));
    }
  });
  return problems;
}

function checkWhole(form: ReviewForm): Problem[] {
  const problems: Problem[] = [];
  const whole = (value: number, max: number) => Number.isInteger(value) && value >= 0 && value <= max;
  if (!whole(form.overallWords, MAX_MINIMUM_WORDS)) {
    problems.push(problem('words-invalid', ['overallWords'], { number: 0, max: MAX_MINIMUM_WORDS }));
  }
  for (const name of ['minimumNotes', 'targetNotes'] as const) {
    if (!whole(form[name], MAX_NOTES)) problems.push(problem('notes-invalid', [name], { max: MAX_NOTES }));
  }
  if (form.targetNotes > 0 && form.targetNotes < form.minimumNotes) {
    const facts = { target: form.targetNotes, minimum: form.minimumNotes };
    problems.push(problem('target-below-minimum', ['targetNotes'], facts));
  }
  const scored = form.items.some((item) => itemMaximum(item) !== null);
  if (form.weighting === 'weights' && scored && weightSum(form) === 0)
    problems.push(problem('weights-zero', ['weighting']));
  return problems;
}

function named(item: FormItem, at: Path): { number: number; title: string } {
  return { number: at[1] + 1, title: item.title };
}

function checkItem(item: FormItem, at: Path): Problem[] {
  switch (item.kind) {
    case 'criterion':
      return checkLevels(item, at);
    case 'range':
      return checkBands(item, at);
    case 'checklist':
      return checkEntries(item, at);
    case 'prompt':
    case 'pair': {
      const { minimumWords } = item;
      if (Number.isInteger(minimumWords) && minimumWords >= 0 && minimumWords <= MAX_MINIMUM_WORDS) return [];
      return [problem('words-invalid', [...at, 'minimumWords'], { number: at[1] + 1, max: MAX_MINIMUM_WORDS })];
    }
    case 'number':
      return checkBounds(item, at);
    case 'choice': {
      const parts = item.options.map(({ id, title }) => ({ id, text: title }));
      return [
        ...(item.options.length < 2 ? [problem('options-too-few', [...at, 'options'], named(item, at))] : []),
        ...checkParts(item, at, 'options', parts, 'option-untitled'),
      ];
    }
  }
}

/** Ids once each, and a name for every part. */
function checkParts(
  item: FormItem,
  at: Path,
  list: string,
  parts: ReadonlyArray<{ readonly id: string; readonly text: string }>,
  untitled: FormProblemCode,
): Problem[] {
  const problems: Problem[] = [];
  const ids = new Set<string>();
  parts.forEach(({ id, text }, index) => {
    const facts = { ...named(item, at), part: index + 1 };
    if (ids.has(id)) problems.push(problem('part-duplicate', [...at, list, index, 'id'], { ...facts, id }));
    ids.add(id);
    if (text.trim() === '') problems.push(problem(untitled, [...at, list, index], facts));
  });
  return problems;
}

function pointsFit(points: number): boolean {
  const stepped = Math.abs(points * 10 - Math.round(points * 10)) < 1e-9;
  return Number.isFinite(points) && points >= 0 && points <= MAX_POINTS && stepped;
}

/** Points on all parts or on none, each from 0 to {@link MAX_POINTS} in steps of a tenth. */
function checkPoints(item: FormItem, at: Path, list: string, all: ReadonlyArray<number | null>): Problem[] {
  const problems: Problem[] = [];
  const given = all.filter((points) => points !== null).length;
  if (given > 0 && given < all.length) problems.push(problem('mixed-points', [...at, list], named(item, at)));
  all.forEach((points, index) => {
    if (points === null || pointsFit(points)) return;
    const facts = { ...named(item, at), part: index + 1, max: MAX_POINTS };
    problems.push(problem('points-invalid', [...at, list, index, 'points'], facts));
  });
  return problems;
}

function checkLevels(item: CriterionItem, at: Path): Problem[] {
  const problems: Problem[] = [];
  if (item.levels.length < MIN_LEVELS) problems.push(problem('levels-too-few', [...at, 'levels'], named(item, at)));
  const parts = item.levels.map(({ id, title }) => ({ id, text: title }));
  problems.push(...checkParts(item, at, 'levels', parts, 'level-untitled'));
  return [
    ...problems,
    ...checkPoints(
      item,
      at,
      'levels',
      item.levels.map(({ points }) => points),
    ),
  ];
}

function checkEntries(item: ChecklistItem, at: Path): Problem[] {
  const problems: Problem[] = [];
  if (item.entries.length === 0) problems.push(problem('entries-too-few', [...at, 'entries'], named(item, at)));
  problems.push(...checkParts(item, at, 'entries', item.entries, 'entry-empty'));
  return [
    ...problems,
    ...checkPoints(
      item,
      at,
      'entries',
      item.entries.map(({ points }) => points),
    ),
  ];
}

function checkBands(item: RangeItem, at: Path): Problem[] {
  const problems: Problem[] = [];
  const facts = named(item, at);
  if (item.bands.length === 0) problems.push(problem('bands-too-few', [...at, 'bands'], facts));
  if (!RANGE_STEPS.includes(item.step)) problems.push(problem('step-invalid', [...at, 'step'], facts));
  const parts = item.bands.map(({ id, title }) => ({ id, text: title }));
  problems.push(...checkParts(item, at, 'bands', parts, 'band-untitled'));
  let highest: number | null = null;
  item.bands.forEach(({ from, to }, index) => {
    const path = [...at, 'bands', index];
    const about = { ...facts, part: index + 1, from, to };
    if (!pointsFit(from) || !pointsFit(to)) {
      problems.push(problem('points-invalid', [...path, 'points'], { ...about, max: MAX_POINTS }));
    } else if (from > to) problems.push(problem('band-reversed', path, about));
    else if (highest !== null && from <= highest) problems.push(problem('bands-overlap', path, { ...about, highest }));
    highest = Math.max(highest ?? to, to);
  });
  return problems;
}

function checkBounds(item: NumberItem, at: Path): Problem[] {
  const { minimum, maximum } = item;
  const unreal = [minimum, maximum].some((bound) => bound !== null && !(Math.abs(bound) <= 1e9));
  if (!unreal && (minimum === null || maximum === null || minimum <= maximum)) return [];
  return [
    problem('bounds-reversed', [...at, 'minimum'], {
      ...named(item, at),
      minimum: minimum ?? 0,
      maximum: maximum ?? 0,
    }),
  ];
}
