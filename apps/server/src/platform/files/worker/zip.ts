import { fromBufferPromise, openPromise, type Entry, type ZipFile } from 'yauzl';
import { Refused } from './refused.js';
import { assertShallow } from './xml.js';

type Words = readonly [sentence: string, whatToDo: string];

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

const BROKEN: Words = [
  'This document is damaged inside, so it cannot be read.',
  'Open it in your word processor, save it again, and hand in that.',
];
const TOO_MUCH: Words = [
  'This document unpacks to far more than a document holds, so it was not opened.',
  'Hand in a smaller one, or a PDF.',
];
/** A long report with many pictures stays well below. From `much` on, more than a hundred times its size is no document. */
const DOCUMENT = { most: 300_000_000, much: 50_000_000, members: 5_000 } as const;
/** The text of a thousand pages is half of it; what a document says of itself is a few lines. */
const MOST_XML = 40_000_000;
const MOST_PROPERTIES = 1_000_000;
const PROPERTIES = /^(docProps\/|meta\.xml$|META-INF\/|customXml\/)/;

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

/** The wanted members of a document in DOCX or ODT. */
export function readDocument(path: string, wanted: (name: string) => boolean): Promise<Map<string, Buffer>> {
  const { members, most } = DOCUMENT;
  const mostOf = (name: string) =>
    PROPERTIES.test(name) ? MOST_PROPERTIES : /\.(xml|rels)$/.test(name) ? MOST_XML : most;
  return readZip(path, { wanted, most, mostOf, members, broken: BROKEN, tooMuch: TOO_MUCH });
}

async function readMembers(zip: ZipFile, bounds: ZipBounds): Promise<Map<string, Buffer>> {
  const { wanted, mostOf = () => bounds.most } = bounds;
  const most = Math.min(bounds.most, Math.max(DOCUMENT.much, 100 * zip.fileSize));
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

/** Definitions inside of XML can be made to grow without end; documents have none, and no nesting without end either. */
export function assertPlainXml(members: ReadonlyMap<string, Buffer>): void {
  for (const [name, bytes] of members) {
    if (!/\.(xml|rels)$/.test(name)) continue;
    if (/<!(DOCTYPE|ENTITY)/i.test(bytes.toString('latin1'))) throw new Refused(...BROKEN);
    assertShallow(bytes);
  }
}
