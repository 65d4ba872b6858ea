import { rm } from 'node:fs/promises';
import type { Readable } from 'node:stream';
import { Inject, Injectable, type OnApplicationShutdown } from '@nestjs/common';
import { writeFormFile } from '@salt-circle/core';
import { ZipFile } from 'yazl';
import { Access, assertCan, type ExchangeContext } from '../../permissions/access.js';
import { formOf } from '../../queries/review-form.js';
import type { CurrentUser } from '../../auth/view-as.js';
import { Clock } from '../../platform/clock/clock.js';
import type { Settings } from '../../platform/config/settings.js';
import { SETTINGS } from '../../platform/config/settings.token.js';
import { Database } from '../../platform/database/database.js';
import { safeFileName } from '../../platform/files/safe-file-name.js';
import { FileStore } from '../../platform/files/file-store.js';
import { compiled, Threads } from '../../platform/jobs/threads.js';
import { iso } from '../../platform/wire/instants.js';
import { AllocationFiles } from '../allocation/allocation-files.service.js';
import { GradeFiles } from '../grades/grade-files.service.js';
import { AnnotatedFiles } from '../annotated-files/annotated-files.service.js';
import type { ArchiveWishes } from './kept/archive-lines.js';
import type { ArchiveManifest } from './kept/rows.js';
import { plainTables } from './kept/tables.js';
import type { RowsMade, RowsTask } from './worker/archive.js';
import { say } from '../../words/archive.js';

/** Of the format; a change that an older application cannot read makes it one more. */
export const ARCHIVE_VERSION = 3;

/** Megabytes and milliseconds: ten thousand people take a tenth of it. */
const THREADS = { memory: 2_048, time: 1_800_000, atOnce: 2, inTurn: true };

const readme = () => say('thisIsArchiveOfOne');

/** A whole exchange as one ZIP, put together while it is sent: it is never in memory as a whole. */
@Injectable()
export class ExchangeArchives implements OnApplicationShutdown {
  readonly #threads = new Threads(compiled('features/archive/worker/archive.js'), THREADS);

  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly clock: Clock,
    private readonly store: FileStore,
    private readonly allocation: AllocationFiles,
    private readonly grades: GradeFiles,
    private readonly marked: AnnotatedFiles,
    @Inject(SETTINGS) private readonly settings: Settings,
  ) {}

  async stream(
    person: CurrentUser,
    exchangeId: string,
    wishes: ArchiveWishes,
  ): Promise<{ name: string; zip: Readable }> {
    const context = await this.access.exchange(person, exchangeId);
    assertCan(context, { kind: 'plan' });
    const { exchange, course } = context;
    const zip = new ZipFile();
    zip.addBuffer(Buffer.from(readme()), 'README.txt');
    const form = await formOf(this.database.read, context);
    zip.addBuffer(Buffer.from(JSON.stringify(writeFormFile({ title: exchange.title, form }), null, 2)), 'form.json');
    for (const [name, text] of await this.#beside(person, context, wishes)) zip.addBuffer(Buffer.from(text), name);
    await this.database.report({
      ...{ action: 'archive-made', actorId: person.id, courseId: course.id, exchangeId },
      details: { people: wishes.aliases ? 'aliases' : 'names', drafts: wishes.drafts },
    });
    await this.#addRows(zip, context, wishes);
    return { name: say('archiveZip', { name: safeFileName(exchange.title) }), zip: zip.outputStream as Readable };
  }

  /** What other programs read, by the services of the pages: they speak of people by their names. */
  async #beside(
    person: CurrentUser,
    { exchange }: ExchangeContext,
    { aliases, drafts }: ArchiveWishes,
  ): Promise<Array<[string, string]>> {
    if (aliases) return [];
    return [
      ['allocation.csv', (await this.allocation.write(person, exchange.id)).csv],
      ['grades.csv', (await this.grades.csv(person, exchange.id)).csv],
      // Notes quote the drafts.
      ...(drafts ? [['notes.jsonld', await this.marked.ofExchange(person, exchange.id)] as [string, string]] : []),
    ];
  }

  /** Read in a thread, as of one moment, into files of a folder that goes with the sending. */
  async #addRows(zip: ZipFile, context: ExchangeContext, wishes: ArchiveWishes): Promise<void> {
    const { connection } = this.database.read;
    const into = await this.store.workFolder();
    const over = () => void rm(into, { recursive: true, force: true });
    // Also where whoever asked has gone away.
    const out = zip.outputStream as Readable;
    out.once('close', over);
    zip.once('error', (error: Error) => out.destroy(error));
    const task: RowsTask = {
      ...{
        dataFolder: this.settings.dataFolder,
        filesFolder: this.store.root,
        exchangeId: context.exchange.id,
        wishes,
        into,
      },
      tables: plainTables(({ entity }) => connection.getMetadata(entity)),
    };
    const made = await this.#threads
      .run<RowsMade>('writeRows', task, { time: THREADS.time })
      .catch((error: unknown): never => {
        over();
        throw error;
      });
    for (const [name, path] of made.members) zip.addFile(path, name);
    for (const digest of made.digests) zip.addFile(this.store.path(digest), `files/${digest}`, { compress: false });
    zip.addBuffer(Buffer.from(JSON.stringify(this.#manifest(context, wishes, made.rows), null, 2)), 'manifest.json');
    zip.end();
  }

  #manifest(
    { course, exchange }: ExchangeContext,
    { aliases, drafts }: ArchiveWishes,
    rows: Record<string, number>,
  ): ArchiveManifest {
    const { title, timeZone, holidays, measuresTime } = course;
    return {
      ...{ format: 'salt-circle-exchange', version: ARCHIVE_VERSION, madeAt: iso(this.clock.now()) },
      ...{ title: exchange.title, people: aliases ? 'aliases' : 'names', drafts },
      course: aliases
        ? { title: say('course'), timeZone: 'UTC', holidays: [], measuresTime }
        : { title, timeZone, holidays, measuresTime },
      rows,
    };
  }

  async onApplicationShutdown(): Promise<void> {
    await this.#threads.end();
  }
}
