import { inside, signedIn, staffOnly, type Row } from './row.js';

/** Allocation is for staff alone, all of it. */
export function allocating(exchange: string): Row[] {
  const base = '/api/exchanges/:exchangeId/allocation';
  const url = `${exchange}/allocation`;
  const wishes = { whom: 'anyone', reviewsEach: 1, avoid: null, mix: false, maxPerDraft: null };
  const plan = { revision: 99, wishes, schedule: 'command', at: null, party: 3, patience: 3 };
  const none = '00000000-0000-4000-8000-000000000000';
  return [
    { route: `POST ${base}/previews`, url: `${url}/previews`, body: { kind: 'repair', seed: 1 }, ...staffOnly(200) },
    { route: `DELETE ${base}/previews/:previewId`, url: `${url}/previews/${none}`, ...staffOnly(204) },
    { route: `GET ${base}/jobs/:jobId`, url: `${url}/jobs/${none}`, ...staffOnly(404) },
    { route: `DELETE ${base}/jobs/:jobId`, url: `${url}/jobs/${none}`, ...staffOnly(404) },
    { route: `POST ${base}`, url, body: { previewId: none }, ...staffOnly(409) },
    { route: `POST ${base}/undo`, url: `${url}/undo`, body: { step: 1 }, ...staffOnly(409) },
    {
      route: `POST ${base}/acts`,
      url: `${url}/acts`,
      body: { lock: [{ reviewerId: 'x', draftId: 'y' }] },
      ...staffOnly(404),
    },
    { route: `PUT ${base}/plan`, url: `${url}/plan`, body: plan, ...staffOnly(409) },
    { route: `PUT ${base}/extra`, url: `${url}/extra`, body: { personId: 'x', reviews: 1 }, ...staffOnly(404) },
    { route: `GET ${base}/file`, url: `${url}/file`, ...staffOnly(200) },
    {
      route: `POST ${base}/file`,
      url: `${url}/file`,
      body: { text: 'reviewer,draft\n', apply: false },
      ...staffOnly(200),
    },
  ];
}

