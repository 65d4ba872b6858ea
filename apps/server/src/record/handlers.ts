import type { EntityManager } from 'typeorm';
import { insertAll } from '../database/insert-all.js';
import { RecordEntry } from './entities.js';
import type { Happening } from './happening.js';

/** Runs inside the transaction in which something happened: both are kept, or neither. */
export type HappeningHandler = (happenings: readonly Happening[], manager: EntityManager, now: number) => Promise<void>;

/** Writes the record. */
const recordHandler: HappeningHandler = async (happenings, manager, now) => {
  await insertAll(
    manager,
    RecordEntry,
    happenings.map((one) => ({
      at: now,
      actorId: one.actorId,
      action: one.action,
      courseId: one.courseId ?? null,
      exchangeId: one.exchangeId ?? null,
      details: { ...one.details },
    })),
  );
};

/** All side concerns of what happens, in the order in which they run. */
export const HAPPENING_HANDLERS: readonly HappeningHandler[] = [recordHandler];
