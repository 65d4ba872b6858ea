import { Injectable } from '@nestjs/common';
import { LIMITS, type AttachmentCard, type AttachmentPlace } from '@salt-circle/contracts';
import type { EntityManager } from 'typeorm';
import { Access, assertCan, type ExchangeContext } from '../../permissions/access.js';
import { attachmentsOf } from '../../queries/attachments.js';
import type { CurrentUser } from '../../auth/view-as.js';
import { ExchangeAttachment } from '../../model/attachment.js';
import { Clock } from '../../platform/clock/clock.js';
import { Database } from '../../platform/database/database.js';
import { safeFileName } from '../../platform/files/safe-file-name.js';
import { Ids } from '../../platform/ids/ids.js';
import { ProblemError } from '../../platform/problems/problem-error.js';
import { refusal } from '../../platform/problems/sentences.js';
import { Copies } from '../reading/copies.service.js';
import { FileIntake } from './file-intake.service.js';
import { Uploads } from './uploads.service.js';
import { attachmentPlace, UploadPolicy } from './upload-policy.service.js';
import { say } from '../../words/uploads.js';

/** A file that lies ready, from an upload or from the application itself. */
interface Given {
  readonly path: string;
  readonly name: string;
  readonly place: AttachmentPlace;
  readonly uploadId: string | null;
}

/** Files that instructors give with the brief or the guide. */
@Injectable()
export class Attachments {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly clock: Clock,
    private readonly ids: Ids,
    private readonly policy: UploadPolicy,
    private readonly intake: FileIntake,
    private readonly uploads: Uploads,
    private readonly copies: Copies,
  ) {}

  /** Adds a finished upload. The same upload again gives what it gave before. */
  async add(person: CurrentUser, exchangeId: string, uploadId: string): Promise<AttachmentCard[]> {
    await this.#planning(person, exchangeId, this.database.read);
    const known = await this.database.read.existsBy(ExchangeAttachment, { uploadId, exchangeId });
    if (known) return attachmentsOf(this.database.read, exchangeId);
    const upload = await this.policy.finished(person, exchangeId, uploadId);
    if (upload.use !== 'attachment') throw refusal('unknown');
    const place = attachmentPlace(upload.deliverableId);
    const cards = await this.take(person, exchangeId, { ...upload, place, uploadId });
    await this.uploads.forget(uploadId);
    return cards;
  }

  /** Adds a file of ours. */
  async take(
    person: CurrentUser,
    exchangeId: string,
    { path, name, place, uploadId }: Given,
  ): Promise<AttachmentCard[]> {
    const inspected = await this.intake.inspect({ path, name }, uploadId);
    const kept = await this.intake.keep(path);
    const cards = await this.database.write(async (manager, emit) => {
      const { course } = await this.#planning(person, exchangeId, manager);
      // The same request a second time, while the first was still looking into the file.
      const twice = uploadId !== null && (await manager.existsBy(ExchangeAttachment, { uploadId, exchangeId }));
      if (twice) return attachmentsOf(manager, exchangeId);
      await assertRoom(manager, exchangeId);
      await this.intake.record(manager, kept, inspected);
      await manager.insert(ExchangeAttachment, {
        ...{ id: this.ids.uuid(), exchangeId, uploadId, place, digest: kept.digest, name: safeFileName(name) },
        addedAt: this.clock.now(),
      });
      emit({ action: 'attachment-added', actorId: person.id, courseId: course.id, exchangeId });
      return attachmentsOf(manager, exchangeId);
    });
    this.copies.enqueue(kept.digest, person.id);
    return cards;
  }

  /** What is gone already stays gone. */
  async remove(person: CurrentUser, exchangeId: string, id: string): Promise<void> {
    await this.database.write(async (manager, emit) => {
      const { course } = await this.#planning(person, exchangeId, manager);
      const { affected } = await manager.delete(ExchangeAttachment, { id, exchangeId });
      if (affected === 0) return;
      emit({ action: 'attachment-removed', actorId: person.id, courseId: course.id, exchangeId });
    });
  }

  async #planning(person: CurrentUser, exchangeId: string, manager: EntityManager): Promise<ExchangeContext> {
    const context = await this.access.exchange(person, exchangeId, manager);
    assertCan(context, { kind: 'plan' });
    return context;
  }
}

async function assertRoom(manager: EntityManager, exchangeId: string): Promise<void> {
  if ((await manager.countBy(ExchangeAttachment, { exchangeId })) < LIMITS.attachments) return;
  throw new ProblemError({
    code: 'too-many-files',
    sentence: say('briefAndGuideHaveAttachments', { attachments: LIMITS.attachments }),
    whatToDo: say('takeOneAwayFirst'),
  });
}
