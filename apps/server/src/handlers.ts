import { insertAll } from './platform/database/insert-all.js';
import { mailHandler } from './features/mail/mail-handler.js';
import { practiceHandler } from './features/practice/practice-handler.js';
import { RecordEntry } from './model/record.js';
import type { HappeningHandler } from './platform/record/handler.js';

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
export const HAPPENING_HANDLERS: readonly HappeningHandler[] = [recordHandler, practiceHandler, mailHandler];
