import type { ReviewForm } from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import type { Place } from './access.js';
import { ReviewFormRow } from '../model/exchange.js';

/** The review form of the exchange that somebody is in. */
export async function formOf(manager: EntityManager, { exchange }: Pick<Place, 'exchange'>): Promise<ReviewForm> {
  return asForm(await manager.findOneByOrFail(ReviewFormRow, { id: exchange.formId }));
}

/** A row as the form that it holds, without whose it is. */
export function asForm(row: ReviewFormRow): ReviewForm {
  const { items, weighting, overall, overallWords, minimumNotes, targetNotes } = row;
  return { items, weighting, overall, overallWords, minimumNotes, targetNotes };
}
