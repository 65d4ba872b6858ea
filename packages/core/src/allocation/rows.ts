import { readHeader } from '../people/header.js';
import { problem, type CoreProblem } from '../problem.js';
import type { Pair } from './problem.js';
import { pairKey } from './pairKey.js';

type Column = 'reviewer' | 'draft' | 'fixed';

const COLUMNS: Readonly<Record<Column, readonly string[]>> = {
  reviewer: ['reviewer', 'revieweremail', 'reviewed by'],
  draft: ['draft', 'author', 'authoremail', 'draft by'],
  fixed: ['fixed', 'locked', 'held'],
};

/** The titles that are written; more are understood. */
export const ALLOCATION_CSV_HEADER: readonly Column[] = ['reviewer', 'draft', 'fixed'];

export type AllocationRowCode =
  | 'rows-empty'
  | 'column-missing'
  | 'column-twice'
  | 'reviewer-missing'
  | 'reviewer-unknown'
  | 'draft-missing'
  | 'draft-unknown'
  | 'own-draft'
  | 'pair-twice'
  | 'kept-apart'
  | 'fixed-unclear';

export interface AllocationRowProblem extends CoreProblem<AllocationRowCode> {
  /** From 1, the header included; 0 for the whole file. */
  readonly row: number;
}

export interface AllocationRows {
  readonly pairs: ReadonlyArray<Pair & { readonly fixed: boolean }>;
  readonly problems: readonly AllocationRowProblem[];
}

/** What may stand in a cell for somebody: an address, a campus id, or the title of a group; compared without case. */
export interface Named {
  readonly id: string;
  readonly names: readonly string[];
}

const YES = new Set(['yes', 'y', 'true', '1', 'x', 'fixed']);
const NO = new Set(['', 'no', 'n', 'false', '0']);

/** Reads an allocation, a row per review: who reviews, whose draft, and whether the pair is held. */
export function readAllocationRows(
  cells: ReadonlyArray<readonly string[]>,
  reviewers: readonly Named[],
  drafts: ReadonlyArray<Named & { readonly authorIds: readonly string[] }>,
  keptApart: readonly Pair[] = [],
): AllocationRows {
  const { columns, twice } = readHeader(cells[0] ?? [], COLUMNS);
  const problems: AllocationRowProblem[] = [];
  const report = (row: number, code: AllocationRowCode, facts: AllocationRowProblem['facts'] = {}) =>
    problems.push({ ...problem(code, [], facts), row });
  if (cells.length < 2) report(0, 'rows-empty');
  for (const column of twice) report(1, 'column-twice', { column });
  for (const column of ['reviewer', 'draft'] as const) {
    if (columns[column] === undefined) report(1, 'column-missing', { column });
  }
  if (problems.length > 0) return { pairs: [], problems };
  const reviewerOf = byName(reviewers);
  const draftOf = byName(drafts);
  const pairs: Array<Pair & { readonly fixed: boolean }> = [];
  const seen = new Map<string, number>();
  const apart = new Set(keptApart.map(pairKey));
  for (const [index, line] of cells.entries()) {
    const row = index + 1;
    if (index === 0 || line.every((cell) => cell.trim() === '')) continue;
    const cell = (column: Column) => (line[columns[column] ?? -1] ?? '').trim();
    const reviewer = reviewerOf.get(cell('reviewer').toLowerCase());
    const draft = draftOf.get(cell('draft').toLowerCase());
    if (cell('reviewer') === '') report(row, 'reviewer-missing');
    else if (reviewer === undefined) report(row, 'reviewer-unknown', { who: cell('reviewer') });
    if (cell('draft') === '') report(row, 'draft-missing');
    else if (draft === undefined) report(row, 'draft-unknown', { who: cell('draft') });
    const fixed = cell('fixed').toLowerCase();
    if (!YES.has(fixed) && !NO.has(fixed)) report(row, 'fixed-unclear', { value: cell('fixed') });
    if (reviewer === undefined || draft === undefined) continue;
    const pair = { reviewerId: reviewer.id, draftId: draft.id, fixed: YES.has(fixed) };
    const first = seen.get(pairKey(pair));
    if (draft.authorIds.includes(reviewer.id)) report(row, 'own-draft', { who: cell('reviewer') });
    else if (apart.has(pairKey(pair))) report(row, 'kept-apart', { who: cell('reviewer'), draft: cell('draft') });
    else if (first !== undefined) report(row, 'pair-twice', { first });
    else {
      seen.set(pairKey(pair), row);
      pairs.push(pair);
    }
  }
  return { pairs, problems };
}

function byName<T extends Named>(list: readonly T[]): Map<string, T> {
  return new Map(list.flatMap((one) => one.names.map((name) => [name.trim().toLowerCase(), one] as const)));
}
