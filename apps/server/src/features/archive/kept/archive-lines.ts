import type Sqlite from 'better-sqlite3';
import type { Identity } from '@salt-circle/core';
import { Disguise, type Find } from './disguise.js';
import { FreshIds } from './fresh-ids.js';
import { linesOf, type Line } from './lines.js';
import { SETS, type PlainTable } from './tables.js';
import { say } from '../../../words/archive.js';

export interface ArchiveWishes {
  /** For research: under aliases alone. */
  readonly aliases: boolean;
  /** With what was handed in. */
  readonly drafts: boolean;
}

/** A file as it goes into the archive, and where its bytes are. */
export interface ArchivedFile {
  readonly digest: string;
  readonly size: number;
  readonly mime: string;
  readonly family: string;
}

interface Stored extends ArchivedFile {
  readonly copyDigest: string | null;
  readonly copyHtml: string | null;
  readonly copyText: string | null;
}

/** What is moved for research begins in the week of this day. */
const MOVED_TO = Date.UTC(2000, 0, 3);
/** Milliseconds: days of the week stay what they were. */
const WEEK = 7 * 24 * 3_600_000;
const EMPTY_QUOTE = { exact: '', prefix: '', suffix: '' };

/** The rows of an archive, as it is wished. */
export class ArchiveLines {
  readonly #disguise: Disguise | null;
  /** Of an archive under aliases. */
  readonly #fresh: FreshIds | null;
  readonly #stored: ReadonlyMap<string, Stored>;
  /** By the digest that a row names: what is in the archive instead; null where nothing is. */
  readonly #instead = new Map<string, ArchivedFile | null>();
  #files: readonly ArchivedFile[] | null = null;

  /** @param sizeOf bytes of a file in the store; null where it is not there */
  constructor(
    private readonly snapshot: Sqlite.Database,
    private readonly tables: readonly PlainTable[],
    private readonly exchangeId: string,
    private readonly wishes: ArchiveWishes,
    private readonly sizeOf: (digest: string) => number | null,
  ) {
    this.#stored = new Map(this.#all<Stored>(FILES).map((one) => [one.digest, one]));
    this.#disguise = wishes.aliases ? this.#disguised() : null;
    this.#fresh = wishes.aliases ? new FreshIds(this.#allIds()) : null;
    for (const one of this.#stored.values()) this.#instead.set(one.digest, this.#fileFor(one));
  }

  /** Names that were found in texts; all of them, once all rows have been read. */
  get finds(): readonly Find[] {
    const fresh = this.#fresh;
    const finds = this.#disguise?.finds ?? [];
    // Rows that are files go by their digest.
    return fresh === null
      ? finds
      : finds.map((one) => (one.table === 'stored_file' ? one : { ...one, row: fresh.id(one.row) }));
  }

  /** Each once, by digest. */
  get files(): readonly ArchivedFile[] {
    this.#files ??= this.#allFiles();
    return this.#files;
  }

  *of(table: PlainTable): Generator<Line> {
    if (table.name === 'stored_file') {
      for (const file of this.files) if (file.family !== PICTURE) yield { ...file };
      return;
    }
    for (const line of this.#lines(table)) {
      const wished = this.#wished(table, line);
      if (wished !== null) yield this.#fresh === null ? wished : this.#fresh.row(table, wished);
    }
  }

  /** Under aliases in the order of the new ids: the old order would say which row is which. */
  #lines(table: PlainTable): Iterable<Line> {
    const lines = linesOf(this.snapshot, table, this.exchangeId);
    const fresh = this.#fresh;
    if (fresh === null) return lines;
    const keyOf = (line: Line) => table.idColumns.map((column) => fresh.id(String(line[column]))).join(' ');
    const keyed = [...lines].map((line) => [keyOf(line), line] as const);
    return keyed.sort(([a], [b]) => (a < b ? -1 : a > b ? 1 : 0)).map(([, line]) => line);
  }

