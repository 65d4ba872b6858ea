import type { EntityManager } from 'typeorm';
import { insertAll } from '../database/insert-all.js';
import type { Ids } from '../ids/ids.js';
import { mailHandler } from '../mail/mail-handler.js';
import type { MailSettings } from '../mail/queue-mail.js';
import { RecordEntry } from './entities.js';
import type { Happening } from './happening.js';

/** What handlers need beside the transaction. */
export interface HandlerContext {
  readonly now: number;
  readonly mail: MailSettings;
  readonly ids: Ids;
}

/** Runs inside the transaction in which something happened: both are kept, or neither. */
export type HappeningHandler = (
  happenings: readonly Happening[],
  manager: EntityManager,
  context: HandlerContext,
) => Promise<void>;

/** Writes the record. */
const recordHandler: HappeningHandler = async (happenings, manager, { now }) => {
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
export const HAPPENING_HANDLERS: readonly HappeningHandler[] = [recordHandler, mailHandler];
