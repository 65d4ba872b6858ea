import { insertAll } from './platform/database/insert-all.js';
import { mailHandler } from './features/mail/mail-handler.js';
import { practiceHandler } from './features/practice/practice-handler.js';
import { AuditEntry } from './model/audit-entry.js';
import { EVENT_VERSION } from './platform/events/past-events.js';
import type { EventHandler } from './platform/events/event-handler.js';

/** Writes the audit log. */
const auditHandler: EventHandler = async (events, manager, { now }) => {
  await insertAll(
    manager,
    AuditEntry,
    events.map((one) => ({
      at: now,
      actorId: one.actorId,
      action: one.action,
      courseId: one.courseId ?? null,
      exchangeId: one.exchangeId ?? null,
      details: { ...one.details },
      version: EVENT_VERSION,
    })),
  );
};

/** All side concerns of what happens, in the order in which they run. */
export const EVENT_HANDLERS: readonly EventHandler[] = [auditHandler, practiceHandler, mailHandler];
