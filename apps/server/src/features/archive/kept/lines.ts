import type Sqlite from 'better-sqlite3';
import { SETS, type PlainColumn, type PlainTable } from './tables.js';

export type Line = Record<string, unknown>;

/** Rows of one table, as they are kept, one after the other: none is in memory but the one at hand. */
export function* linesOf(connection: Sqlite.Database, table: PlainTable, exchangeId: string): Generator<Line> {
  const { columns, tableName, where, order } = table;
  const named = columns.map(({ kept }) => `"${kept}"`).join(', ');
  const by = order.map((column) => `"${column}"`).join(', ');
  const statement = connection.prepare<{ id: string }, Line>(
    `${SETS} SELECT ${named} FROM "${tableName}" WHERE ${where} ORDER BY ${by}`,
  );
  for (const row of statement.iterate({ id: exchangeId }))
    yield Object.fromEntries(columns.map((column) => [column.name, valueOf(column, row)]));
}

function valueOf({ kept, type }: PlainColumn, row: Line): unknown {
  const value = row[kept] ?? null;
  if (value === null) return null;
  if (type === 'boolean') return value === 1;
  return type === 'simple-json' ? (JSON.parse(value as string) as unknown) : value;
}
