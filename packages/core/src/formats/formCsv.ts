import { EMPTY_FORM, type CriterionItem, type FormItem, type Level, type PromptItem } from '../form/form.js';
import { problem } from '../problem.js';
import { readHeader } from '../people/header.js';
import type { FormReading, TitledForm } from './formFile.js';
import type { FileProblem } from './structure.js';

export const FORM_CSV_HEADER = ['criterion', 'level', 'description', 'points'] as const;

type Column = (typeof FORM_CSV_HEADER)[number];

const COLUMNS: Readonly<Record<Column, readonly string[]>> = {
  criterion: ['criterion', 'criteria', 'item', 'question'],
  level: ['level', 'rating', 'levelname'],
  description: ['description', 'descriptor', 'meaning'],
  points: ['points', 'score', 'marks'],
};

/**
 * Rows of a form as people keep them in a spreadsheet: one per level, with the criterion's name in the first
 * of its rows or in all of them. A row without level and points is a prompt, its description the guidance.
 * Kinds of items that such a table cannot tell are left out and named.
 */
export function writeFormRows({ form }: TitledForm): {
  readonly rows: string[][];
  readonly leftOut: readonly FormItem[];
} {
  const rows: string[][] = [[...FORM_CSV_HEADER]];
  const leftOut: FormItem[] = [];
  for (const item of form.items) {
    if (item.kind === 'prompt') rows.push([item.title, '', item.guidance, '']);
    else if (item.kind === 'criterion') {
      for (const { title, description, points } of item.levels) {
        rows.push([item.title, title, description, points === null ? '' : String(points)]);
      }
    } else leftOut.push(item);
  }
  return { rows, leftOut };
}

/** Points as people type them: with a comma or a point, and perhaps the word after them. */
function readPoints(cell: string): number | null {
  const match = /^(-?\d+(?:[.,]\d+)?)\s*(?:p|pts?|points?)?\.?$/iu.exec(cell);
  return match === null ? null : Number((match[1] as string).replace(',', '.'));
}

/** Reads rows as {@link writeFormRows} writes them; columns in any order, under several names. */
export function readFormRows(
  cells: ReadonlyArray<readonly string[]>,
  title: string,
  makeId: () => string,
): FormReading {
  const header = readHeader(cells[0] ?? [], COLUMNS);
  const problems: FileProblem[] = [];
  if (cells.length < 2) problems.push(problem('file-empty', []));
  for (const column of ['criterion', 'level'] as const) {
    if (header.columns[column] === undefined) problems.push(problem('column-missing', [1], { column }));
  }
  if (problems.length > 0) return { found: null, problems, ignored: header.unknown };

  const items: FormItem[] = [];
  let levels: Level[] = [];
  cells.forEach((line, index) => {
    if (index === 0 || line.every((cell) => cell.trim() === '')) return;
    const row = index + 1;
    const cell = (column: Column) => (line[header.columns[column] ?? -1] ?? '').trim();
    const [name, level, description, points] = FORM_CSV_HEADER.map(cell) as [string, string, string, string];
    const last = items.at(-1);
    const value = points === '' ? null : readPoints(points);
    if (points !== '' && value === null) problems.push(problem('points-not-a-number', [row], { row, value: points }));
    if (level === '' && points === '') {
      if (name === '') problems.push(problem('row-without-criterion', [row], { row }));
      else items.push(promptOf(makeId(), name, description));
      return;
    }
    if (name === '' && last?.kind !== 'criterion') {
      problems.push(problem('row-without-criterion', [row], { row }));
      return;
    }
    const next: Level = { id: makeId(), title: level === '' ? points : level, description, points: value };
    if (last?.kind === 'criterion' && (name === '' || name === last.title)) levels.push(next);
    else {
      levels = [next];
      items.push(criterionOf(makeId(), name, levels));
    }
  });
  return { found: { title, form: { ...EMPTY_FORM, items } }, problems, ignored: header.unknown };
}

function criterionOf(id: string, title: string, levels: readonly Level[]): CriterionItem {
  return { kind: 'criterion', id, title, guidance: '', required: true, weight: 1, levels, comment: 'optional' };
}

function promptOf(id: string, title: string, guidance: string): PromptItem {
  return { kind: 'prompt', id, title, guidance, required: true, weight: 1, minimumWords: 0 };
}
