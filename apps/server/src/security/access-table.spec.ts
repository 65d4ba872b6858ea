import {
  ANN,
  AT,
  BEN,
  CHO,
  DATES,
  fillIn,
  INES,
  ITEMS,
  NOTE,
  NOTE_ID,
  OUT,
  PLAN,
  reviewedExchange,
  TOM,
  World,
} from '../testing/world.js';

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
  return [
    { route: 'GET /api/health', url: '/health', ...everyone(200) },
    { route: 'GET /api/session', url: '/session', ...everyone(200) },
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
      body: { revision: old, items: ITEMS },
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
      body: { revision: old, title: 'Changed', html: '<p>Changed</p>' },
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
      body: { revision: old },
      instructor: 403,
      assistant: 403,
      ann: [409, 403, 403, 403],
      ben: [409, 403, 403, 403],
      cho: [409, 403, 403, 403],
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
    { route: 'GET /api/exchanges/:exchangeId/allocation', url: `${exchange}/allocation`, ...staffOnly(200) },
    {
      route: 'POST /api/exchanges/:exchangeId/allocation/preview',
      url: `${exchange}/allocation/preview`,
      body: { seed: 1 },
      ...staffOnly(200),
    },
    {
      route: 'POST /api/exchanges/:exchangeId/allocation',
      url: `${exchange}/allocation`,
      body: { seed: 1, fingerprint: 'old' },
      ...staffOnly(409),
    },
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
        body: { ...NOTE, revision: old },
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
        const { status } = await world.as(
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