/** Parts of drafts, and what staff do with hand-ins. Nothing that would change what later rows find. */
export function handingIn(exchange: string, draftOfBen: string): Row[] {
  const own = { instructor: 403, assistant: 403 } as const;
  const nothing = { ann: 404, ben: 404, cho: 404, ...inside } as const;
  const upload = { uploadId: '00000000-0000-4000-8000-000000000000' };
  const link = { url: 'https://example.org/', title: 'A map', about: '' };
  const ofBen = `${exchange}/drafts/${draftOfBen}`;
  const noPart = { instructor: 404, assistant: 404, ann: [403, 404, 404, 404], ben: 404, cho: 404, ...inside } as const;
  const parts = '/api/exchanges/:exchangeId/drafts/:draftId';
  const attachments = '/api/exchanges/:exchangeId/attachments';
  return [
    {
      route: 'PUT /api/exchanges/:exchangeId/draft/texts/:deliverableId',
      url: `${exchange}/draft/texts/none`,
      body: { revision: 0, html: '' },
      ...own,
      ...nothing,
    },
    {
      route: 'POST /api/exchanges/:exchangeId/draft/links/:deliverableId',
      url: `${exchange}/draft/links/none`,
      body: link,
      ...own,
      ...nothing,
    },
    {
      route: 'POST /api/exchanges/:exchangeId/draft/files',
      url: `${exchange}/draft/files`,
      body: upload,
      remark: 'of an upload that is not theirs',
      instructor: 404,
      assistant: 404,
      ...nothing,
    },
    {
      route: 'POST /api/exchanges/:exchangeId/draft/pictures',
      url: `${exchange}/draft/pictures`,
      body: upload,
      instructor: 404,
      assistant: 404,
      ...nothing,
      outsider: 404,
    },
    {
      route: 'PUT /api/exchanges/:exchangeId/draft/parts/:partId',
      url: `${exchange}/draft/parts/none`,
      body: link,
      ...own,
      ...nothing,
    },
    {
      route: 'PUT /api/exchanges/:exchangeId/draft/parts/:partId/hidden',
      url: `${exchange}/draft/parts/none/hidden`,
      body: { start: 0, end: 1, hide: true },
      ...own,
      ...nothing,
    },
    {
      route: 'DELETE /api/exchanges/:exchangeId/draft/parts/:partId',
      url: `${exchange}/draft/parts/none`,
      remark: 'what is gone already',
      ...own,
      ann: 204,
      ben: 204,
      cho: 204,
      ...inside,
    },
    {
      route: 'PUT /api/exchanges/:exchangeId/draft/order/:deliverableId',
      url: `${exchange}/draft/order/text`,
      body: { partIds: ['none'] },
      ...own,
      ann: 409,
      ben: 409,
      cho: 409,
      ...inside,
    },
    {
      route: 'GET /api/exchanges/:exchangeId/draft/check',
      url: `${exchange}/draft/check`,
      ...own,
      ann: [200, 403, 403, 403],
      ben: [200, 403, 403, 403],
      cho: [200, 403, 403, 403],
      ...inside,
    },
    {
      route: 'POST /api/exchanges/:exchangeId/draft/hide',
      url: `${exchange}/draft/hide`,
      body: { fingerprint: 'x'.repeat(43), key: 'none' },
      ...own,
      ann: [409, 403, 403, 403],
      ben: [409, 403, 403, 403],
      cho: [409, 403, 403, 403],
      ...inside,
    },
    {
      route: 'POST /api/exchanges/:exchangeId/draft/withdraw',
      url: `${exchange}/draft/withdraw`,
      remark: 'given to reviewers already',
      ...own,
      ann: [409, 403, 403, 403],
      ben: [409, 403, 403, 403],
      cho: [204, 403, 403, 403],
      ...inside,
    },
    {
      route: 'GET /api/exchanges/:exchangeId/drafts/:draftId/versions/:number',
      url: `${ofBen}/versions/1`,
      ...staffOnly(200),
    },
    { route: `GET ${parts}/parts/:partId/copy`, url: `${ofBen}/parts/none/copy`, ...noPart },
    { route: `GET ${parts}/parts/:partId/original`, url: `${ofBen}/parts/none/original`, ...noPart },
    { route: `GET ${parts}/parts/:partId/captions`, url: `${ofBen}/parts/none/captions`, ...noPart },
    { route: `GET ${parts}/pictures/:digest`, url: `${ofBen}/pictures/${'0'.repeat(64)}`, ...noPart },
    {
      route: `POST ${parts}/parts/:partId/copy-again`,
      url: `${ofBen}/parts/none/copy-again`,
      instructor: 404,
      assistant: 404,
      ann: 403,
      ben: 404,
      cho: 403,
      ...inside,
    },
    { route: 'GET /api/uploads', url: '/uploads', ...signedIn(200) },
    { route: 'POST /api/uploads', url: '/uploads', remark: 'for no exchange', ...signedIn(404) },
    ...(['HEAD', 'PATCH', 'DELETE'] as const).map((method) => ({
      route: `${method} /api/uploads/:id`,
      url: `/uploads/${upload.uploadId}`,
      remark: 'of nobody',
      ...signedIn(404),
    })),
    {
      route: `POST ${attachments}`,
      url: `${exchange}/attachments`,
      body: upload,
      remark: 'of an upload that is not theirs',
      ...staffOnly(404, 403),
    },
    { route: `DELETE ${attachments}/:attachmentId`, url: `${exchange}/attachments/none`, ...staffOnly(204, 403) },
    ...['', '/copy', '/original', '/pictures/:digest'].map((path) => ({
      route: `GET ${attachments}/:attachmentId${path}`,
      url: `${exchange}/attachments/none${path}`,
      remark: 'one that is not there; see attachments.spec',
      ...signedIn(404),
    })),
    { route: 'GET /api/exchanges/:exchangeId/archive', url: `${exchange}/archive`, ...staffOnly(200) },
    {
      route: 'POST /api/exchanges/:exchangeId/reminders/preview',
      url: `${exchange}/reminders/preview`,
      body: { participantIds: [], about: 'draft' },
      ...staffOnly(200),
    },
    {
      route: 'POST /api/exchanges/:exchangeId/reminders',
      url: `${exchange}/reminders`,
      body: { participantIds: ['none'], about: 'draft' },
      remark: 'to nobody',
      ...staffOnly(422),
    },
    {
      route: 'PUT /api/exchanges/:exchangeId/participants/:participantId/personal-dates',
      url: `${exchange}/participants/none/personal-dates`,
      body: { what: 'excuse', reason: '' },
      ...staffOnly(404, 403),
    },
    {
      route: 'POST /api/exchanges/:exchangeId/participants/:participantId/hand-in',
      url: `${exchange}/participants/none/hand-in`,
      body: { title: null },
      ...staffOnly(404),
    },
  ];
}
