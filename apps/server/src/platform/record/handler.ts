import type { EntityManager } from 'typeorm';
import type { Ids } from '../ids/ids.js';
import type { MailSettings } from '../config/settings.js';
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
