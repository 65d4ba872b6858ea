import { ownFetch } from '../ownFetch.js';
import { forgetRecordingsOf } from '../recording/recordings.js';
import { wordsIn } from '../saving/wordsIn.js';
import { browser, saveQueue } from '../store.js';

/** Set from the press on "Sign out" until the server has ended the session: nothing is shown in this browser meanwhile. */
const FLAG = 'salt-circle-signing-out';

const listeners = new Set<() => void>();

/** For the root of the application, which shows nothing else while somebody is signing out. */
export function onSigningOut(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

export function isSigningOut(): boolean {
  return localStorage.getItem(FLAG) !== null;
}

/** What a person wrote and the server does not have, as plain text; each a text of its own. */
export async function unsentTexts(personId: string): Promise<string[]> {
  const saves = [...(await browser.everything(personId)), ...saveQueue.pendingWithPrefix(`${personId}:`)];
  return [...new Set(saves.map(({ body }) => wordsIn(body).join('\n\n')).filter((text) => text !== ''))];
}

/**
 * Removes all that this browser keeps of a person; the page that takes the place of all others then ends the session. What is kept goes
 * first: it must not stay readable where the server cannot be reached.
 */
export async function leave(personId: string): Promise<void> {
  localStorage.setItem(FLAG, 'yes');
  saveQueue.clear();
  await browser.clear(personId);
  await forgetRecordingsOf(personId);
  if ('caches' in window) {
    const names = await caches.keys();
    await Promise.all(names.filter((name) => name.startsWith('kept:')).map((name) => caches.delete(name)));
  }
  for (const listener of listeners) listener();
}

/** Asks the server to end the session that was left. */
export async function endSession(): Promise<boolean> {
  try {
    const { ok, status, headers } = await ownFetch('/api/session', 'DELETE');
    // The sign-in page of a network answers as well: ours has nothing to say.
    if (!(ok && status === 204) && !(status === 401 && headers.get('content-type')?.includes('json') === true))
      return false;
  } catch {
    return false;
  }
  localStorage.removeItem(FLAG);
  return true;
}
