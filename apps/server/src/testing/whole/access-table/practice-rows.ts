import { inside, signedIn, staffOnly, type Row } from './row.js';

/** A practice draft with a key, which `ann` has tried. */
export function practising(exchangeId: string, practiceId: string, keyId: string): Row[] {
  const none = '00000000-0000-4000-8000-000000000000';
  const list = `/api/exchanges/:exchangeId/practice`;
  const url = `/exchanges/${exchangeId}/practice`;
  const given = { from: 'draft', title: 'A sample', draftId: none, consent: 'By mail.' };
  const open = [200, 200, 403, 403] as const;
  const theirs = { ann: 404, ben: 404, cho: 404, ...inside };
  return [
    { route: `GET ${list}`, url, ...signedIn(200), ...inside },
    { route: `POST ${list}`, url, body: given, ...staffOnly(404, 403) },
    { route: 'DELETE /api/practice/:practiceId', url: `/practice/${none}`, ...signedIn(404) },
    {
      route: 'POST /api/practice/:practiceId/begin',
      url: `/practice/${practiceId}/begin`,
      body: { again: false },
      ...{ instructor: 404, assistant: 403, ann: open, ben: open, cho: open, ...inside },
    },
    {
      route: 'GET /api/practice/:practiceId/result',
      url: `/practice/${practiceId}/result`,
      ...{ instructor: 404, assistant: 404, ann: 200, ben: 404, cho: 404, ...inside },
    },
    {
      route: 'GET /api/reviews/:reviewId',
      url: `/reviews/${keyId}`,
      remark: 'the key of a practice draft',
      ...{ instructor: 200, assistant: 200, ...theirs },
    },
  ];
}
