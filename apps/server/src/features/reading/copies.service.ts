import { join } from 'node:path';
import { rm } from 'node:fs/promises';
import { Injectable, Logger, type OnApplicationBootstrap, type OnApplicationShutdown } from '@nestjs/common';
import type { CopyView } from '@salt-circle/contracts';
import type { EntityManager } from 'typeorm';
import { authorPersons } from '../../queries/authors.js';
import { Draft, DraftPart } from '../../model/draft.js';
import { ExchangeAttachment } from '../../model/attachment.js';
import { Exchange, Participant } from '../../model/exchange.js';
import { Review } from '../../model/review.js';
import { ReviewFile } from '../../model/review-file.js';
import { Database, type EmitEvent } from '../../platform/database/database.js';
import { FilePicture, StoredFile } from '../../model/stored-file.js';
import { insertAll } from '../../platform/database/insert-all.js';
import { recordContents } from '../../platform/files/contents.js';
import { FileStore } from '../../platform/files/file-store.js';
import { FileWorkers } from '../../platform/files/file-workers.js';
import { WorkStopped } from '../../platform/jobs/threads.js';
import { InTurn } from '../../platform/jobs/in-turn.js';
import type { Converted } from '../../platform/files/worker/converted.js';
import { say } from '../../words/reading.js';

/** A file that ended the server or its thread so often is not tried again by itself. */
const MOST_TRIES = 2;

/** Copies at once; each in a thread of its own. */
export const COPIES_AT_ONCE = 2;
/** In whose name copies are made that an earlier run of the server left. */
const NOBODY = '';

/** Makes the reading copies, two at once and in turn by person: whoever brings much, or what takes long, waits for the others. */
@Injectable()
export class Copies implements OnApplicationBootstrap, OnApplicationShutdown {
  readonly #logger = new Logger('copies');
  readonly #progress = new Map<string, number>();
  readonly #waiting = new InTurn<string>();
  readonly #working = new Set<Promise<void>>();
  #over = false;

  constructor(
    private readonly database: Database,
    private readonly store: FileStore,
    private readonly workers: FileWorkers,
  ) {}

  async onApplicationBootstrap(): Promise<void> {
    const left = await this.database.read.find(StoredFile, {
      select: { digest: true },
      where: { copyState: 'waiting' },
    });
    for (const { digest } of left) this.enqueue(digest, NOBODY);
  }

  async onApplicationShutdown(): Promise<void> {
    this.#over = true;
    this.#waiting.clear();
    await this.idle();
  }

