import type { Pair } from '@salt-circle/core';
import type { AllocationView } from './allocation.js';

/** Rows of a board by what each is known by; a board of thousands has little else. */
const KEYS = {
  reviewers: ({ id }: AllocationView['reviewers'][number]) => id,
  drafts: ({ id }: AllocationView['drafts'][number]) => id,
  pairs: ({ reviewId }: AllocationView['pairs'][number]) => reviewId,
  earlier: pairOf,
  forbidden: pairOf,
} as const;

type List = keyof typeof KEYS;
const LISTS = Object.keys(KEYS) as List[];

function pairOf({ reviewerId, draftId }: Pair): string {
  return `${reviewerId} ${draftId}`;
}

interface RowChanges {
  /** Keys of rows that are gone. */
  readonly gone: readonly string[];
  /** Rows that are other than they were, and after them new ones. */
  readonly put: readonly unknown[];
}

/** What a board is, told from what it was. */
export interface BoardChange {
  readonly asOf: number;
  /** The board that it is told from. */
  readonly since: number;
  /** Fields that differ, as they are now; lists whose order differs as well. */
  readonly fields: Partial<AllocationView>;
  readonly rows: Partial<Record<List, RowChanges>>;
}

/** Two answers of one server: what is written the same is the same. */
const same = (a: unknown, b: unknown) => a === b || JSON.stringify(a) === JSON.stringify(b);

/** What somebody who has the board `before` is to be told to have the board `after`. */
export function boardChange(before: AllocationView, after: AllocationView): BoardChange {
  const fields: Record<string, unknown> = {};
  const rows: Partial<Record<List, RowChanges>> = {};
  for (const name of Object.keys(after) as Array<keyof AllocationView>) {
    if (name === 'asOf' || same(before[name], after[name])) continue;
    const changes = isList(name) ? rowChanges(name, before, after) : null;
    if (changes === null) fields[name] = after[name];
    else rows[name as List] = changes;
  }
  return { asOf: after.asOf, since: before.asOf, fields, rows };
}

/** The board as it is now, from the one that somebody has. */
export function changedBoard(before: AllocationView, { asOf, fields, rows }: BoardChange): AllocationView {
  const lists = Object.entries(rows).map(([name, changes]) => [name, changedRows(name as List, before, changes)]);
  return { ...before, ...fields, ...(Object.fromEntries(lists) as Partial<AllocationView>), asOf };
}

function isList(name: keyof AllocationView): name is List {
  return (LISTS as string[]).includes(name);
}

/** Null where rows have changed places: then the whole list is told. */
function rowChanges(name: List, before: AllocationView, after: AllocationView): RowChanges | null {
  const key = KEYS[name] as (row: unknown) => string;
  const now = new Set(after[name].map(key));
  const old = new Map(before[name].map((row) => [key(row), row]));
  const gone = [...old.keys()].filter((one) => !now.has(one));
  const put = after[name].filter((row) => !same(old.get(key(row)), row));
  const told = changedRows(name, before, { gone, put });
  const inOrder = told.length === after[name].length && told.every((row, at) => key(row) === key(after[name][at]));
  return inOrder ? { gone, put } : null;
}

function changedRows(name: List, before: AllocationView, { gone, put }: RowChanges): readonly unknown[] {
  const key = KEYS[name] as (row: unknown) => string;
  const without = new Set(gone);
  const other = new Map(put.map((row) => [key(row), row]));
  const kept = before[name].filter((row) => !without.has(key(row)));
  const known = new Set(kept.map(key));
  return [...kept.map((row) => other.get(key(row)) ?? row), ...put.filter((row) => !known.has(key(row)))];
}
