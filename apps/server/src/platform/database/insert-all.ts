import { setImmediate as pause } from 'node:timers/promises';
import type { EntityManager, EntityTarget, ObjectLiteral } from 'typeorm';
import type { QueryDeepPartialEntity } from 'typeorm/query-builder/QueryPartialEntity.js';
import { portions } from './portions.js';

/**
 * Inserts many rows. Without reading them back: that would match rows by their order, which the database
 * does not promise, and give the objects in hand each other's ids.
 */
export async function insertAll<T extends ObjectLiteral>(
  manager: EntityManager,
  entity: EntityTarget<T>,
  rows: ReadonlyArray<QueryDeepPartialEntity<T>>,
): Promise<void> {
  let first = true;
  for (const some of portions(rows)) {
    // The driver works at once: without a pause, thousands of rows would keep everybody else waiting.
    if (!first) await pause();
    first = false;
    await manager.createQueryBuilder().insert().into(entity).values(some).updateEntity(false).execute();
  }
}
