import { openPromise, type Entry, type ZipFile } from 'yauzl';
import { Refused } from './refused.js';

/** Bytes of all members together, unpacked. A long report with many pictures stays well below. */
const MOST_BYTES = 300_000_000;
/** From here on more than a hundred times its size is no document. */
const MUCH = 50_000_000;
const MOST_MEMBERS = 5_000;

const BROKEN = [
  'This document is damaged inside, so it cannot be read.',
  'Open it in your word processor, save it again, and hand in that.',
] as const;
const TOO_MUCH = [
  'This document unpacks to far more than a document holds, so it was not opened.',
  'Hand in a smaller one, or a PDF.',
] as const;

/**
 * Unpacks every member once, counting, and keeps the wanted ones. What an archive says of its sizes is not believed.
 *
 * @throws Refused for an archive that is broken, unpacks to too much, or has members with paths that lead elsewhere
 */
export async function readZip(path: string, wanted: (name: string) => boolean): Promise<Map<string, Buffer>> {
  const zip = await openPromise(path, { autoClose: false, strictFileNames: true, validateEntrySizes: true }).catch(
    broken,
  );
  try {
    return await readMembers(zip, wanted);
  } catch (error) {
    if (error instanceof Refused) throw error;
    return broken();
  } finally {
    zip.close();
  }
}

async function readMembers(zip: ZipFile, wanted: (name: string) => boolean): Promise<Map<string, Buffer>> {
  const most = Math.min(MOST_BYTES, Math.max(MUCH, 100 * zip.fileSize));
  if (zip.entryCount > MOST_MEMBERS) throw new Refused(...TOO_MUCH);
  const members = new Map<string, Buffer>();
  let total = 0;
  for await (const entry of zip.eachEntry() as AsyncIterable<Entry>) {
    const parts: Buffer[] = [];
    const keep = wanted(entry.fileName);
    for await (const chunk of await zip.openReadStreamPromise(entry)) {
      total += (chunk as Buffer).length;
      if (total > most) throw new Refused(...TOO_MUCH);
      if (keep) parts.push(chunk as Buffer);
    }
    if (keep) members.set(entry.fileName, Buffer.concat(parts));
  }
  return members;
}

function broken(): never {
  throw new Refused(...BROKEN);
}

/** Definitions inside of XML can be made to grow without end; documents have none. */
export function assertPlainXml(members: ReadonlyMap<string, Buffer>): void {
  for (const [name, bytes] of members) {
    if (!/\.(xml|rels)$/.test(name)) continue;
    if (/<!(DOCTYPE|ENTITY)/i.test(bytes.toString('latin1'))) throw new Refused(...BROKEN);
  }
}
