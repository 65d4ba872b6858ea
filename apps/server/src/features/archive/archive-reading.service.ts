import { rm } from 'node:fs/promises';
import { Injectable } from '@nestjs/common';
import type { ArchiveRequest, ArchiveView, ReadArchiveRequest } from '@salt-circle/contracts';
import type { CurrentUser } from '../../auth/view-as.js';
import { Clock } from '../../platform/clock/clock.js';
import { Database } from '../../platform/database/database.js';
import { FileStore } from '../../platform/files/file-store.js';
import type { Inspected } from '../../platform/files/worker/inspect.js';
import { Ids } from '../../platform/ids/ids.js';
import { isFileRefused } from '../../platform/problems/file-refused.js';
import { refusal } from '../../platform/problems/sentences.js';
import { FileIntake } from '../files/file-intake.service.js';
import { Uploads } from '../files/uploads.service.js';
import { UploadPolicy } from '../files/upload-policy.service.js';
import { Copies } from '../reading/copies.service.js';
import { ArchiveFile, broken } from './archive-file.js';
import { ArchiveImport, isReader, type ArchiveToImport } from './archive-import.js';
import { ARCHIVE_VERSION } from './exchange-archives.service.js';
import { readContents, type ArchiveContents } from './archive-contents.js';
import { say } from '../../words/archive.js';

/** An exchange from an archive, into a course of its own. */
@Injectable()
export class ArchiveReading {
  constructor(
    private readonly database: Database,
    private readonly clock: Clock,
    private readonly ids: Ids,
    private readonly store: FileStore,
    private readonly intake: FileIntake,
    private readonly uploads: Uploads,
    private readonly policy: UploadPolicy,
    private readonly copies: Copies,
  ) {}

  /** What is in it, and what would become of it; nothing changes. */
  preview(person: CurrentUser, { uploadId }: ArchiveRequest): Promise<ArchiveView> {
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
    person: CurrentUser,
    { uploadId, courseTitle }: ReadArchiveRequest,
  ): Promise<{ courseId: string; exchangeId: string }> {
    const made = await this.#opened(person, uploadId, async (archive) => {
      const found = await this.#survey(archive);
      const files = await this.#takeFiles(archive, found);
      const coming = { archive, found, ...files, person, courseTitle, now: this.clock.now(), ids: this.ids };
      const made = await this.database.write(async (manager, emit) => {
        const here = await new ArchiveImport(coming).write(manager);
        emit({
          ...{ action: 'archive-read', actorId: person.id, ...here },
          details: { people: archive.manifest.people, drafts: archive.manifest.drafts },
        });
        return here;
      });
      for (const digest of files.files.keys()) this.copies.enqueue(digest, person.id);
      return made;
    });
    await this.uploads.forget(uploadId);
    return made;
  }

  async #opened<T>(person: CurrentUser, uploadId: string, work: (archive: ArchiveFile) => Promise<T>): Promise<T> {
    if (!person.createsCourses || person.viewAs !== undefined) throw refusal('not-yours');
    const upload = await this.policy.finished(person, '', uploadId);
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

  #survey(archive: ArchiveFile): Promise<ArchiveContents> {
    return readContents(archive, ARCHIVE_VERSION, ({ entity }) => this.database.read.connection.getMetadata(entity));
  }

  /** Looked into like any other upload; one that is here already stays. */
  async #takeFiles(archive: ArchiveFile, found: ArchiveContents): Promise<Pick<ArchiveToImport, 'files' | 'brought'>> {
    const taken = new Map<string, Inspected>();
    const brought = new Set<string>();
    const folder = await this.store.workFolder();
    try {
      for (const digest of archive.files()) {
        const named = found.files.get(digest);
        // What no row names is nothing of this exchange.
        if (named === undefined) continue;
        const path = await archive.unpack(digest, folder);
        const inspected = named.family === 'captions' ? null : await this.#inspected(path, digest, named.name);
        if (named.family === null && inspected?.family !== 'image') throw broken(say('pictureIsNone', { digest }));
        const kept = await this.intake.keep(path);
        if (kept.digest !== digest) throw broken(say('fileIsNotWhatIts', { digest }));
        brought.add(digest);
        if (named.family !== null) taken.set(digest, inspected ?? CAPTIONS);
      }
    } finally {
      await rm(folder, { recursive: true, force: true });
    }
    return { files: taken, brought };
  }

  async #inspected(path: string, digest: string, name: string): Promise<Inspected> {
    try {
      return await this.intake.inspect({ path, name }, null);
    } catch (error) {
      if (!isFileRefused(error)) throw error;
      throw broken(say('fileOfThisArchiveIs', { digest: digest.slice(0, 12), sentence: error.problem.sentence }));
    }
  }
}

const CAPTIONS = { family: 'captions', mime: 'text/vtt', facts: {} } as unknown as Inspected;

function filledIn(column: string): string {
  return say('wasNotKnownYetWhen', { column });
}

function missingFiles({ files }: ArchiveContents, archive: ArchiveFile): string[] {
  const there = new Set(archive.files());
  const missing = [...files.keys()].filter((digest) => !there.has(digest)).length;
  if (missing === 0) return [];
  return [say('filesAreNamedButNot', { missing })];
}
