import { In, IsNull, LessThanOrEqual, QueryFailedError, type EntityManager, type EntityMetadata } from 'typeorm';
import type { CurrentUser } from '../../auth/view-as.js';
import { AllocationPlan } from '../../model/allocation.js';
import { Course, Enrolment } from '../../model/course.js';
import { Exchange, Participant } from '../../model/exchange.js';
import { Person } from '../../model/person.js';
import { StoredFile } from '../../model/stored-file.js';
import { insertAll } from '../../platform/database/insert-all.js';
import { recordContents } from '../../platform/files/contents.js';
import type { Inspected } from '../../platform/files/worker/inspect.js';
import type { Ids } from '../../platform/ids/ids.js';
import { broken, type ArchiveFile } from './archive-file.js';
import { IdRemap } from './id-remap.js';
import type { Line } from './kept/lines.js';
import { TABLES, type TableOf } from './kept/tables.js';
import type { ArchiveContents } from './archive-contents.js';
import { say } from '../../words/archive.js';

/** Rows that are put in at once. */
const PORTION = 500;

/** What was found out about an archive, and what becomes of it here. */
export interface ArchiveToImport {
  readonly archive: ArchiveFile;
  readonly found: ArchiveContents;
  /** What its files are, by digest: those that were taken. */
  readonly files: ReadonlyMap<string, Inspected>;
  /** Digests of all files that the archive itself has brought, pictures in texts among them. */
  readonly brought: ReadonlySet<string>;
  readonly person: CurrentUser;
  readonly courseTitle: string;
  readonly now: number;
  readonly ids: Ids;
}

/** An exchange of an archive as rows of this installation, in a course that is made for it. */
export class ArchiveImport {
  readonly #courseId: string;
  readonly #to: IdRemap;
  /** The place of the one who reads it, who was of its staff. */
  readonly #you: Line | undefined;

  constructor(private readonly coming: ArchiveToImport) {
    const { found, person, ids } = coming;
    this.#courseId = ids.uuid();
    this.#you = found.people.find((one) => isReader(one, person));
    this.#to = new IdRemap(found.ids, ids, this.#you === undefined ? [] : [[this.#you.personId as string, person.id]]);
  }

