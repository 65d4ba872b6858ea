import {
  ANN,
  AT,
  BEN,
  CHO,
  DATES,
  fillIn,
  INES,
  FORM,
  NOTE_ID,
  OUT,
  PLAN,
  reviewedExchange,
  TOM,
  World,
} from '../world.js';

/** Parts of drafts, and what staff do with hand-ins. Nothing that would change what later rows find. */
/** Allocation is for staff alone, all of it. */
function allocating(exchange: string): Row[] {
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
    { route: `POST ${base}/undo`, url: `${url}/undo`, ...staffOnly(409) },
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

function handingIn(exchange: string, draftOfBen: string): Row[] {
  const own = { instructor: 403, assistant: 403 } as const;
  const nothing = { ann: 404, ben: 404, cho: 404, ...inside } as const;
  const upload = { uploadId: '00000000-0000-4000-8000-000000000000' };
  const link = { url: 'https://example.org/', title: 'A map', about: '' };
  const ofBen = `${exchange}/drafts/${draftOfBen}`;
  const noPart = { instructor: 404, assistant: 404, ann: [403, 404, 404, 404], ben: 404, cho: 404, ...inside } as const;
  const parts = '/api/exchanges/:exchangeId/drafts/:draftId';
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
    { route: 'POST /api/uploads', url: '/uploads', remark: 'for no exchange', ...signedIn(404) },
    ...(['HEAD', 'PATCH', 'DELETE'] as const).map((method) => ({
      route: `${method} /api/uploads/:id`,
      url: `/uploads/${upload.uploadId}`,
      remark: 'of nobody',
      ...signedIn(404),
    })),
    { route: 'GET /api/exchanges/:exchangeId/archive', url: `${exchange}/archive`, ...staffOnly(200) },
    {
      route: 'POST /api/exchanges/:exchangeId/reminders/preview',
      url: `${exchange}/reminders/preview`,
      body: { participantIds: [] },
      ...staffOnly(200),
    },
    {
      route: 'POST /api/exchanges/:exchangeId/reminders',
      url: `${exchange}/reminders`,
      body: { participantIds: ['none'] },
      remark: 'to nobody',
      ...staffOnly(422),
    },
    {
      route: 'PUT /api/exchanges/:exchangeId/participants/:participantId/own-times',
      url: `${exchange}/participants/none/own-times`,
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

type Stage = 'drafting' | 'reviewing' | 'checking' | 'closed';
const STAGES: readonly Stage[] = ['drafting', 'reviewing', 'checking', 'closed'];

/** One status for all stages, or one for each, in the order of STAGES. */
type Expected = number | readonly [number, number, number, number];

interface Row {
  /** As the router knows it. */
  readonly route: string;
  readonly url: string;
  readonly body?: object;
  readonly remark?: string;
  readonly instructor: Expected;
  readonly assistant: Expected;
  /** Reviewed the draft of `ben` and submitted. */
  readonly ann: Expected;
  /** Has not submitted the review of the draft of `ann`. */
  readonly ben: Expected;
  /** A student who has not handed in. */
  readonly cho: Expected;
  /** Of another course. */
  readonly outsider: Expected;
  readonly nobody: Expected;
}

const everyone = (status: number) => ({
  instructor: status,
  assistant: status,
  ann: status,
  ben: status,
  cho: status,
  outsider: status,
  nobody: status,
});
const signedIn = (status: number) => ({ ...everyone(status), nobody: 401 });
/** Of the course, but nobody else. */
const inside = { outsider: 404, nobody: 401 };
const staffOnly = (status: Expected, assistant: Expected = status) => ({
  instructor: status,
  assistant,
  ann: 403,
  ben: 403,
  cho: 403,
  ...inside,
});

/**
 * Requests that change something are made so that they fail after the gate: a revision of long ago is a
 * conflict (409), a wrong date is invalid (422). What counts is whether they come that far.
 */
function table({ id, byAnn, byBen }: { id: string; byAnn: string; byBen: string }, draftOfBen: string): Row[] {
  const exchange = `/exchanges/${id}`;
  const old = 999;
  const note = {
    kind: 'ask',
    body: 'How?',
    place: {
      version: 1,
      partId: 'x',
      selector: {
        type: 'text',
        quote: { type: 'TextQuoteSelector', exact: 'bed', prefix: '', suffix: '' },
        position: { type: 'TextPositionSelector', start: 4, end: 7 },
      },
    },
  };
  return [
    { route: 'GET /api/health', url: '/health', ...everyone(200) },
    { route: 'GET /api/session', url: '/session', ...everyone(200) },
    { route: 'GET /api/changes', url: '/changes', ...everyone(200), nobody: 401 },
    {
      route: 'POST /api/session',
      url: '/session',
      body: { email: 'nobody@example.org', password: 'x' },
      ...everyone(401),
    },
    { route: 'DELETE /api/session', url: '/session', remark: 'ends the session; tried with none', ...everyone(204) },
    { route: 'GET /api/demo/people', url: '/demo/people', ...everyone(200) },
    { route: 'POST /api/demo/step-in', url: '/demo/step-in', body: { personId: 'unknown' }, ...everyone(404) },
    { route: 'POST /api/demo/clock', url: '/demo/clock', body: { to: 'yesterday' }, ...everyone(422) },
    { route: 'GET /api/today', url: '/today', ...signedIn(200) },
    { route: 'GET /api/courses', url: '/courses', ...signedIn(200) },
    {
      route: 'POST /api/courses',
      url: '/courses',
      body: { title: 'New', timeZone: 'Nowhere/Here' },
      ...signedIn(403),
      instructor: 422,
    },
    { route: 'GET /api/courses/:courseId', url: '/courses/course', ...signedIn(200), ...inside },
    {
      route: 'POST /api/courses/:courseId/exchanges',
      url: '/courses/course/exchanges',
      body: { title: 'Another' },
      ...staffOnly(201, 403),
    },
    { route: 'GET /api/exchanges/:exchangeId', url: exchange, ...signedIn(200), ...inside },
    ...courseRows(id),
    { route: 'GET /api/exchanges/:exchangeId/record', url: `${exchange}/record`, ...staffOnly(200) },
    { route: 'GET /api/exchanges/:exchangeId/plan', url: `${exchange}/plan`, ...staffOnly(200) },
    {
      route: 'PUT /api/exchanges/:exchangeId/plan',
      url: `${exchange}/plan`,
      body: { ...PLAN, title: 'Changed', revision: old },
      ...staffOnly(409, 403),
    },
    { route: 'POST /api/exchanges/:exchangeId/publish', url: `${exchange}/publish`, ...staffOnly(409, 403) },
    {
      route: 'POST /api/exchanges/:exchangeId/release',
      url: `${exchange}/release`,
      body: { at: DATES.draftsOpen },
      ...staffOnly(422, 403),
    },
    { route: 'GET /api/exchanges/:exchangeId/form', url: `${exchange}/form`, ...signedIn(200), ...inside },
    {
      route: 'PUT /api/exchanges/:exchangeId/form',
      url: `${exchange}/form`,
      body: { ...FORM, revision: old, items: [] },
      remark: 'frozen for instructors',
      ...staffOnly(409, 403),
    },
    {
      route: 'GET /api/exchanges/:exchangeId/draft',
      url: `${exchange}/draft`,
      instructor: 403,
      assistant: 403,
      ann: 200,
      ben: 200,
      cho: 200,
      ...inside,
    },
    {
      route: 'PUT /api/exchanges/:exchangeId/draft',
      url: `${exchange}/draft`,
      body: { revision: old, title: 'Changed', context: '' },
      remark: 'typed text is kept even when it is too late to count',
      instructor: 403,
      assistant: 403,
      ann: 409,
      ben: 409,
      cho: 409,
      ...inside,
    },
    {
      route: 'POST /api/exchanges/:exchangeId/draft/hand-in',
      url: `${exchange}/draft/hand-in`,
      body: { fingerprint: 'x'.repeat(43), namesSeen: true },
      instructor: 403,
      assistant: 403,
      ann: [409, 403, 403, 403],
      ben: [409, 403, 403, 403],
      cho: [422, 403, 403, 403],
      ...inside,
    },
    {
      route: 'GET /api/exchanges/:exchangeId/draft/versions/:number',
      url: `${exchange}/draft/versions/1`,
      instructor: 403,
      assistant: 403,
      ann: 200,
      ben: 200,
      cho: 404,
      ...inside,
    },
    {
      route: 'GET /api/exchanges/:exchangeId/drafts/:draftId',
      url: `${exchange}/drafts/${draftOfBen}`,
      instructor: 200,
      assistant: 200,
      ann: [403, 200, 200, 200],
      ben: 404,
      cho: 404,
      ...inside,
    },
    ...handingIn(exchange, draftOfBen),
    { route: 'GET /api/exchanges/:exchangeId/allocation', url: `${exchange}/allocation`, ...staffOnly(200) },
    ...allocating(exchange),
    {
      route: 'GET /api/exchanges/:exchangeId/reviews',
      url: `${exchange}/reviews`,
      instructor: 403,
      assistant: 403,
      ann: [403, 200, 200, 200],
      ben: [403, 200, 200, 200],
      cho: 403,
      ...inside,
    },
    { route: 'GET /api/exchanges/:exchangeId/progress', url: `${exchange}/progress`, ...staffOnly(200) },
    {
      route: 'GET /api/exchanges/:exchangeId/feedback',
      url: `${exchange}/feedback`,
      instructor: 403,
      assistant: 403,
      ann: [403, 403, 403, 200],
      ben: [403, 403, 403, 200],
      cho: [403, 403, 403, 200],
      ...inside,
    },
    {
      route: 'GET /api/reviews/:reviewId',
      url: `/reviews/${byAnn}`,
      remark: 'submitted',
      instructor: 200,
      assistant: 200,
      ann: [403, 200, 200, 200],
      ben: [404, 404, 404, 200],
      cho: 404,
      ...inside,
    },
    {
      route: 'GET /api/reviews/:reviewId',
      url: `/reviews/${byBen}`,
      remark: 'never submitted',
      instructor: 200,
      assistant: 200,
      ann: 404,
      ben: [403, 200, 200, 200],
      cho: 404,
      ...inside,
    },
    ...[
      {
        route: 'PUT /api/reviews/:reviewId/answers/:itemId',
        path: 'answers/evidence',
        body: { revision: old, levelId: 'low' },
        gate: 409,
      },
      {
        route: 'PUT /api/reviews/:reviewId/notes/:noteId',
        path: `notes/${NOTE_ID}`,
        body: { ...note, revision: old },
        gate: 409,
      },
      { route: 'DELETE /api/reviews/:reviewId/notes/:noteId', path: `notes/${NOTE_ID}`, body: undefined, gate: 204 },
    ].flatMap(({ route, path, body, gate }): Row[] => {
      const sent = body === undefined ? {} : { body };
      return [
        {
          route,
          url: `/reviews/${byAnn}/${path}`,
          ...sent,
          remark: 'submitted',
          instructor: 403,
          assistant: 403,
          ann: [403, 409, 409, 409],
          ben: 404,
          cho: 404,
          ...inside,
        },
        {
          route,
          url: `/reviews/${byBen}/${path}`,
          ...sent,
          remark: 'open',
          instructor: 403,
          assistant: 403,
          ann: 404,
          ben: [403, gate, gate, 403],
          cho: 404,
          ...inside,
        },
      ];
    }),
    {
      route: 'POST /api/reviews/:reviewId/submit',
      url: `/reviews/${byAnn}/submit`,
      remark: 'submitted: answers again',
      instructor: 403,
      assistant: 403,
      ann: 200,
      ben: 404,
      cho: 404,
      ...inside,
    },
    {
      route: 'POST /api/reviews/:reviewId/submit',
      url: `/reviews/${byBen}/submit`,
      remark: 'empty',
      instructor: 403,
      assistant: 403,
      ann: 404,
      ben: [403, 422, 403, 403],
      cho: 404,
      ...inside,
    },
    {
      route: 'POST /api/reviews/:reviewId/reopen',
      url: `/reviews/${byBen}/reopen`,
      remark: 'not submitted: nothing to do',
      instructor: 403,
      assistant: 403,
      ann: 404,
      ben: [403, 204, 403, 403],
      cho: 404,
      ...inside,
    },
  ];
}

/** People, groups, library, outbox and calendar; what is not there is sought after the gate (404). */
function courseRows(exchangeId: string): Row[] {
  const course = '/courses/course';
  const exchange = `/exchanges/${exchangeId}`;
  const none = '00000000-0000-4000-8000-000000000000';
  const settings = { title: 'Coastal Restoration', timeZone: 'Europe/Tallinn', holidays: [] };
  const copy = {
    from: 'exchange',
    sourceId: none,
    title: 'Again',
    shift: 'none',
    days: 0,
    firstAt: null,
    keepWeekdays: false,
  };
  const person = { name: 'New', email: 'ann@example.org', role: 'student', invite: false };
  const roster = { text: 'name,email', base64: null, classIds: [] };
  const own = { draftsDue: null, reviewsDue: null, repliesDue: null, revisionDue: null, excused: true, reason: '' };
  const mine = { instructor: 404, assistant: 403, ann: 403, ben: 403, cho: 403, ...inside };
  /** Told of to staff, changed by instructors. */
  const read = (route: string, url: string, status: number): Row => ({
    route: `GET /api${route}`,
    url: course + url,
    ...staffOnly(status),
  });
  const change = (route: string, url: string, status: number, body?: object): Row => ({
    route: route.replace(' ', ' /api'),
    url: course + url,
    ...(body !== undefined && { body }),
    ...staffOnly(status, 403),
  });
  return [
    change('PUT /courses/:courseId', '', 422, { ...settings, timeZone: 'Nowhere/Here' }),
    change('POST /courses/:courseId/exchanges/copies/preview', '/exchanges/copies/preview', 404, copy),
    change('POST /courses/:courseId/exchanges/copies', '/exchanges/copies', 404, copy),
    read('/courses/:courseId/people', '/people', 200),
    change('POST /courses/:courseId/people', '/people', 422, person),
    change('POST /courses/:courseId/people/roster/preview', '/people/roster/preview', 200, roster),
    change('POST /courses/:courseId/people/roster', '/people/roster', 422, {
      ...roster,
      dropMissing: false,
      invite: false,
      fingerprint: 'old',
    }),
    change('POST /courses/:courseId/people/invitations', '/people/invitations', 200, { enrolmentIds: [none] }),
    change('PUT /courses/:courseId/people/:enrolmentId', `/people/${none}`, 404, { ...person, invite: undefined }),
    change('DELETE /courses/:courseId/people/:enrolmentId', `/people/${none}`, 404),
    change('POST /courses/:courseId/people/:enrolmentId/return', `/people/${none}/return`, 404),
    { route: 'GET /api/invitations/:token', url: '/invitations/none', ...everyone(410) },
    {
      route: 'POST /api/invitations/:token',
      url: '/invitations/none',
      body: { password: 'short' },
      ...everyone(422),
    },
    read('/courses/:courseId/group-sets', '/group-sets', 200),
    {
      ...change('POST /courses/:courseId/group-sets', '/group-sets', 422, { title: 'Made here' }),
      remark: 'taken from the second time on',
      instructor: [201, 422, 422, 422],
    },
    change('PUT /courses/:courseId/group-sets/:setId', `/group-sets/${none}`, 404, { title: 'Teams' }),
    change('DELETE /courses/:courseId/group-sets/:setId', `/group-sets/${none}`, 404),
    change('POST /courses/:courseId/group-sets/:setId/division', `/group-sets/${none}/division`, 404, {
      by: 'size',
      number: 2,
      mixedBy: 'nothing',
      seed: 1,
    }),
    change('POST /courses/:courseId/group-sets/:setId/import', `/group-sets/${none}/import`, 404, {
      text: 'group,email',
      base64: null,
      apply: false,
    }),
    change('POST /courses/:courseId/group-sets/:setId/groups', `/group-sets/${none}/groups`, 404, { title: 'A' }),
    change('PUT /courses/:courseId/group-sets/:setId/groups/:groupId', `/group-sets/${none}/groups/x`, 404, {
      title: 'A',
    }),
    change('DELETE /courses/:courseId/group-sets/:setId/groups/:groupId', `/group-sets/${none}/groups/x`, 404),
    change('PUT /courses/:courseId/group-sets/:setId/members/:enrolmentId', `/group-sets/${none}/members/x`, 404, {
      groupId: null,
      confirmed: false,
    }),
    read('/courses/:courseId/library', '/library', 200),
    change('POST /courses/:courseId/library', '/library', 422, { kind: 'template', title: 'T', exchangeId: null }),
    change('POST /courses/:courseId/library/form-files', '/library/form-files', 422, {
      name: 'form.json',
      text: '{}',
      base64: null,
      index: 0,
      add: true,
    }),
    read('/courses/:courseId/library/forms/:id', `/library/forms/${none}`, 404),
    read('/courses/:courseId/library/forms/:id/files/:format', `/library/forms/${none}/files/json`, 404),
    change('PUT /courses/:courseId/library/forms/:id', `/library/forms/${none}`, 404, {
      ...FORM,
      title: 'F',
      revision: 1,
    }),
    read('/courses/:courseId/library/shorthand/:id', `/library/shorthand/${none}`, 404),
    change('PUT /courses/:courseId/library/shorthand/:id', `/library/shorthand/${none}`, 404, {
      title: 'S',
      entries: [],
      revision: 1,
    }),
    change('DELETE /courses/:courseId/library/:id', `/library/${none}`, 404),
    change('POST /courses/:courseId/library/:id/copies', `/library/${none}/copies`, 404, { courseId: 'course' }),
    { ...read('/courses/:courseId/outbox', '/outbox', 200), assistant: 403 },
    { ...read('/courses/:courseId/outbox/:mailId', `/outbox/${none}`, 404), assistant: 403 },
    { route: 'GET /api/calendar-link', url: '/calendar-link', ...signedIn(200) },
    { route: 'POST /api/calendar-link', url: '/calendar-link', ...signedIn(201) },
    { route: 'DELETE /api/calendar-link', url: '/calendar-link', ...signedIn(204) },
    { route: 'GET /api/calendar/:token', url: '/calendar/none.ics', ...everyone(404) },
    {
      route: 'POST /api/exchanges/:exchangeId/form/from-library',
      url: `${exchange}/form/from-library`,
      body: { revision: 1, libraryId: none },
      ...mine,
    },
    {
      route: 'PUT /api/exchanges/:exchangeId/dates',
      url: `${exchange}/dates`,
      body: { dates: { ...DATES, release: DATES.draftsOpen }, tell: false },
      ...staffOnly(422, 403),
    },
    {
      route: 'POST /api/exchanges/:exchangeId/dates/now',
      url: `${exchange}/dates/now`,
      // Reviews due before they are due, or drafts: out of order at every stage but the last.
      body: { date: 'draftsOpen', tell: false },
      instructor: [200, 422, 422, 422],
      assistant: 403,
      ann: 403,
      ben: 403,
      cho: 403,
      ...inside,
    },
    {
      route: 'PUT /api/exchanges/:exchangeId/own-times',
      url: `${exchange}/own-times`,
      body: { ...own, studentId: none },
      ...mine,
    },
    { route: 'DELETE /api/exchanges/:exchangeId/own-times/:ownId', url: `${exchange}/own-times/${none}`, ...mine },
  ];
}

interface Layer {
  readonly route?: { readonly path: string; readonly methods: Readonly<Record<string, boolean>> };
}

describe('who may call what, when', () => {
  let world: World;
  let rows: Row[];

  beforeAll(async () => {
    world = await World.open({ mode: 'demo' });
    const ids = await reviewedExchange(world);
    await fillIn(world, ANN, ids.byAnn);
    await world.do(ANN, 'post', `/reviews/${ids.byAnn}/submit`);
    const board = await world.do<{ rows: Array<{ person: { name: string }; draft: { id: string } }> }>(
      INES,
      'get',
      `/exchanges/${ids.id}/progress`,
    );
    const draftOfBen = board.rows.find(({ person }) => person.name.startsWith('Ben'))?.draft.id ?? '';
    rows = table(ids, draftOfBen);
  });
  afterAll(() => world.close());

  it('has a row for every route of the server', () => {
    const { stack } = (world.app.getHttpAdapter().getInstance() as { router: { stack: Layer[] } }).router;
    // What answers to every method there is, is middleware.
    const routes = stack.flatMap(({ route }) => {
      const methods = Object.keys(route?.methods ?? {});
      return methods.length > 5 ? [] : methods.map((method) => `${method.toUpperCase()} ${route?.path}`);
    });
    expect(routes.length).toBeGreaterThan(25);
    expect([...new Set(rows.map(({ route }) => route))].sort()).toEqual([...new Set(routes)].sort());
  });

  const actors = [
    ['instructor', INES],
    ['assistant', TOM],
    ['ann', ANN],
    ['ben', BEN],
    ['cho', CHO],
    ['outsider', OUT],
    ['nobody', null],
  ] as const;

  it.each(STAGES)('answers as the table says while %s', async (stage) => {
    world.clock.goTo(AT[stage]);
    const at = STAGES.indexOf(stage);
    for (const row of rows) {
      for (const [actor, index] of actors) {
        const expected = row[actor];
        const { status } = row.route.endsWith('/changes')
          ? await world.listen(index, () => {})
          : await world.as(
              row.route === 'DELETE /api/session' ? null : index,
              row.route.split(' ')[0]?.toLowerCase() as 'get',
              row.url,
              // Another address each time, or the limit on tries would answer.
              row.route === 'POST /api/session' ? { ...row.body, email: `${stage}-${actor}@example.org` } : row.body,
            );
        const wanted = typeof expected === 'number' ? expected : expected[at];
        expect(`${row.route} (${row.remark ?? ''}) as ${actor}: ${status}`).toBe(
          `${row.route} (${row.remark ?? ''}) as ${actor}: ${wanted}`,
        );
      }
    }
  });

  it('tells an outsider the same about what is hidden as about what does not exist', async () => {
    const hidden = await world.as(
      OUT,
      'get',
      rows.find(({ route }) => route === 'GET /api/reviews/:reviewId')?.url ?? '',
    );
    const missing = await world.as(OUT, 'get', '/reviews/00000000-0000-4000-8000-000000000000');
    expect(hidden.text).toBe(missing.text);
    expect(hidden.status).toBe(missing.status);
  });
});
