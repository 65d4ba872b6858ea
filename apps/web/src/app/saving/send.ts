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
  if (response.ok) {
    // What was deleted begins again at nothing.
    if (method === 'DELETE') return { outcome: 'saved', revision: 0 };
    const answer = (await response.json()) as { revision?: number };
    return { outcome: 'saved', revision: answer.revision ?? revision };
  }
  if (response.status === 401) return { outcome: 'signed-out' };
  const problem = (await response.json().catch(() => null)) as Problem | null;
  // Without a problem of ours it is a proxy, or a server that is starting: as good as no connection.
  if (problem === null || response.status >= 500) return { outcome: 'offline' };
  return { outcome: problem.code === 'conflict' ? 'conflict' : 'refused', problem };
}
