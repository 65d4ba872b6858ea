import { itemMaximum, type FormItem, type ReviewForm } from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import type { ExchangeContext } from '../permissions/access.js';
import { ReviewFormRow } from '../model/exchange.js';
import type { Review } from '../model/review.js';

/** The review form of the exchange that somebody is in. */
export async function formOf(
  manager: EntityManager,
  { exchange }: Pick<ExchangeContext, 'exchange'>,
): Promise<ReviewForm> {
  return asForm(await manager.findOneByOrFail(ReviewFormRow, { id: exchange.formId }));
}

/**
 * The form as one review is written by it: of staff, who mark under their own names, marks are asked, but no words and no notes,
 * and by the form that they chose for it.
 */
export async function formFor(
  manager: EntityManager,
  around: Pick<ExchangeContext, 'exchange'>,
  { voice, ownForm }: Pick<Review, 'voice' | 'ownForm'>,
): Promise<ReviewForm> {
  const form = ownForm ?? (await formOf(manager, around));
  if (voice === null) return form;
  return { ...form, items: form.items.map(marksAlone), overall: atWill(form.overall), minimumNotes: 0, targetNotes: 0 };
}

function marksAlone(item: FormItem): FormItem {
  const free = { required: item.required && itemMaximum(item) !== null };
  return 'comment' in item ? { ...item, ...free, comment: atWill(item.comment) } : { ...item, ...free };
}

function atWill<Asked extends string>(asked: Asked): Asked | 'optional' {
  return asked === 'required' ? 'optional' : asked;
}

/** A row as the form that it holds, without whose it is. */
export function asForm(row: ReviewFormRow): ReviewForm {
  const { items, weighting, overall, overallWords, minimumNotes, targetNotes } = row;
  return { items, weighting, overall, overallWords, minimumNotes, targetNotes };
}
