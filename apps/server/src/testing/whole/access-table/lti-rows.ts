import { everyone, inside, signedIn, staffOnly, type Row } from './row.js';

/** Platforms, ways in from them, and what they are asked and told. The course is linked to none. */
export function platformRows(exchangeId: string): Row[] {
  const facts = {
    ...{
      name: 'C',
      issuer: 'https://c.example',
      clientId: '1',
      authUrl: 'https://c.example/a',
      pages: [],
      active: true,
    },
    ...{ tokenUrl: 'https://c.example/t', keysUrl: 'https://c.example/k', makesCourses: true, deployments: [] },
  };
  /** Only who sees to platforms knows that there are any. */
  const runs = (status: number) => ({ ...signedIn(404), instructor: status });
  const arrival = '/lti/arrivals/none';
  const asked = (what: string, body?: object): Row => ({
    ...{
      route: `POST /api/lti/arrivals/:token/${what}`,
      url: `${arrival}/${what}`,
      ...(body && { body }),
      ...everyone(422),
    },
  });
  const course = '/courses/course/platform';
  const gradebook = `/exchanges/${exchangeId}/gradebook`;
  const book = (method: string, what: string, status: number, body?: object): Row => ({
    ...{ route: `${method} /api/exchanges/:exchangeId/gradebook${what}`, url: `${gradebook}${what}` },
    ...{ ...(body && { body }), ...staffOnly(status, method === 'GET' ? status : 403) },
  });
  return [
    { route: 'GET /api/lti/keys', url: '/lti/keys', ...everyone(200) },
    { route: 'GET /api/lti/login', url: '/lti/login', remark: 'sent on to words', ...everyone(303) },
    { route: 'POST /api/lti/login', url: '/lti/login', ...everyone(303) },
    { route: 'POST /api/lti/launch', url: '/lti/launch', ...everyone(303) },
    { route: 'GET /api/lti/faults/:code', url: '/lti/faults/state', ...everyone(200) },
    { route: 'GET /api/lti/register/:token', url: '/lti/register/none', ...everyone(422) },
    { route: 'GET /api/lti/arrivals/:token', url: arrival, remark: 'in another browser', ...everyone(422) },
    { route: 'GET /api/lti/arrivals/:token/return', url: `${arrival}/return`, ...everyone(422) },
    ...['begin', 'role'].map((what) => asked(what)),
    asked('account', { email: 'a@example.org', password: 'not it' }),
    asked('mail', { email: null }),
    asked('course', { courseId: null, title: 'T', timeZone: 'UTC' }),
    asked('choice', { exchangeId: null, column: false }),
    { route: 'GET /api/lti/proofs/:token', url: '/lti/proofs/none', ...everyone(410) },
    { route: 'POST /api/lti/proofs/:token', url: '/lti/proofs/none', ...everyone(410) },
    { route: 'GET /api/platforms', url: '/platforms', ...runs(200) },
    { route: 'POST /api/platforms', url: '/platforms', body: { ...facts, issuer: 'no address' }, ...signedIn(422) },
    { route: 'POST /api/platforms/registration', url: '/platforms/registration', body: { name: 'C' }, ...runs(201) },
    { route: 'POST /api/platforms/keys', url: '/platforms/keys', ...runs(204) },
    { route: 'PUT /api/platforms/:id', url: '/platforms/none', body: facts, ...signedIn(404) },
    { route: 'DELETE /api/platforms/:id', url: '/platforms/none', ...signedIn(404) },
    { route: 'GET /api/courses/:courseId/platform', url: course, ...staffOnly(200) },
    { route: 'PUT /api/courses/:courseId/platform', url: course, body: { nightly: 'off' }, ...staffOnly(204, 403) },
    { route: 'DELETE /api/courses/:courseId/platform', url: course, ...staffOnly(204, 403) },
    ...['/people/preview', '/people'].map((what): Row => ({
      ...{ route: `POST /api/courses/:courseId/platform${what}`, url: `${course}${what}` },
      ...(what === '/people' && { body: { fingerprint: 'x', dropMissing: false } }),
      ...{ remark: 'which is linked to none', ...staffOnly(422, 403), ...inside },
    })),
    book('GET', '', 200),
    book('PUT', '', 422, { columns: 'whole', removeThere: false }),
    book('POST', '/send', 422),
    book('POST', '/decisions', 422, { participantIds: ['none'], how: 'again' }),
  ];
}
