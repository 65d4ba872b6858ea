import { seeHeader } from './seeing/seeAs.js';

/** A request to our own API, with the header that other sites cannot set. */
export function ownFetch(
  url: string,
  method: string,
  body?: unknown,
  headers: Readonly<Record<string, string>> = {},
): Promise<Response> {
  const see = seeHeader();
  return fetch(url, {
    method,
    credentials: 'same-origin',
    headers: {
      ...headers,
      'x-salt-circle': '1',
      ...(see !== null && { 'x-salt-circle-see': see }),
      ...(body !== undefined && { 'content-type': 'application/json' }),
    },
    ...(body !== undefined && { body: JSON.stringify(body) }),
  });
}
