import { createWriteStream } from 'node:fs';
import { join } from 'node:path';
import { Transform, type Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { StringDecoder } from 'node:string_decoder';
import { openPromise, type Entry, type ZipFile } from 'yauzl';
import { fileRefused } from '../../platform/problems/file-refused.js';
import { ProblemError } from '../../platform/problems/problem-error.js';
import { archiveChecks, wrongAt } from './archive-schema.js';
import type { Line } from './kept/lines.js';
import type { ArchiveManifest } from './kept/rows.js';
import { TABLES, type TableOf } from './kept/tables.js';
import { say } from '../../words/archive.js';

/** Bytes: of the manifest, of one line, and of all that is unpacked. */
const MOST = { manifest: 1_000_000, line: 8_000_000, rows: 4_000_000_000, file: 4_000_000_000 };
/** Members: a file for each deliverable and version of ten thousand people. */
const MEMBERS = 500_000;
const FILE = /^files\/([0-9a-f]{64})$/;
const ROWS = /^rows\/([a-z_]+)\.jsonl$/;

/** @param whatToDo beside that nothing has changed */
export function broken(sentence: string, whatToDo = say('useArchiveAsItCame')): ProblemError {
  return fileRefused(sentence, whatToDo, say('nothingHasChangedHere'));
}

/** An archive that is being read: nothing of it is believed before it has been looked at. */
export class ArchiveFile {
  private constructor(
    private readonly zip: ZipFile,
    private readonly entries: ReadonlyMap<string, Entry>,
    readonly manifest: ArchiveManifest,
  ) {}

  /** @throws ProblemError for what is no such archive, or one of a newer version than `newest` */
  static async open(path: string, newest: number): Promise<ArchiveFile> {
    const zip = await openPromise(path, { autoClose: false, strictFileNames: true, validateEntrySizes: true }).catch(
      (): never => {
        throw broken(say('thisIsNotArchiveThat'));
      },
    );
    try {
      const entries = await entriesOf(zip);
      const manifest = await manifestOf(zip, entries.get('manifest.json'), newest);
      return new ArchiveFile(zip, entries, manifest);
    } catch (error) {
      zip.close();
      throw error instanceof ProblemError ? error : broken(say('thisArchiveIsDamaged'));
    }
  }

  close(): void {
    this.zip.close();
  }

  /** Digests of the files that are there. */
  files(): string[] {
    return [...this.entries.keys()].flatMap((name) => FILE.exec(name)?.[1] ?? []);
  }

  /** Unpacks a file into a folder. @returns where it is */
  async unpack(digest: string, folder: string): Promise<string> {
    const to = join(folder, digest);
    await pipeline(await this.#stream(`files/${digest}`), upTo(MOST.file), createWriteStream(to));
    return to;
  }

  /**
   * The rows of a table, one after the other, each as the schema has it.
   *
   * @param fill what is put into the columns that an older version did not have
   * @throws ProblemError with table and line
   */
  async *rows({ name }: TableOf, fill: (line: Line) => void): AsyncGenerator<Line> {
    const path = `rows/${name}.jsonl`;
    if (!this.entries.has(path)) {
      if ((this.manifest.rows[name] ?? 0) > 0) throw broken(say('archiveLacksItsRowsOf', { name }));
      return;
    }
    const isRight = archiveChecks().rows.get(name);
    let number = 0;
    for await (const text of linesIn(await this.#stream(path))) {
      if (text === '') continue;
      number += 1;
      const line = parsed(text, name, number);
      fill(line);
      if (isRight === undefined || !isRight(line)) {
        throw broken(say('lineOfIsNotAs', { number, name, wrongAt: wrongAt(isRight?.errors ?? []) }));
      }
      yield line;
    }
    if (number !== (this.manifest.rows[name] ?? 0)) {
      throw broken(say('archiveHasRowsOfAnd', { number, name, rows: this.manifest.rows[name] ?? 0 }));
    }
  }

  async #stream(name: string): Promise<Readable> {
    const entry = this.entries.get(name);
    if (entry === undefined) throw broken(say('archiveLacks', { name }));
    return this.zip.openReadStreamPromise(entry);
  }
}

async function entriesOf(zip: ZipFile): Promise<Map<string, Entry>> {
  if (zip.entryCount > MEMBERS) throw broken(say('thisArchiveHasMoreFiles'));
  const entries = new Map<string, Entry>();
  const known = new Set<string>(TABLES.map(({ name }) => name));
  for await (const entry of zip.eachEntry() as AsyncIterable<Entry>) {
    const name = entry.fileName;
    if (entries.has(name)) throw broken(say('archiveHasTwice', { name }));
    const table = ROWS.exec(name)?.[1];
    // What else lies beside is for other programs, and not read.
    if (name === 'manifest.json' || FILE.test(name) || (table !== undefined && known.has(table)))
      entries.set(name, entry);
    else if (table !== undefined) throw broken(say('thisArchiveHasRowsOf', { table }));
  }
  return entries;
}

async function manifestOf(zip: ZipFile, entry: Entry | undefined, newest: number): Promise<ArchiveManifest> {
  if (entry === undefined) throw broken(say('thisIsZipButNot'));
  const pieces: Buffer[] = [];
  let size = 0;
  for await (const piece of await zip.openReadStreamPromise(entry)) {
    size += (piece as Buffer).length;
    if (size > MOST.manifest) throw broken(say('manifestJsonIsFarLonger'));
    pieces.push(piece as Buffer);
  }
  const manifest = parsed(Buffer.concat(pieces).toString('utf8'), 'manifest', 1);
  const { format, version } = manifest;
  if (format !== 'salt-circle-exchange') throw broken(say('thisIsZipButNotArchive'));
  if (typeof version === 'number' && version > newest) {
    throw broken(say('thisArchiveWasMadeBy', { version, newest }), say('bringThisInstallationUpTo'));
  }
  const { manifest: isRight } = archiveChecks();
  if (!isRight(manifest)) throw broken(say('manifestJsonIsNotAs', { wrongAt: wrongAt(isRight.errors ?? []) }));
  return manifest as unknown as ArchiveManifest;
}

function parsed(text: string, name: string, number: number): Line {
  try {
    const value: unknown = JSON.parse(text);
    if (value !== null && typeof value === 'object' && !Array.isArray(value)) return value as Line;
  } catch {
    // Said below.
  }
  throw broken(say('lineOfIsNotJson', { number, name }));
}

/** Passes on up to so many bytes: what an archive says of its sizes is not believed. */
function upTo(most: number): Transform {
  let total = 0;
  return new Transform({
    transform: (piece: Buffer, _, done) => {
      total += piece.length;
      if (total > most) done(broken(say('thisArchiveUnpacksToFar')));
      else done(null, piece);
    },
  });
}

/** Lines of a text, one after the other. */
async function* linesIn(stream: Readable): AsyncGenerator<string> {
  const decoder = new StringDecoder('utf8');
  let open = '';
  let total = 0;
  for await (const piece of stream) {
    total += (piece as Buffer).length;
    if (total > MOST.rows) throw broken(say('thisArchiveUnpacksToFar'));
    const lines = (open + decoder.write(piece as Buffer)).split('\n');
    open = lines.pop() ?? '';
    if (open.length > MOST.line) throw broken(say('lineOfThisArchiveIs'));
    yield* lines;
  }
  yield open + decoder.end();
}
