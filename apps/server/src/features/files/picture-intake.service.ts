import { rm } from 'node:fs/promises';
import { join } from 'node:path';
import { Injectable } from '@nestjs/common';
import type { CurrentUser } from '../../auth/view-as.js';
import { DraftPicture } from '../../model/draft.js';
import { Database } from '../../platform/database/database.js';
import { recordContents } from '../../platform/files/contents.js';
import { FileStore } from '../../platform/files/file-store.js';
import { OwnDrafts } from '../drafts/own-draft.service.js';
import { FileIntake } from './file-intake.service.js';
import { Uploads } from './uploads.service.js';
import { UploadPolicy } from './upload-policy.service.js';

/** Pictures that are put into typed texts. */
@Injectable()
export class PictureIntake {
  constructor(
    private readonly database: Database,
    private readonly policy: UploadPolicy,
    private readonly intake: FileIntake,
    private readonly uploads: Uploads,
    private readonly store: FileStore,
    private readonly drafts: OwnDrafts,
  ) {}

  /** @returns the address under which the text shows it */
  async take(person: CurrentUser, exchangeId: string, uploadId: string): Promise<{ address: string }> {
    const upload = await this.policy.finished(person, exchangeId, uploadId);
    const folder = await this.store.workFolder();
    try {
      const to = join(folder, 'picture');
      await this.intake.cleanPicture(upload.path, to);
      const { digest } = await this.intake.keep(to);
      const draftId = await this.database.write(async (manager) => {
        const context = await this.policy.place(person, exchangeId, null, manager);
        const draft = await this.drafts.ensure(manager, context);
        await recordContents(manager, [digest]);
        await manager.save(DraftPicture, { draftId: draft.id, digest });
        return draft.id;
      });
      await this.uploads.forget(uploadId);
      return { address: `/api/exchanges/${exchangeId}/drafts/${draftId}/pictures/${digest}` };
    } finally {
      await rm(folder, { recursive: true, force: true });
    }
  }
}
