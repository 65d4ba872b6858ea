import { join } from 'node:path';
import Sqlite from 'better-sqlite3';
import { DATABASE_FILE } from './data-source.js';

/**
 * A connection of its own that sees the database as it is now, whatever is written while it is read: for what takes minutes. Reading by it
 * waits for nobody, and nobody for it. Close it.
 */
export function snapshotOf(folder: string): Sqlite.Database {
  const connection = new Sqlite(join(folder, DATABASE_FILE), { readonly: true, fileMustExist: true });
  connection.exec('BEGIN');
  // A transaction sees what is there at its first reading.
  connection.prepare('SELECT 1 FROM setting LIMIT 1').get();
  return connection;
}
