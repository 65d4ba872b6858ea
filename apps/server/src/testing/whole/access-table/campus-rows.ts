import { everyone, inside, signedIn, staffOnly, type Row } from './row.js';

/** Campuses, ways in from them, and what they are asked and told. The course is linked to none. */
export function campusRows(exchangeId: string): Row[] {
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
  /** Only who sees to campuses knows that there are any. */
  const runs = (status: number) => ({ ...signedIn(404), instructor: status });
  const arrival = '/campus/arrivals/none';
  const asked = (what: string, body?: object): Row => ({
    ...{
      route: `POST /api/campus/arrivals/:token/${what}`,
      url: `${arrival}/${what}`,
      ...(body && { body }),
      ...everyone(422),
    },
  });
  const course = '/courses/course/campus';
  const gradebook = `/exchanges/${exchangeId}/gradebook`;
  const book = (method: string, what: string, status: number, body?: object): Row => ({
    ...{ route: `${method} /api/exchanges/:exchangeId/gradebook${what}`, url: `${gradebook}${what}` },
    ...{ ...(body && { body }), ...staffOnly(status, method === 'GET' ? status : 403) },
  });
  return [
    { route: 'GET /api/campus/keys', url: '/campus/keys', ...everyone(200) },
    { route: 'GET /api/campus/login', url: '/campus/login', remark: 'sent on to words', ...everyone(303) },
    { route: 'POST /api/campus/login', url: '/campus/login', ...everyone(303) },
    { route: 'POST /api/campus/launch', url: '/campus/launch', ...everyone(303) },
    { route: 'GET /api/campus/faults/:code', url: '/campus/faults/state', ...everyone(200) },
    { route: 'GET /api/campus/register/:token', url: '/campus/register/none', ...everyone(422) },
    { route: 'GET /api/campus/arrivals/:token', url: arrival, remark: 'in another browser', ...everyone(422) },
    { route: 'GET /api/campus/arrivals/:token/return', url: `${arrival}/return`, ...everyone(422) },
    ...['begin', 'role'].map((what) => asked(what)),
    asked('account', { email: 'a@example.org', password: 'not it' }),
    asked('mail', { email: null }),
    asked('course', { courseId: null, title: 'T', timeZone: 'UTC' }),
    asked('choice', { exchangeId: null, column: false }),
    { route: 'GET /api/campus/proofs/:token', url: '/campus/proofs/none', ...everyone(410) },
    { route: 'POST /api/campus/proofs/:token', url: '/campus/proofs/none', ...everyone(410) },
    { route: 'GET /api/campuses', url: '/campuses', ...runs(200) },
    { route: 'POST /api/campuses', url: '/campuses', body: { ...facts, issuer: 'no address' }, ...signedIn(422) },
    { route: 'POST /api/campuses/registration', url: '/campuses/registration', body: { name: 'C' }, ...runs(201) },
    { route: 'POST /api/campuses/keys', url: '/campuses/keys', ...runs(204) },
    { route: 'PUT /api/campuses/:id', url: '/campuses/none', body: facts, ...signedIn(404) },
    { route: 'DELETE /api/campuses/:id', url: '/campuses/none', ...signedIn(404) },
    { route: 'GET /api/courses/:courseId/campus', url: course, ...staffOnly(200) },
    { route: 'PUT /api/courses/:courseId/campus', url: course, body: { nightly: 'off' }, ...staffOnly(204, 403) },
    { route: 'DELETE /api/courses/:courseId/campus', url: course, ...staffOnly(204, 403) },
    ...['/people/preview', '/people'].map((what): Row => ({
      ...{ route: `POST /api/courses/:courseId/campus${what}`, url: `${course}${what}` },
      ...(what === '/people' && { body: { fingerprint: 'x', dropMissing: false } }),
      ...{ remark: 'which is linked to none', ...staffOnly(422, 403), ...inside },
    })),
    book('GET', '', 200),
    book('PUT', '', 422, { columns: 'whole', removeThere: false }),
    book('POST', '/send', 422),
    book('POST', '/decisions', 422, { participantIds: ['none'], how: 'again' }),
  ];
}
