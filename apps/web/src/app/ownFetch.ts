import { viewAsHeader } from './view-as/viewAs.js';

/** A request to our own API, with the header that other sites cannot set. */
export function ownFetch(
  url: string,
  method: string,
  body?: unknown,
  headers: Readonly<Record<string, string>> = {},
): Promise<Response> {
  const see = viewAsHeader();
  return fetch(url, {
    method,
    credentials: 'same-origin',
    headers: {
      ...headers,
      'x-salt-circle': '1',
      ...(see !== null && { 'x-salt-circle-view-as': see }),
      ...(body !== undefined && { 'content-type': 'application/json' }),
    },
    ...(body !== undefined && { body: JSON.stringify(body) }),
  });
}
