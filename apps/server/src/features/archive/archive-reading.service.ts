import { rm } from 'node:fs/promises';
import { Injectable } from '@nestjs/common';
import type { ArchiveRequest, ArchiveView, ReadArchiveRequest } from '@salt-circle/contracts';
import { counted } from '@salt-circle/core';
import type { Asker } from '../../access/seeing.js';
import { Course, Enrolment } from '../../model/course.js';
import { Exchange, Participant } from '../../model/exchange.js';
import { AllocationPlan } from '../../model/allocation.js';
import { Person } from '../../model/person.js';
import { StoredFile } from '../../model/stored-file.js';
import { Clock } from '../../platform/clock/clock.js';
import { Database } from '../../platform/database/database.js';
import { insertAll } from '../../platform/database/insert-all.js';
import { FileStore } from '../../platform/files/file-store.js';
import type { Inspected } from '../../platform/files/worker/inspect.js';
import { Ids } from '../../platform/ids/ids.js';
import { isFileRefused } from '../../platform/problems/file-refused.js';
import { refusal } from '../../platform/problems/sentences.js';
import { Keeping } from '../files/keeping.service.js';
import { Uploads } from '../files/uploads.service.js';
import { Welcome } from '../files/welcome.service.js';
import { Copies } from '../reading/copies.service.js';
import { ArchiveFile, broken } from './archive-file.js';
import { survey, type Survey } from './survey.js';
import { ARCHIVE_VERSION } from './exchange-archives.service.js';
import { Elsewhere } from './elsewhere.js';
import type { Line } from './kept/lines.js';
import { TABLES, type TableOf } from './kept/tables.js';
import { In, IsNull, LessThanOrEqual, QueryFailedError, type EntityManager, type EntityMetadata } from 'typeorm';

/** Rows that are put in at once. */
const PORTION = 500;

/** An exchange from an archive, into a course of its own. */
@Injectable()
export class ArchiveReading {
  constructor(
    private readonly database: Database,
    private readonly clock: Clock,
    private readonly ids: Ids,
    private readonly store: FileStore,
    private readonly keeping: Keeping,
    private readonly uploads: Uploads,
    private readonly welcome: Welcome,
    private readonly copies: Copies,
  ) {}