  /** Call it after the transaction in which the file came. @param personId who brought it */
  enqueue(digest: string, personId: string): void {
    if (this.#over || this.#progress.has(digest)) return;
    this.#progress.set(digest, 0);
    this.#waiting.add(personId, digest);
    if (this.#working.size >= COPIES_AT_ONCE) return;
    const work = this.#work().finally(() => this.#working.delete(work));
    this.#working.add(work);
  }

  /** For tests and figures: when nothing is left to be made. */
  async idle(): Promise<void> {
    while (this.#working.size > 0) await Promise.all(this.#working);
  }

  view({ digest, copyState, copyProblem }: Pick<StoredFile, 'digest' | 'copyState' | 'copyProblem'>): CopyView {
    return { state: copyState, progress: this.#progress.get(digest) ?? 0, problem: copyProblem };
  }

  async #work(): Promise<void> {
    for (let digest = this.#waiting.next(); digest !== undefined; digest = this.#waiting.next()) {
      await this.#make(digest).catch((error: Error) => this.#logger.error(error.stack ?? error.message));
      this.#progress.delete(digest);
    }
  }

  async #make(digest: string): Promise<void> {
    const file = await this.database.write(async (manager) => {
      const row = await manager.findOneBy(StoredFile, { digest, copyState: 'waiting' });
      if (row !== null) await manager.update(StoredFile, { digest }, { copyTries: row.copyTries + 1 });
      return row;
    });
    if (file === null) return;
    if (file.copyTries >= MOST_TRIES) return this.#failed(digest, say('makingCopyToReadHas'));
    const folder = await this.store.workFolder();
    try {
      const answer = await this.workers.convert({ path: this.store.path(digest), mime: file.mime, folder }, (share) =>
        this.#progress.set(digest, share),
      );
      if ('done' in answer) await this.#keep(digest, folder, answer.done);
      else await this.#failed(digest, `${answer.refused.sentence} ${answer.refused.whatToDo}`);
    } catch (error) {
      // When the server stops in the middle, the file waits for the next start.
      if (this.#over) return;
      const stopped = error instanceof WorkStopped;
      if (!stopped) this.#logger.error((error as Error).stack ?? 'a copy could not be made');
      await this.#failed(digest, stopped ? say('makingCopyToReadTook') : say('copyToReadCouldNot'));
    } finally {
      await rm(folder, { recursive: true, force: true });
    }
  }

  async #keep(digest: string, folder: string, made: Converted): Promise<void> {
    for (const picture of made.pictures ?? []) await this.store.adopt(join(folder, picture));
    const copy = made.copyFile === undefined ? null : await this.store.adopt(join(folder, made.copyFile));
    await this.database.write(async (manager, emit) => {
      const row = await manager.findOneBy(StoredFile, { digest });
      if (row === null) return;
      await tellReaders(manager, emit, digest);
      const pictures = [...new Set(made.pictures ?? [])];
      await recordContents(manager, copy === null ? pictures : [copy.digest, ...pictures]);
      await manager.delete(FilePicture, { fileDigest: digest });
      await insertAll(
        manager,
        FilePicture,
        pictures.map((picture) => ({ fileDigest: digest, digest: picture })),
      );
      await manager.update(
        StoredFile,
        { digest },
        {
          copyState: 'ready',
          copyProblem: null,
          facts: { ...row.facts, ...made.facts },
          copyHtml: made.copyHtml ?? null,
          copyText: made.copyText ?? null,
          copyDigest: copy?.digest ?? null,
          metadata: made.metadata,
          remarks: [...(made.remarks ?? [])],
        },
      );
    });
  }

  async #failed(digest: string, copyProblem: string): Promise<void> {
    await this.database.write(async (manager, emit) => {
      await manager.update(StoredFile, { digest }, { copyState: 'failed', copyProblem });
      await tellReaders(manager, emit, digest);
    });
  }

  /** Tries once more, for a member of staff or the author. */
  async again(digest: string, personId: string): Promise<void> {
    await this.database.write((manager) =>
      manager.update(
        StoredFile,
        { digest, copyState: 'failed' },
        { copyState: 'waiting', copyProblem: null, copyTries: 0 },
      ),
    );
    this.enqueue(digest, personId);
  }
}

/** Pages of authors and staff that show the file hear that its copy is there, or is not to be had. */
async function tellReaders(manager: EntityManager, emit: EmitEvent, digest: string): Promise<void> {
  const parts = await manager.findBy(DraftPart, { digest });
  for (const draftId of new Set(parts.map((part) => part.draftId))) {
    const draft = await manager.findOneByOrFail(Draft, { id: draftId });
    const exchange = await manager.findOneByOrFail(Exchange, { id: draft.exchangeId });
    const where = { courseId: exchange.courseId, exchangeId: exchange.id };
    const personIds = await authorPersons(manager, exchange, draft);
    emit.quietly({ topic: 'own-draft', ...where, personIds });
    emit.quietly({ topic: 'drafts', ...where });
  }
  for (const { reviewId } of await manager.findBy(ReviewFile, { digest })) {
    const review = await manager.findOneByOrFail(Review, { id: reviewId });
    const { courseId } = await manager.findOneByOrFail(Exchange, { id: review.exchangeId });
    const { personId } = await manager.findOneByOrFail(Participant, { id: review.reviewerId });
    emit.quietly({ topic: 'own-review', courseId, exchangeId: review.exchangeId, personIds: [personId] });
  }
  for (const { exchangeId } of await manager.findBy(ExchangeAttachment, { digest })) {
    const { courseId } = await manager.findOneByOrFail(Exchange, { id: exchangeId });
    emit.quietly({ topic: 'plan', courseId, exchangeId });
  }
}
