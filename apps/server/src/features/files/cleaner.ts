import { Injectable, Logger, type OnApplicationBootstrap, type OnApplicationShutdown } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { Clock } from '../../platform/clock/clock.js';
import { Rounds } from '../../platform/jobs/rounds.js';
import { Database } from '../../platform/database/database.js';
import { FileContent, StoredFile } from '../../model/stored-file.js';
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
      // Files that no row refers to, and that have had time to be named. Their pictures go with them.
      await manager
        .createQueryBuilder()
        .delete()
        .from(StoredFile)
        .where('createdAt < :before', { before: this.clock.now() - age })
        .andWhere(await unreferenced(manager, 'stored_file', 'digest'))
        .execute();
      await manager
        .createQueryBuilder()
        .delete()
        .from(FileContent)
        .where(await unreferenced(manager, 'file_content', 'digest'))
        .execute();
      return new Set((await manager.find(FileContent)).map(({ digest }) => digest));
    });
    await this.uploads.removeOld();
    return this.store.removeOthers(named, age, this.clock.real());
  }
}

/**
 * @returns a condition for rows of `table` that no row of any table refers to, made from the foreign keys of the schema: what is added
 *   later is kept without being listed here. What goes along with the row (`CASCADE`) does not hold it.
 */
async function unreferenced(manager: EntityManager, table: string, column: string): Promise<string> {
  const keys = await manager.query<Array<{ name: string; source: string }>>(
    `SELECT tables.name, keys."from" AS source FROM sqlite_master tables, pragma_foreign_key_list(tables.name) keys
      WHERE tables.type = 'table' AND keys."table" = ? AND keys.on_delete <> 'CASCADE'`,
    [table],
  );
  return keys
    .map(
      ({ name, source }) => `NOT EXISTS (SELECT 1 FROM "${name}" WHERE "${name}"."${source}" = "${table}"."${column}")`,
    )
    .join(' AND ');
}
