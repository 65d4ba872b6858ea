import type { EntityManager } from 'typeorm';
import type { Ids } from '../ids/ids.js';
import type { MailSettings } from '../config/settings.js';
import type { DomainEvent } from './domain-event.js';

/** What handlers need beside the transaction. */
export interface HandlerContext {
  readonly now: number;
  readonly mail: MailSettings;
  readonly ids: Ids;
}

/** Runs inside the transaction in which something happened: both are kept, or neither. */
export type EventHandler = (
  events: readonly DomainEvent[],
  manager: EntityManager,
  context: HandlerContext,
) => Promise<void>;
