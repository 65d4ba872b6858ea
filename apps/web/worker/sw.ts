import { cleanupOutdatedCaches, matchPrecache, precache, type PrecacheEntry } from 'workbox-precaching';
import { createPartialResponse } from 'workbox-range-requests';
import { KEPT_DAYS, type FromWorker, type ToWorker } from '../src/offline/messages.js';
import { patchDesk } from '../src/offline/patchDesk.js';

declare const self: ServiceWorkerGlobalScope & { readonly __WB_MANIFEST: Array<PrecacheEntry | string> };

/**
 * Lets a review that was opened be read and worked on without a connection. It keeps the application and what belongs to the
 * review: for the person signed in alone, and no longer than it is needed. With a connection everything comes from the server, as
 * if this were not here.
 */

precache(self.__WB_MANIFEST);
cleanupOutdatedCaches();

const KEPT = 'kept:';
const META = '/kept-meta';
const DAY = 24 * 3_600_000;
/** Milliseconds that a page waits for the server before the kept application opens. */
const PATIENCE = 4_000;

interface Meta {
  readonly at: number;
  readonly files: number;
  readonly bytes: number;
}

const cacheName = (personId: string, reviewId: string) => `${KEPT}${personId}:${reviewId}`;

self.addEventListener('install', () => void self.skipWaiting());
self.addEventListener('activate', (event) => {
  event.waitUntil(Promise.all([self.clients.claim(), prune()]));
});

self.addEventListener('message', (event) => {
  const answer = (words: FromWorker) => event.ports[0]?.postMessage(words);
  const message = event.data as ToWorker;
  if (message.type === 'keep')
    event.waitUntil(
      keep(message)
        .catch((error: unknown) => before(message, error))
        .then(answer),
    );
  else event.waitUntil(drop((name) => name.endsWith(`:${message.reviewId}`)).then(() => answer({ type: 'dropped' })));
});

/** Could it not be fetched anew, for want of a connection say, what was kept before is still there. */
async function before(
  { personId, reviewId }: Extract<ToWorker, { type: 'keep' }>,
  error: unknown,
): Promise<FromWorker> {
  const meta = await (await caches.open(cacheName(personId, reviewId))).match(META);
  if (meta !== undefined) return keptUntil((await meta.json()) as Meta);
  return error instanceof DOMException && error.name === 'QuotaExceededError' ? { type: 'full' } : { type: 'failed' };
}

function keptUntil({ at, files, bytes }: Meta): FromWorker {
  return { type: 'kept', files, bytes, until: at + KEPT_DAYS * DAY };
}

self.addEventListener('fetch', (event) => {
  const { request } = event;
  const url = new URL(request.url);
  if (url.origin !== self.location.origin) return;
  const toServer = url.pathname.startsWith('/api/');
  if (request.mode === 'navigate') {
    // A file that is downloaded is no page: the application never takes its place, however long it is in the making.
    if (!toServer) event.respondWith(navigated(request));
  } else if (!toServer) event.respondWith(shipped(request));
  // Somebody else's eyes see what the server says, or nothing.
  else if (request.headers.has('x-salt-circle-view-as')) return;
  else if (request.method === 'GET') {
    if (url.pathname !== '/api/changes') event.respondWith(asked(request, url));
  } else event.respondWith(written(request, url, (work) => event.waitUntil(work)));
});

/** A page: the server's, or the kept application when there is no answer in time. */
async function navigated(request: Request): Promise<Response> {
  const kept = async () => (await matchPrecache('/index.html')) ?? Response.error();
  const late = new Promise<Response>((resolve) => {
    setTimeout(() => void kept().then(resolve), PATIENCE);
  });
  return Promise.race([fetch(request).catch(kept), late]);
}

/** A file of the application: its name carries a digest, so the kept one is the right one. */
async function shipped(request: Request): Promise<Response> {
  return (await matchPrecache(request.url)) ?? fetch(request);
}

