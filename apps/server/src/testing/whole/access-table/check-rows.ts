import { DEFAULT_FLAGGING_RULES } from '@salt-circle/core';
import { inside, staffOnly, type Row } from './row.js';

/** Before reviewing opens she has none. */
const REVIEWER = [403, 200, 200, 200] as const;
const ASKS = [403, 201, 201, 201] as const;

/** Looking through submitted reviews, and keeping things of them from authors. Nothing that would change what later rows find. */
export function checking({ id, byAnn }: { readonly id: string; readonly byAnn: string }, draftOfBen: string): Row[] {
  const review = `/reviews/${byAnn}`;
  const nothing = { kind: 'note', targetId: 'none' };
  // Of a review that they have nothing to do with, students learn no more than of one that is not there.
  const staff = { ...staffOnly(200), ...inside };
  return [
    { route: 'GET /api/exchanges/:exchangeId/queue', url: `/exchanges/${id}/queue`, ...staffOnly(200) },
    {
      route: 'PUT /api/exchanges/:exchangeId/queue/bounds',
      url: `/exchanges/${id}/queue/bounds`,
      body: { bounds: DEFAULT_FLAGGING_RULES },
      ...staffOnly(204, 403),
    },
    {
      route: 'POST /api/exchanges/:exchangeId/drafts/:draftId/reviews',
      url: `/exchanges/${id}/drafts/${draftOfBen}/reviews`,
      ...staffOnly(REVIEWER),
    },
    { route: 'GET /api/exchanges/:exchangeId/release', url: `/exchanges/${id}/release`, ...staffOnly(200) },
    {
      route: 'PUT /api/exchanges/:exchangeId/release/people',
      url: `/exchanges/${id}/release/people`,
      body: { participantIds: ['none'], how: 'early' },
      ...staffOnly(404, 403),
    },
    { route: 'GET /api/reviews/:reviewId/check', url: `${review}/check`, ...staff },
    {
      route: 'PUT /api/reviews/:reviewId/check',
      url: `${review}/check`,
      body: { looked: true, dismissed: [] },
      ...staff,
    },
    {
      route: 'GET /api/reviews/:reviewId/look-requests',
      url: `${review}/look-requests`,
      remark: 'by its reviewer, and by its author once that one reads it',
      ...{ instructor: 200, assistant: 200, ann: REVIEWER, ben: [404, 404, 404, 200], cho: 404, ...inside },
    },
    {
      route: 'POST /api/reviews/:reviewId/look-requests',
      url: `${review}/look-requests`,
      body: { noteId: null, words: 'Is this about my draft?' },
      ...{ instructor: 403, assistant: 403, ann: ASKS, ben: [404, 404, 404, 201], cho: 404, ...inside },
    },
    {
      route: 'PUT /api/reviews/:reviewId/look-requests/:requestId',
      url: `${review}/look-requests/none`,
      body: { answer: 'Yes.' },
      ...staffOnly(404),
    },
    {
      route: 'PUT /api/reviews/:reviewId/withheld',
      url: `${review}/withheld`,
      body: { ...nothing, reason: 'No.', told: true, counts: true },
      ...staffOnly(404),
    },
    {
      route: 'POST /api/reviews/:reviewId/given-back',
      url: `${review}/given-back`,
      body: nothing,
      ...staffOnly(204),
    },
  ];
}
