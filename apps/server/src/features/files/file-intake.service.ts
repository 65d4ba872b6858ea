import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { StoredFile } from '../../model/stored-file.js';
import { Clock } from '../../platform/clock/clock.js';
import type { Answer } from '../../platform/bytes/answered.js';
import { recordContents } from '../../platform/files/contents.js';
import { FileStore, type Kept } from '../../platform/files/file-store.js';
import { FileWorkers } from '../../platform/files/file-workers.js';
import type { Inspected } from '../../platform/files/worker/inspect.js';
import { outcome } from '../../platform/jobs/outcome.js';
import { refused } from './refused.js';
import { storeFull, Uploads } from './uploads.service.js';
import { say } from '../../words/uploads.js';

/** Looks into files, and keeps them by their content. What is refused is forgotten as an upload as well. */
@Injectable()
export class FileIntake {
  constructor(
    private readonly uploads: Uploads,
    private readonly store: FileStore,
    private readonly workers: FileWorkers,
    private readonly clock: Clock,
  ) {}

  /** @param uploadId null for a file of the application's own */
  inspect(file: { readonly path: string; readonly name: string }, uploadId: string | null): Promise<Inspected> {
    return this.done(this.workers.inspect({ path: file.path, name: file.name }), uploadId);
  }

  /** A picture as it will be shown, at `to`. */
  async cleanPicture(path: string, to: string): Promise<void> {
    await this.done(this.workers.takePicture({ path, to }));
  }

  /** What the worker found out; its refusal, and its end, in words. */
  done<T>(work: Promise<Answer<T>>, uploadId: string | null = null): Promise<T> {
    const stopped = {
      sentence: say('readingThisFileTookToo'),
      whatToDo: say('handInSmallerOrSimpler'),
    };
    return outcome(work, stopped, ({ sentence, whatToDo }) => this.refuse(uploadId, sentence, whatToDo));
  }

  async refuse(uploadId: string | null, sentence: string, whatToDo: string): Promise<Error> {
    if (uploadId !== null) await this.uploads.forget(uploadId);
    return refused(sentence, whatToDo);
  }

  /** Moves a file of ours to its place in the store. */
  async keep(path: string): Promise<Kept> {
    return this.store.adopt(path).catch((error: NodeJS.ErrnoException) => {
      throw error.code === 'ENOSPC' ? storeFull() : error;
    });
  }

  /** Puts what is kept on record, in the transaction of whatever names it. The same content twice is one row. */
  async record(
    manager: EntityManager,
    { digest, size }: Kept,
    { family, mime, facts }: Pick<StoredFile, 'family' | 'mime' | 'facts'>,
  ): Promise<void> {
    if (await manager.existsBy(StoredFile, { digest })) return;
    await recordContents(manager, [digest]);
    await manager.insert(StoredFile, {
      digest,
      size,
      mime,
      family,
      facts,
      createdAt: this.clock.now(),
      copyState: 'waiting',
      metadata: [],
      remarks: [],
    });
  }
}
