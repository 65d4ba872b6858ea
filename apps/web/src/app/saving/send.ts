import type { Problem } from '@salt-circle/contracts';
import { ownFetch } from '../ownFetch.js';
import type { PendingSave, Sent } from './saveQueue.js';

/** Sends one save to the server and says how it went. Never throws. */
export async function send({ url, method, body, revision }: PendingSave): Promise<Sent> {
  let response: Response;
  try {
    response = await ownFetch(url, method, method === 'DELETE' ? undefined : { ...body, revision });
  } catch {
    return { outcome: 'offline' };
  }
  // Our own answers are JSON or empty. All else comes from something between here and the server (a sign-in page of a network, a proxy,
  // a server that is starting): nothing is known of what became of the save, so it is sent again.
  const answer = response.status === 204 ? {} : await jsonOf(response);
  if (answer === null) return { outcome: 'unanswered' };
  if (response.ok) {
    // What was deleted begins again at nothing.
    if (method === 'DELETE') return { outcome: 'saved', revision: 0 };
    return { outcome: 'saved', revision: (answer as { revision?: number }).revision ?? revision };
  }
  if (response.status === 401) return { outcome: 'signed-out' };
  if (response.status >= 500) return { outcome: 'unanswered' };
  const problem = answer as Problem;
  return { outcome: problem.code === 'conflict' ? 'conflict' : 'refused', problem };
}

/** @returns the object that an answer holds, or null for anything else */
async function jsonOf(response: Response): Promise<object | null> {
  try {
    const body: unknown = await response.json();
    return typeof body === 'object' && body !== null && !Array.isArray(body) ? body : null;
  } catch {
    return null;
  }
}
