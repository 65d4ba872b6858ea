import { EMPTY_FORM, type ReviewForm } from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import type { Ids } from '../platform/ids/ids.js';
import { Exchange, ReviewFormRow } from '../model/exchange.js';
import { say } from '../words/access.js';

type NewExchange = Pick<Exchange, 'id' | 'courseId' | 'title' | 'createdAt'> & Partial<Exchange>;

/** A new exchange in planning, with a form of its own. */
export async function insertExchange(
  manager: EntityManager,
  ids: Ids,
  row: NewExchange,
  form: ReviewForm = EMPTY_FORM,
): Promise<void> {
  const formId = ids.uuid();
  await manager.insert(ReviewFormRow, {
    id: formId,
    courseId: row.courseId,
    ...form,
    items: [...form.items],
    revision: 1,
  });
  await manager.insert(Exchange, {
    briefHtml: '',
    guideHtml: '',
    reviewsPerStudent: 2,
    names: 'both-ways',
    deliverables: [
      {
        id: ids.uuid(),
        kind: 'text',
        title: say('draft'),
        description: '',
        required: true,
        families: [],
        maxMegabytes: 50,
      },
    ],
    ...row,
    formId,
    revision: 1,
  });
}
