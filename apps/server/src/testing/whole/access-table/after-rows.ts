import { everyone, inside, staffOnly, type Row } from './row.js';

/** Open to authors once their feedback is. Nobody here has replies or a revision to hand in: the exchange has no dates for them. */
const ONCE_OPEN = [403, 403, 403, 200] as const;
const NOT_THERE = [403, 403, 403, 404] as const;
const AUTHORS = { instructor: 403, assistant: 403, ann: ONCE_OPEN, ben: ONCE_OPEN, cho: ONCE_OPEN, ...inside };
const NONE = { ...AUTHORS, ann: NOT_THERE, ben: NOT_THERE, cho: NOT_THERE };

/** What comes after the release: answers, ratings, decisions, reflection, revisions. Nothing that would change what later rows find. */
export function after({ id, byAnn }: { readonly id: string; readonly byAnn: string }, draftOfBen: string): Row[] {
  const exchange = `/exchanges/${id}`;
  const reply = { id: '0b7c1d55-52a4-4f0e-9d6a-3a3f6a1c9e10', noteId: null, itemId: 'none', words: 'Thank you.' };
  return [
    {
      route: 'GET /api/reviews/:reviewId/replies',
      url: `/reviews/${byAnn}/replies`,
      remark: 'by its reviewer, and by its author once that one reads it',
      ...{ instructor: 200, assistant: 200, ann: [403, 200, 200, 200], ben: [404, 404, 404, 200], cho: 404, ...inside },
    },
    {
      route: 'POST /api/reviews/:reviewId/replies',
      url: `/reviews/${byAnn}/replies`,
      body: reply,
      remark: 'staff, to something that is not there; students, where no replies are planned',
      ...{ instructor: 404, assistant: 404, ann: 403, ben: [404, 404, 404, 403], cho: 404, ...inside },
    },
    {
      route: 'PUT /api/reviews/:reviewId/rating',
      url: `/reviews/${byAnn}/rating`,
      body: { helped: 'some-use', words: '' },
      ...{ instructor: 403, assistant: 403, ann: 404, ben: [404, 404, 404, 200], cho: 404, ...inside },
    },
    {
      route: 'GET /api/reviews/:reviewId/others',
      url: `/reviews/${byAnn}/others`,
      remark: 'by its reviewer, where the plan says so',
      ...{ instructor: 404, assistant: 404, ann: 404, ben: 404, cho: 404, ...inside },
    },
    { route: 'GET /api/exchanges/:exchangeId/rounds', url: `${exchange}/rounds`, ...staffOnly(200) },
    {
      route: 'POST /api/exchanges/:exchangeId/rounds',
      url: `${exchange}/rounds`,
      body: {
        title: 'Again',
        reviewers: 'same',
        earlierShown: false,
        reviewsDue: '2026-05-01T00:00:00Z',
        release: null,
      },
      remark: 'without a revision',
      ...staffOnly(422, 403),
    },
    {
      route: 'GET /api/reviews/:reviewId/earlier',
      url: `/reviews/${byAnn}/earlier`,
      remark: 'whoever reads the review; of no second round',
      ...{ instructor: 200, assistant: 200, ann: [403, 200, 200, 200], ben: [404, 404, 404, 200], cho: 404, ...inside },
    },
    { route: 'GET /api/exchanges/:exchangeId/decisions', url: `${exchange}/decisions`, ...AUTHORS },
    {
      route: 'PUT /api/exchanges/:exchangeId/decisions/:key',
      url: `${exchange}/decisions/note.none`,
      body: { decision: 'there', why: '', done: false, revision: 0 },
      ...NONE,
    },
    {
      route: 'POST /api/exchanges/:exchangeId/adoptions',
      url: `${exchange}/adoptions`,
      body: { noteIds: ['none'] },
      remark: 'no revision can be handed in',
      ...{ ...AUTHORS, ann: 403, ben: 403, cho: 403 },
    },
    {
      route: 'DELETE /api/exchanges/:exchangeId/adoptions/:adoptionId',
      url: `${exchange}/adoptions/none`,
      ...NONE,
    },
    {
      route: 'GET /api/exchanges/:exchangeId/reflection',
      url: `${exchange}/reflection`,
      remark: 'none is asked for',
      ...NONE,
    },
    {
      route: 'PUT /api/exchanges/:exchangeId/reflection',
      url: `${exchange}/reflection`,
      body: { texts: [], revision: 0, handIn: false },
      remark: 'none is asked for',
      ...{ instructor: 403, assistant: 403, ann: 404, ben: 404, cho: 404, ...inside },
    },
    { route: 'GET /api/exchanges/:exchangeId/reflections', url: `${exchange}/reflections`, ...staffOnly(200) },
    { route: 'GET /api/exchanges/:exchangeId/after', url: `${exchange}/after`, ...staffOnly(200) },
    {
      route: 'GET /api/exchanges/:exchangeId/drafts/:draftId/revision',
      url: `${exchange}/drafts/${draftOfBen}/revision`,
      remark: 'its author once the feedback is there; reviewers where the plan says so',
      ...{ instructor: 200, assistant: 200, ann: 404, ben: [403, 403, 403, 200], cho: 404, ...inside },
    },
    {
      route: 'GET /api/exchanges/:exchangeId/participants/:participantId/story',
      url: `${exchange}/participants/none/story`,
      ...staffOnly(404),
    },
    { route: 'GET /api/inbox', url: '/inbox', ...everyone(200), nobody: 401 },
    { route: 'POST /api/inbox/read', url: '/inbox/read', body: { ids: ['none'] }, ...everyone(200), nobody: 401 },
    { route: 'PUT /api/inbox/mail', url: '/inbox/mail', body: { mailWish: 'at-once' }, ...everyone(200), nobody: 401 },
  ];
}