async function asked(request: Request, url: URL): Promise<Response> {
  try {
    const response = await fetch(request);
    if (url.pathname === '/api/session' && response.ok) await onlyOf(response.clone());
    return response;
  } catch (error) {
    const kept = await found(url);
    if (kept === null) throw error;
    return request.headers.has('range') ? createPartialResponse(request, kept) : kept;
  }
}

/** Whoever is signed in by now: what was kept for somebody else goes. */
async function onlyOf(session: Response): Promise<void> {
  const { person } = (await session.json()) as { readonly person: { readonly id: string } | null };
  await drop((name) => person === null || !name.startsWith(`${KEPT}${person.id}:`));
}

async function found(url: URL): Promise<Response | null> {
  await prune();
  for (const name of await keptNames()) {
    const kept = await (await caches.open(name)).match(url.pathname, { ignoreVary: true });
    if (kept !== undefined) return kept;
  }
  return null;
}

/** What was saved is put into the kept copy. */
async function written(request: Request, url: URL, also: (work: Promise<unknown>) => void): Promise<Response> {
  // Signing out takes everything away, also where the server cannot be reached.
  if (url.pathname === '/api/session' && request.method === 'DELETE') await drop(() => true);
  const response = await fetch(request);
  const [, reviewId, path] = /^\/api\/reviews\/([^/]+)\/((?:answers|notes)\/[^/]+)$/.exec(url.pathname) ?? [];
  if (response.ok && reviewId !== undefined && path !== undefined) also(patch(reviewId, path, response.clone()));
  return response;
}

async function patch(reviewId: string, path: string, response: Response): Promise<void> {
  const name = (await keptNames()).find((one) => one.endsWith(`:${reviewId}`));
  if (name === undefined) return;
  const cache = await caches.open(name);
  const at = `/api/reviews/${reviewId}`;
  const kept = await cache.match(at);
  if (kept === undefined) return;
  const saved: unknown = response.status === 204 ? null : await response.json();
  const desk = patchDesk((await kept.json()) as Parameters<typeof patchDesk>[0], path, saved);
  await cache.put(at, new Response(JSON.stringify(desk), { headers: kept.headers }));
}

async function keep({ personId, reviewId, urls }: Extract<ToWorker, { type: 'keep' }>): Promise<FromWorker> {
  await drop((name) => !name.startsWith(`${KEPT}${personId}:`));
  const cache = await caches.open(cacheName(personId, reviewId));
  let bytes = 0;
  for (const url of urls) {
    const there = await cache.match(url);
    // A reading copy never changes; what is told as JSON does.
    const lasting = /\/(copy|captions)$|\/pictures\//.test(url);
    const response = lasting && there !== undefined ? there : await fetch(url, { headers: { 'x-salt-circle': '1' } });
    // The copy of what was attached a moment ago may still be in the making: the rest is kept all the same.
    if (!response.ok && /\/files\//.test(url)) continue;
    if (!response.ok) throw new Error(`${url}: ${response.status}`);
    const body = await response.clone().blob();
    bytes += body.size;
    if (response !== there) await cache.put(url, response);
  }
  const now = Date.now();
  const meta: Meta = { at: now, files: urls.filter((url) => url.endsWith('/copy')).length, bytes };
  await cache.put(META, new Response(JSON.stringify(meta)));
  await prune();
  return keptUntil(meta);
}

async function keptNames(): Promise<string[]> {
  return (await caches.keys()).filter((name) => name.startsWith(KEPT));
}

async function drop(which: (name: string) => boolean): Promise<void> {
  await Promise.all((await keptNames()).filter(which).map((name) => caches.delete(name)));
}

/** What was not opened for so long goes, and so does what was never kept whole. */
async function prune(): Promise<void> {
  for (const name of await keptNames()) {
    const meta = await (await caches.open(name)).match(META);
    const at = meta === undefined ? null : ((await meta.json()) as Meta).at;
    if (at !== null && Date.now() - at > KEPT_DAYS * DAY) await caches.delete(name);
  }
}
