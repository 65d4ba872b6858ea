import { statfs } from 'node:fs/promises';
import { Inject, Injectable } from '@nestjs/common';
import type { CurrentUser } from '../../auth/view-as.js';
import { DraftPart, type Draft } from '../../model/draft.js';
import { StoredFile } from '../../model/stored-file.js';
import type { Settings } from '../../platform/config/settings.js';
import { SETTINGS } from '../../platform/config/settings.token.js';
import { Database } from '../../platform/database/database.js';
import { refused } from './refused.js';
import { storeFull, Uploads } from './uploads.service.js';
import { say } from '../../words/uploads.js';

const MEGA = 1_000_000;
/** Bytes of all files of a draft, those of its earlier versions included, each counted once. */
const DRAFT_BYTES = 2_000 * MEGA;

/** Whether there is room for one more file in the draft and on the disk; how many a person may have on the way, the uploads know. */
@Injectable()
export class FileRoom {
  constructor(
    private readonly database: Database,
    private readonly uploads: Uploads,
    @Inject(SETTINGS) private readonly settings: Settings,
  ) {}

  /** @param draft it goes into; null for one that is not begun @param size bytes @throws ProblemError with what to do */
  async assert(person: CurrentUser, draft: Draft | null, size: number): Promise<void> {
    const { bavail, bsize } = await statfs(this.settings.dataFolder);
    if (bavail * bsize - size < this.settings.diskRest) throw storeFull();
    const open = await this.uploads.sumOf(person);
    const there = draft === null ? 0 : await this.#bytesOf(draft.id);
    if (there + open.bytes + size > DRAFT_BYTES) {
      throw refused(say('withThisFileDraftWould', { megabytes: megabytes(DRAFT_BYTES) }), say('handInSmallerFileOr'));
    }
  }

  async #bytesOf(draftId: string): Promise<number> {
    const manager = this.database.read;
    // The same file in several versions lies there once.
    const named = manager.createQueryBuilder(DraftPart, 'part').select('part.digest').where('part.draftId = :draftId');
    const row = await manager
      .createQueryBuilder(StoredFile, 'file')
      .select('COALESCE(SUM(file.size), 0)', 'bytes')
      .where(`file.digest IN (${named.getQuery()})`, { draftId })
      .getRawOne<{ readonly bytes: number }>();
    return row?.bytes ?? 0;
  }
}

function megabytes(bytes: number): string {
  return say('mb', { bytes: Math.round(bytes / MEGA) });
}
