import { Injectable, Logger, type OnApplicationBootstrap, type OnApplicationShutdown } from '@nestjs/common';
import { Clock } from '../../platform/clock/clock.js';
import { Rounds } from '../../platform/jobs/rounds.js';
import { Database } from '../../platform/database/database.js';
import { ExchangeAttachment } from '../../model/attachment.js';
import { DraftPart, DraftPicture } from '../../model/draft.js';
import { ReviewFile } from '../../model/review-file.js';
import { StoredFile } from '../../model/stored-file.js';
import { FileStore } from '../../platform/files/file-store.js';
import { Uploads } from './uploads.service.js';

const HOUR = 3_600_000;
/** A file may lie in the store for a moment before the row that names it is written. */
const YOUNG = HOUR;

/** Removes what nothing refers to any more: files of removed parts, and uploads that were given up. */
@Injectable()
export class Cleaner implements OnApplicationBootstrap, OnApplicationShutdown {
  readonly #logger = new Logger('cleaner');
  readonly #rounds = new Rounds(
    () => this.clean(),
    (error) => this.#logger.error(error.stack ?? 'cleaning up did not work'),
  );

  constructor(
    private readonly database: Database,
    private readonly store: FileStore,
    private readonly uploads: Uploads,
    private readonly clock: Clock,
  ) {}

  onApplicationBootstrap(): void {
    this.#rounds.begin(HOUR);
  }

  async onApplicationShutdown(): Promise<void> {
    await this.#rounds.end();
  }

  /** @returns how many files were removed */
  async clean(age = YOUNG): Promise<number> {
    const named = await this.database.write(async (manager) => {
      // Rows that no part, no attachment and no remark names, and that have had time to be named.
      const naming = manager
        .createQueryBuilder(DraftPart, 'part')
        .select('1')
        .where('part.digest = stored_file.digest OR part.captions = stored_file.digest');
      const attached = manager
        .createQueryBuilder(ExchangeAttachment, 'attached')
        .select('1')
        .where('attached.digest = stored_file.digest');
      const remarked = manager
        .createQueryBuilder(ReviewFile, 'remarked')
        .select('1')
        .where('remarked.digest = stored_file.digest');
      await manager
        .createQueryBuilder()
        .delete()
        .from(StoredFile)
        .where('createdAt < :before', { before: this.clock.now() - age })
        .andWhere(`NOT EXISTS (${naming.getQuery()}) AND NOT EXISTS (${attached.getQuery()})`)
        .andWhere(`NOT EXISTS (${remarked.getQuery()})`)
        .execute();
      const files = await manager.find(StoredFile, { select: { digest: true, copyDigest: true, pictures: true } });
      const pictures = await manager.find(DraftPicture, { select: { draftId: true, digest: true } });
      return new Set([
        ...files.flatMap(({ digest, copyDigest, pictures: own }) => [digest, copyDigest ?? digest, ...own]),
        ...pictures.map(({ digest }) => digest),
      ]);
    });
    await this.uploads.removeOld();
    return this.store.removeOthers(named, age, this.clock.real());
  }
}
