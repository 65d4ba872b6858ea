import { createStore, delMany, entries, setMany } from 'idb-keyval';

/**
 * Recordings that have not been stored on the server yet, piece by piece as they are made: a closed tab loses the
 * last second at most.
 */
const store = createStore('salt-circle-recordings', 'pieces');

export interface KeptRecording {
  readonly type: string;
  readonly blob: Blob;
  readonly at: number;
}

interface Piece {
  readonly blob: Blob;
  readonly type: string;
  readonly at: number;
}

const keyOf = (key: string, number: number) => `${key}#${String(number).padStart(6, '0')}`;

export function keepPiece(key: string, number: number, piece: Piece): Promise<void> {
  return setMany([[keyOf(key, number), piece]], store);
}

/** What is kept under a key, put together; null when nothing is. */
export async function keptRecording(key: string): Promise<KeptRecording | null> {
  const pieces = await piecesOf(key);
  const [first] = pieces;
  if (first === undefined) return null;
  const [, { type, at }] = first;
  return {
    type,
    at,
    blob: new Blob(
      pieces.map(([, { blob }]) => blob),
      { type },
    ),
  };
}

/** How many recordings are kept under keys that begin so: made, and not attached to anything yet. */
export async function countRecordings(prefix: string): Promise<number> {
  const all = await entries<string, Piece>(store).catch(() => []);
  return new Set(all.flatMap(([name]) => (name.startsWith(prefix) ? [name.split('#')[0]] : []))).size;
}

/** Removes all recordings of somebody who signs out. */
export async function forgetRecordingsOf(personId: string): Promise<void> {
  const all = await entries<string, Piece>(store).catch(() => []);
  await delMany(
    all.map(([name]) => name).filter((name) => name.startsWith(`${personId}:`)),
    store,
  );
}

export async function forgetRecording(key: string): Promise<void> {
  await delMany(
    (await piecesOf(key)).map(([name]) => name),
    store,
  );
}

async function piecesOf(key: string): Promise<Array<[string, Piece]>> {
  const all = await entries<string, Piece>(store);
  return all.filter(([name]) => name.startsWith(`${key}#`)).sort(([a], [b]) => (a < b ? -1 : 1));
}
