import { DATES, FORM } from '../../plan.js';
import { everyone, inside, signedIn, staffOnly, type Row } from './row.js';

/** People, groups, library, outbox and calendar; what is not there is sought after the gate (404). */
export function courseRows(exchangeId: string): Row[] {
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
    change('POST /courses/:courseId/people/:enrolmentId/password-link', `/people/${none}/password-link`, 404),
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
    read('/courses/:courseId/insights', '/insights', 200),
    { ...read('/courses/:courseId/results.zip', '/results.zip', 200), assistant: 403 },
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
    { ...change('POST /courses/:courseId/outbox/again', '/outbox/again', 200, {}), assistant: 403 },
    { ...change('POST /courses/:courseId/outbox/:mailId/again', `/outbox/${none}/again`, 200, {}), assistant: 403 },
    { ...read('/courses/:courseId/people/invitations', '/people/invitations', 200), assistant: 403 },
    { ...read('/courses/:courseId/people/invitations.csv', '/people/invitations.csv', 200), assistant: 403 },
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
      route: 'PUT /api/exchanges/:exchangeId/rules',
      url: `${exchange}/rules`,
      body: { late: { amount: -1, unit: 'percent', per: 'day', cap: null, graceMinutes: 0 }, tell: false },
      ...staffOnly(422, 403),
    },
    {
      route: 'PUT /api/exchanges/:exchangeId/allocation/schedule',
      url: `${exchange}/allocation/schedule`,
      body: { revision: 9, schedule: 'command', at: null, party: 3, patience: 3 },
      ...staffOnly(409, 403),
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
      route: 'PUT /api/exchanges/:exchangeId/personal-dates',
      url: `${exchange}/personal-dates`,
      body: { ...own, studentId: none },
      ...mine,
    },
    {
      route: 'DELETE /api/exchanges/:exchangeId/personal-dates/:ownId',
      url: `${exchange}/personal-dates/${none}`,
      ...mine,
    },
  ];
}
