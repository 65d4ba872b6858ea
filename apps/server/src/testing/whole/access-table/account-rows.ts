import { everyone, signedIn, type Row } from './row.js';

/** The own account, links in mails, and whoever is not signed in. */
export function accountRows(): Row[] {
  const strong = 'glasswort and thrift';
  return [
    { route: 'GET /api/session', url: '/session', ...everyone(200) },
    { route: 'GET /api/account/tokens', url: '/account/tokens', ...signedIn(200) },
    {
      route: 'POST /api/account/tokens',
      url: '/account/tokens',
      body: { name: 'T', scope: 'read', days: 0 },
      ...signedIn(422),
    },
    { route: 'DELETE /api/account/tokens/:id', url: '/account/tokens/none', ...signedIn(204) },
    { route: 'GET /api/openapi.json', url: '/openapi.json', ...signedIn(200) },
    {
      route: 'POST /api/session',
      url: '/session',
      body: { email: 'nobody@example.org', password: 'x' },
      ...everyone(401),
    },
    {
      route: 'POST /api/session/password',
      url: '/session/password',
      body: {},
      ...everyone(422),
    },
    { route: 'DELETE /api/session', url: '/session', remark: 'ends the session; tried with none', ...everyone(204) },
    { route: 'POST /api/forgotten', url: '/forgotten', body: { email: 'nobody@example.org' }, ...everyone(204) },
    { route: 'GET /api/password-links/:token', url: '/password-links/none', ...everyone(410) },
    {
      route: 'POST /api/password-links/:token',
      url: '/password-links/none',
      body: { password: strong },
      ...everyone(410),
    },
    { route: 'GET /api/address-links/:token', url: '/address-links/none', ...everyone(410) },
    { route: 'POST /api/address-links/:token', url: '/address-links/none', ...everyone(410) },
    { route: 'GET /api/own-remarks', url: '/own-remarks', ...signedIn(200) },
    {
      route: 'PUT /api/own-remarks/:id',
      url: '/own-remarks/none',
      body: { title: 'Depth', body: 'How deep?' },
      ...signedIn(404),
    },
    { route: 'DELETE /api/own-remarks/:id', url: '/own-remarks/none', ...signedIn(404) },
    { route: 'GET /api/account', url: '/account', ...signedIn(200) },
    { route: 'GET /api/account/places', url: '/account/places', ...signedIn(200) },
    { route: 'POST /api/account/places', url: '/account/places', body: { placeIds: ['x'] }, ...signedIn(410) },
    { route: 'PUT /api/account/name', url: '/account/name', body: { name: '  ' }, ...signedIn(422) },
    {
      route: 'PUT /api/account/password',
      url: '/account/password',
      body: { old: 'not it', password: strong },
      ...signedIn(422),
    },
    {
      route: 'PUT /api/account/address',
      url: '/account/address',
      body: { email: 'new@example.org', password: 'not it' },
      ...signedIn(422),
    },
    { route: 'DELETE /api/account/address', url: '/account/address', ...signedIn(204) },
    { route: 'DELETE /api/account/sessions', url: '/account/sessions', ...signedIn(204) },
    { route: 'DELETE /api/account/sessions/:id', url: '/account/sessions/none', ...signedIn(404) },
    { route: 'GET /api/invitations/:token', url: '/invitations/none', ...everyone(410) },
    {
      route: 'POST /api/invitations/:token',
      url: '/invitations/none',
      body: { placeIds: ['x'], password: strong },
      ...everyone(410),
    },
  ];
}