  /** Values of all columns with ids. */
  *#allIds(): Generator<string> {
    for (const table of this.tables)
      for (const line of linesOf(this.snapshot, table, this.exchangeId))
        for (const column of table.idColumns) if (typeof line[column] === 'string') yield line[column];
  }

  /** Null for a row that has nothing to say without what is left out. */
  #wished(table: PlainTable, line: Line): Line | null {
    if (!this.#isIn(table) && table.name !== 'draft_part') return null;
    let row: Line | null = { ...line };
    if (table.name === 'draft_part') row = this.#part(row);
    else if ('digest' in row && !OTHER_DIGESTS.has(table.name)) {
      const [file] = [this.#instead.get(row['digest'] as string) ?? this.#picture(row['digest'] as string)].flat();
      if (file === undefined) return null;
      row['digest'] = file.digest;
    }
    if (!this.wishes.drafts) {
      for (const column of table.drafts ?? []) row[column] = column === 'title' ? leftOutTitle() : '';
      row = withoutQuotes(row) as Line;
    }
    // The digest of all that was handed in would tell whoever has the originals which version it is.
    if (table.name === 'draft_version' && this.#disguise !== null) row = { ...row, digest: '' };
    return this.#disguise?.row(table, row) ?? row;
  }

  /** Of a file that has no clean copy of its own, research gets the text that was read. */
  #part(line: Line): Line {
    const { digest, captions } = line;
    if (!this.wishes.drafts) return { ...line, digest: null, captions: null };
    const row = { ...line, captions: this.#instead.get(captions as string)?.digest ?? null };
    if (typeof digest !== 'string') return row;
    const file = this.#instead.get(digest) ?? null;
    if (file !== null) return { ...row, digest: file.digest };
    const html = this.wishes.aliases ? (this.#stored.get(digest)?.copyHtml ?? '') : '';
    return { ...row, digest: null, kind: 'text', html: html.replace(/<img[^<>]*>/g, ''), name: '' };
  }

  /** A picture in a typed text is kept as it was cleaned, and is no file of its own. */
  #picture(digest: string): ArchivedFile[] {
    const size = this.#stored.has(digest) ? null : this.sizeOf(digest);
    return size === null ? [] : [{ digest, size, mime: '', family: PICTURE }];
  }

  #allFiles(): ArchivedFile[] {
    const named = new Set<string>();
    for (const table of this.tables) {
      const digests = table.columns.filter(({ name }) => DIGESTS.has(name));
      if (digests.length === 0 || OTHER_DIGESTS.has(table.name) || !this.#isIn(table)) continue;
      for (const line of linesOf(this.snapshot, table, this.exchangeId))
        for (const { name } of digests) if (typeof line[name] === 'string') named.add(line[name]);
    }
    const files = [...named].flatMap((digest) => this.#instead.get(digest) ?? this.#picture(digest));
    return [...new Map(files.map((file) => [file.digest, file])).values()].sort((a, b) =>
      a.digest < b.digest ? -1 : 1,
    );
  }

  #isIn({ name }: PlainTable): boolean {
    return this.wishes.drafts || !OF_DRAFTS.has(name);
  }

  #fileFor({ digest, size, mime, family, copyDigest, copyText }: Stored) {
    if (this.#disguise === null) return this.sizeOf(digest) === null ? null : { digest, size, mime, family };
    // What a file says of its maker is in the original alone.
    const bytes = copyDigest === null ? null : this.sizeOf(copyDigest);
    if (copyDigest === null || bytes === null) return null;
    this.#disguise.look(digest, copyText ?? '');
    return { digest: copyDigest, size: bytes, mime, family };
  }

  #disguised(): Disguise {
    const people = this.#all<Identity & { personId: string }>(PEOPLE);
    const aliases = this.#all<{ personId: string; alias: string }>(ALIASES);
    const [first] = this.#all<{ at: number | null }>(FIRST);
    const shift = first?.at == null ? 0 : Math.round((MOVED_TO - first.at) / WEEK) * WEEK;
    return new Disguise(people, new Map(aliases.map(({ personId, alias }) => [personId, alias])), shift);
  }

  #all<Row>(sql: string): Row[] {
    return this.snapshot.prepare<{ id: string }, Row>(`${SETS} ${sql}`).all({ id: this.exchangeId });
  }
}

/** Pages lead to drafts by their titles. */
const leftOutTitle = () => say('leftOut');
/** Stands for a family where there is none. */
const PICTURE = 'picture-in-text';
const DIGESTS: ReadonlySet<string> = new Set(['digest', 'captions']);
/** Tables whose digest names no file that is wanted: the files themselves, and what was handed in as a whole. */
const OTHER_DIGESTS: ReadonlySet<string> = new Set(['stored_file', 'draft_version']);
/** Tables that have nothing to say where drafts are left out. */
const OF_DRAFTS: ReadonlySet<string> = new Set(['draft_part', 'draft_picture', 'adoption']);
const FILES = `SELECT digest, size, mime, family, copyDigest, copyHtml, copyText FROM stored_file
  WHERE digest IN (SELECT digest FROM files)`;
const PEOPLE = 'SELECT personId, name, email, campusId FROM enrolment WHERE id IN (SELECT id FROM people)';
const ALIASES = 'SELECT personId, alias FROM participant WHERE exchangeId = @id';
const FIRST = `SELECT COALESCE(draftsOpen, draftsDue, createdAt) AS at FROM exchange WHERE id = @id`;

/** The words that a place stands on are words of the draft. */
function withoutQuotes(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(withoutQuotes);
  if (value === null || typeof value !== 'object') return value;
  const kept = 'exact' in value && 'prefix' in value ? { ...value, ...EMPTY_QUOTE } : value;
  return Object.fromEntries(Object.entries(kept).map(([key, one]) => [key, withoutQuotes(one)]));
}
