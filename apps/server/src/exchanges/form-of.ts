import type { EntityManager } from 'typeorm';
import type { Place } from './access.js';
import { ReviewFormRow } from './entities.js';

/** The review form of the exchange that somebody is in. */
export function formOf(manager: EntityManager, { exchange }: Place): Promise<ReviewFormRow> {
  return manager.findOneByOrFail(ReviewFormRow, { id: exchange.formId });
}