  /** What is in it, and what would become of it; nothing changes. */
  preview(person: Asker, { uploadId }: ArchiveRequest): Promise<ArchiveView> {
    return this.#opened(person, uploadId, async (archive) => {
      const { manifest } = archive;
      const found = await this.#survey(archive);
      const staff = found.people.filter(({ role }) => role !== 'student');
      const you = staff.find((one) => isReader(one, person));
      return {
        title: manifest.title,
        courseTitle: manifest.course.title,
        madeAt: manifest.madeAt,
        people: manifest.people,
        drafts: manifest.drafts,
        students: found.people.length - staff.length,
        staff: staff.filter((one) => one !== you).map(({ name }) => String(name)),
        you: you !== undefined,
        counts: {
          drafts: manifest.rows['draft'] ?? 0,
          reviews: manifest.rows['review'] ?? 0,
          notes: manifest.rows['note'] ?? 0,
          files: archive.files().length,
        },
        remarks: [...found.filled.map(filledIn), ...missingFiles(found, archive)],
      };
    });
  }

  /** All of it, or nothing. */
  async read(
    person: Asker,
    { uploadId, courseTitle }: ReadArchiveRequest,
  ): Promise<{ courseId: string; exchangeId: string }> {
    const made = await this.#opened(person, uploadId, async (archive) => {
      const found = await this.#survey(archive);
      const files = await this.#takeFiles(archive, found);
      const made = await this.database.write(async (manager, happened) => {
        const courseId = this.ids.uuid();
        const to = await this.#insert(manager, archive, found, { person, courseId, courseTitle, files });
        const exchangeId = to.id(found.exchangeId);
        await hush(manager, exchangeId, this.clock.now());
        happened({
          ...{ action: 'archive-read', actorId: person.id, courseId, exchangeId },
          details: { people: archive.manifest.people, drafts: archive.manifest.drafts },
        });
        return { courseId, exchangeId };
      });
      for (const digest of files.keys()) this.copies.enqueue(digest, person.id);
      return made;
    });
    await this.uploads.forget(uploadId);
    return made;
  }

  async #opened<T>(person: Asker, uploadId: string, work: (archive: ArchiveFile) => Promise<T>): Promise<T> {
    if (!person.createsCourses || person.seeing !== undefined) throw refusal('not-yours');
    const upload = await this.welcome.finished(person, '', uploadId);
    if (upload.use !== 'archive') throw refusal('unknown');
    return this.uploads.using(upload, async () => {
      const archive = await ArchiveFile.open(upload.path, ARCHIVE_VERSION);
      try {
        return await work(archive);
      } finally {
        archive.close();
      }
    });
  }

  #survey(archive: ArchiveFile): Promise<Survey> {
    return survey(archive, ARCHIVE_VERSION, (table) => this.#metadata(table));
  }

  #metadata({ entity }: TableOf): EntityMetadata {
    return this.database.read.connection.getMetadata(entity);
  }

  /** Looked into like any other upload; one that is here already stays. @returns what each file is, by digest */
  async #takeFiles(archive: ArchiveFile, found: Survey): Promise<Map<string, Inspected>> {
    const taken = new Map<string, Inspected>();
    const folder = await this.store.workFolder();
    try {
      for (const digest of archive.files()) {
        const named = found.files.get(digest);
        // What no row names is nothing of this exchange.
        if (named === undefined) continue;
        const path = await archive.unpack(digest, folder);
        const inspected = named.family === 'captions' ? null : await this.#inspected(path, digest, named.name);
        if (named.family === null && inspected?.family !== 'image') throw broken(`The picture ${digest} is none.`);
        const kept = await this.keeping.keep(path);
        if (kept.digest !== digest) throw broken(`The file ${digest} is not what its name says.`);
        if (named.family !== null) taken.set(digest, inspected ?? CAPTIONS);
      }
    } finally {
      await rm(folder, { recursive: true, force: true });
    }
    return taken;
  }

  async #inspected(path: string, digest: string, name: string): Promise<Inspected> {
    try {
      return await this.keeping.inspect({ path, name }, null);
    } catch (error) {
      if (!isFileRefused(error)) throw error;
      throw broken(`The file ${digest.slice(0, 12)}… of this archive is not taken: ${error.problem.sentence}`);
    }
  }

  async #insert(
    manager: EntityManager,
    archive: ArchiveFile,
    found: Survey,
    { person, courseId, courseTitle, files }: Into,
  ): Promise<Elsewhere> {
    const now = this.clock.now();
    const { timeZone, holidays, measuresTime } = archive.manifest.course;
    await manager.insert(Course, {
      id: courseId,
      title: courseTitle.trim(),
      timeZone,
      holidays: [...holidays],
      measuresTime,
      createdAt: now,
    });
    const you = found.people.find((one) => isReader(one, person));
    const to = new Elsewhere(found.ids, this.ids, you === undefined ? [] : [[you.personId as string, person.id]]);
    // Each place waits for its person, as those of a roster do.
    const others = found.people.filter((one) => one !== you);
    await insertAll(
      manager,
      Person,
      others.map(({ personId, name }) => ({
        id: to.id(personId as string),
        email: null,
        name: String(name),
        passwordHash: null,
        createdAt: now,
      })),
    );
    if (you === undefined) {
      const own = { name: person.name, email: person.email ?? '', role: 'instructor' as const, active: true };
      await manager.insert(Enrolment, { id: this.ids.uuid(), courseId, personId: person.id, ...own });
    }
    for (const table of TABLES) {
      const metadata = this.#metadata(table);
      let portion: Line[] = [];
      const flush = async () => {
        await put(manager, table, portion);
        portion = [];
      };
      for await (const line of archive.rows(table, found.fill(table))) {
        const row = to.row(table, metadata, line);
        if (table.name === 'stored_file') {
          const file = await this.#storedFile(manager, row, files);
          if (file === null) continue;
          portion.push(file);
        } else {
          // Whoever reads it decides who of the staff of then is of the staff here.
          if (table.name === 'enrolment') Object.assign(row, placeOf(row, person));
          portion.push({ ...row, ...besides(metadata, courseId, this.ids) });
        }
        if (portion.length >= PORTION) await flush();
      }
      await flush();
    }
    return to;
  }

  async #storedFile(
    manager: EntityManager,
    { digest, size }: Line,
    files: ReadonlyMap<string, Inspected>,
  ): Promise<Line | null> {
    const inspected = files.get(digest as string);
    if (inspected === undefined || (await manager.existsBy(StoredFile, { digest: digest as string }))) return null;
    const { family, mime, facts } = inspected;
    const row = { digest, size, mime, family, facts, createdAt: this.clock.now() };
    return { ...row, copyState: 'waiting', pictures: [], metadata: [], remarks: [] };
  }
}

interface Into {
  readonly person: Asker;
  readonly courseId: string;
  readonly courseTitle: string;
  readonly files: ReadonlyMap<string, Inspected>;
}

const CAPTIONS = { family: 'captions', mime: 'text/vtt', facts: {} } as unknown as Inspected;

/** @throws ProblemError for rows that the database cannot have beside each other */
async function put(manager: EntityManager, { name, entity }: TableOf, rows: readonly Line[]): Promise<void> {
  try {
    await insertAll(manager, entity, rows as never);
  } catch (error) {
    const code = error instanceof QueryFailedError ? (error.driverError as { code?: string }).code : undefined;
    if (code?.startsWith('SQLITE_CONSTRAINT') !== true) throw error;
    throw broken(`Rows of “${name}” contradict each other.`);
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
function placeOf({ personId, role, active, email }: Line, person: Asker): Line {
  if (personId === person.id) return { role: 'instructor', active: true };
  // An address is that of one person in a course.
  const taken = person.email !== null && email === person.email;
  return {
    active: role === 'student' && active === true,
    ...(taken && { email: `formerly-${(personId as string).slice(0, 8)}@aliases.invalid` }),
  };
}

/** The one who reads it was of its staff, by the address: what was done then is that one’s. */
function isReader({ email, role }: Line, person: Asker): boolean {
  return role !== 'student' && person.email !== null && email === person.email;
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

function filledIn(column: string): string {
  return `“${column}” was not known yet when this archive was made: it was filled in.`;
}

function missingFiles({ files }: Survey, archive: ArchiveFile): string[] {
  const there = new Set(archive.files());
  const missing = [...files.keys()].filter((digest) => !there.has(digest)).length;
  if (missing === 0) return [];
  return [
    counted(
      missing,
      '1 file is named but not there; it cannot be opened.',
      '# files are named but not there; they cannot be opened.',
    ),
  ];
}