  /** All of it, in the transaction of `manager`. */
  async write(manager: EntityManager): Promise<{ courseId: string; exchangeId: string }> {
    await this.#course(manager);
    await this.#people(manager);
    await recordContents(manager, [...this.coming.brought]);
    for (const table of FILES_FIRST) await this.#table(manager, table);
    const exchangeId = this.#to.id(this.coming.found.exchangeId);
    await hush(manager, exchangeId, this.coming.now);
    return { courseId: this.#courseId, exchangeId };
  }

  async #course(manager: EntityManager): Promise<void> {
    const { archive, courseTitle, now } = this.coming;
    const { timeZone, holidays, measuresTime } = archive.manifest.course;
    const course = { id: this.#courseId, title: courseTitle.trim(), timeZone, measuresTime, createdAt: now };
    await manager.insert(Course, { ...course, holidays: [...holidays] });
  }

  /** Each place waits for its person, as those of a roster do. */
  async #people(manager: EntityManager): Promise<void> {
    const { found, person, now, ids } = this.coming;
    const others = found.people
      .filter((one) => one !== this.#you)
      .map(({ personId, name }) => ({ id: this.#to.id(personId as string), name: String(name) }));
    await insertAll(
      manager,
      Person,
      others.map((one) => ({ ...one, email: null, passwordHash: null, createdAt: now })),
    );
    if (this.#you !== undefined) return;
    const own = { name: person.name, email: person.email ?? '', role: 'instructor' as const, active: true };
    await manager.insert(Enrolment, { id: ids.uuid(), courseId: this.#courseId, personId: person.id, ...own });
  }

  async #table(manager: EntityManager, table: TableOf): Promise<void> {
    const { archive, found } = this.coming;
    const metadata = manager.connection.getMetadata(table.entity);
    let portion: Line[] = [];
    for await (const line of archive.rows(table, found.fill(table))) {
      const row = await this.#row(manager, table, metadata, line);
      if (row !== null) portion.push(row);
      if (portion.length < PORTION) continue;
      await put(manager, table, portion);
      portion = [];
    }
    await put(manager, table, portion);
  }

  /** Null for a file that was not taken, or is here already, and for what lacks its file. */
  async #row(manager: EntityManager, table: TableOf, metadata: EntityMetadata, line: Line): Promise<Line | null> {
    const { person, ids } = this.coming;
    const row = this.#to.row(table, metadata, line);
    if (table.name === 'stored_file') return this.#storedFile(manager, row);
    if (!this.#hasItsFile(table, row)) return null;
    return {
      ...row,
      // Whoever reads it decides who of the staff of then is of the staff here.
      ...(table.name === 'enrolment' && { ...placeOf(row, person), source: 'archive' }),
      ...besides(metadata, this.#courseId, ids),
    };
  }

  /**
   * A file is taken from the archive alone: a digest that this server happens to have from elsewhere opens nothing. A part that lacks its
   * file stays without it; what is nothing but a file is left out.
   */
  #hasItsFile({ name }: TableOf, row: Line): boolean {
    if (!NAMES_FILES.has(name)) return true;
    const isMissing = (digest: unknown) => typeof digest === 'string' && !this.coming.brought.has(digest);
    if (name !== 'draft_part') return !isMissing(row['digest']);
    for (const column of ['digest', 'captions']) if (isMissing(row[column])) row[column] = null;
    return true;
  }

  async #storedFile(manager: EntityManager, { digest, size }: Line): Promise<Line | null> {
    const { files, now } = this.coming;
    const inspected = files.get(digest as string);
    if (inspected === undefined || (await manager.existsBy(StoredFile, { digest: digest as string }))) return null;
    const { family, mime, facts } = inspected;
    const row = { digest, size, mime, family, facts, createdAt: now };
    return { ...row, copyState: 'waiting', metadata: [], remarks: [] };
  }
}

/** Rows that name a file refer to it. */
const FILES_FIRST = [...TABLES].sort(
  (one, other) => Number(other.name === 'stored_file') - Number(one.name === 'stored_file'),
);

const NAMES_FILES: ReadonlySet<string> = new Set(['draft_part', 'draft_picture', 'exchange_attachment', 'review_file']);

/** The one who reads it was of its staff, by the address: what was done then is that one’s. */
export function isReader({ email, role }: Line, person: CurrentUser): boolean {
  return role !== 'student' && person.email !== null && email === person.email;
}

/** @throws ProblemError for rows that the database cannot have beside each other */
async function put(manager: EntityManager, { name, entity }: TableOf, rows: readonly Line[]): Promise<void> {
  try {
    await insertAll(manager, entity, rows as never);
  } catch (error) {
    const code = error instanceof QueryFailedError ? (error.driverError as { code?: string }).code : undefined;
    if (code?.startsWith('SQLITE_CONSTRAINT') !== true) throw error;
    throw broken(say('rowsOfContradictEachOther', { name }));
  }
}

/** What the archive leaves out, as it is here. */
function besides(metadata: EntityMetadata, courseId: string, ids: Ids): Line {
  const has = (name: string) => metadata.columns.find(({ propertyName }) => propertyName === name);
  const upload = has('uploadId');
  return {
    ...(has('courseId') !== undefined && { courseId }),
    ...(has('followsId') !== undefined && { followsId: null }),
    ...(upload !== undefined && { uploadId: upload.isNullable ? null : ids.uuid() }),
  };
}

/** A place as it is here: whoever reads it is its instructor, and says who else is of the staff. */
function placeOf({ personId, role, active, email }: Line, person: CurrentUser): Line {
  if (personId === person.id) return { role: 'instructor', active: true };
  // An address is that of one person in a course.
  const taken = person.email !== null && email === person.email;
  return {
    active: role === 'student' && active === true,
    ...(taken && { email: `formerly-${(personId as string).slice(0, 8)}@aliases.invalid` }),
  };
}

/** Milliseconds: what was released longer ago nobody is told of anyway. */
const NEWS = 3 * 24 * 3_600_000;

/** What had its time before it came here is not told of once more. */
async function hush(manager: EntityManager, exchangeId: string, now: number): Promise<void> {
  const exchange = await manager.findOneByOrFail(Exchange, { id: exchangeId });
  if (exchange.release !== null && exchange.release <= now && exchange.release > now - NEWS) {
    await manager.update(Participant, { exchangeId, feedbackToldAt: IsNull() }, { feedbackToldAt: now });
  }
  if (exchange.remindHours !== null) {
    await manager.update(Exchange, { id: exchangeId }, { remindedUntil: Math.max(exchange.remindedUntil ?? 0, now) });
  }
  const late = { exchangeId, schedule: In(['at-due', 'at', 'nightly']), ranUntil: LessThanOrEqual(now) };
  await manager.update(AllocationPlan, late, { ranUntil: now });
}
