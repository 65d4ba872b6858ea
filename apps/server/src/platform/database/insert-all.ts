import { setImmediate as pause } from 'node:timers/promises';
import type { EntityManager, EntityTarget, ObjectLiteral } from 'typeorm';
import type { QueryDeepPartialEntity } from 'typeorm/query-builder/QueryPartialEntity.js';

/** SQLite takes a bounded number of values in one statement. */
const CHUNK = 500;

/**
 * Inserts many rows. Without reading them back: that would match rows by their order, which the database
 * does not promise, and give the objects in hand each other's ids.
 */
export async function insertAll<T extends ObjectLiteral>(
  manager: EntityManager,
  entity: EntityTarget<T>,
  rows: ReadonlyArray<QueryDeepPartialEntity<T>>,
): Promise<void> {
  for (let from = 0; from < rows.length; from += CHUNK) {
    const some = rows.slice(from, from + CHUNK);
    await manager.createQueryBuilder().insert().into(entity).values(some).updateEntity(false).execute();
    // The driver works at once: without a pause, thousands of rows would keep everybody else waiting.
    if (from + CHUNK < rows.length) await pause();
  }
}
