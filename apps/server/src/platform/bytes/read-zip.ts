import { fromBufferPromise, openPromise, type Entry, type ZipFile } from 'yauzl';
import { Refused } from './refused.js';

export type Words = readonly [sentence: string, whatToDo: string];

/** What an archive may hold, and what is said of one that holds more or is broken. */
export interface ZipBounds {
  readonly wanted: (name: string) => boolean;
  /** Bytes of all members together, unpacked. */
  readonly most: number;
  /** Bytes of one member. */
  readonly mostOf?: (name: string) => number;
  readonly members: number;
  readonly broken: Words;
  readonly tooMuch: Words;
}

/** From here on more than a hundred times its size is nothing that people make. Bytes. */
const MUCH = 50_000_000;

/**
 * Unpacks every member once, counting, and keeps the wanted ones. What an archive says of its sizes is not believed.
 *
 * @param source path, or the archive itself
 * @throws Refused for an archive that is broken, unpacks to too much, or has members with paths that lead elsewhere
 */
export async function readZip(source: string | Buffer, bounds: ZipBounds): Promise<Map<string, Buffer>> {
  const options = { autoClose: false, strictFileNames: true, validateEntrySizes: true } as const;
  const opening = typeof source === 'string' ? openPromise(source, options) : fromBufferPromise(source, options);
  const zip = await opening.catch((): never => {
    throw new Refused(...bounds.broken);
  });
  try {
    return await readMembers(zip, bounds);
  } catch (error) {
    if (error instanceof Refused) throw error;
    throw new Refused(...bounds.broken);
  } finally {
    zip.close();
  }
}

async function readMembers(zip: ZipFile, bounds: ZipBounds): Promise<Map<string, Buffer>> {
  const { wanted, mostOf = () => bounds.most } = bounds;
  const most = Math.min(bounds.most, Math.max(MUCH, 100 * zip.fileSize));
  if (zip.entryCount > bounds.members) throw new Refused(...bounds.tooMuch);
  const members = new Map<string, Buffer>();
  let total = 0;
  for await (const entry of zip.eachEntry() as AsyncIterable<Entry>) {
    const parts: Buffer[] = [];
    const keep = wanted(entry.fileName);
    let size = 0;
    for await (const chunk of await zip.openReadStreamPromise(entry)) {
      size += (chunk as Buffer).length;
      total += (chunk as Buffer).length;
      if (total > most || size > mostOf(entry.fileName)) throw new Refused(...bounds.tooMuch);
      if (keep) parts.push(chunk as Buffer);
    }
    if (keep) members.set(entry.fileName, Buffer.concat(parts));
  }
  return members;
}
