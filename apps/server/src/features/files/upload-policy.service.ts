import { Injectable } from '@nestjs/common';
import { LIMITS, type AttachmentPlace, type OpenUploadView } from '@salt-circle/contracts';
import type { EntityManager } from 'typeorm';
import { Access, assertCan, type ExchangeContext } from '../../permissions/access.js';
import { writingState, reviewAccess } from '../../permissions/review-access.js';
import type { CurrentUser } from '../../auth/view-as.js';
import { Database } from '../../platform/database/database.js';
import { safeFileName } from '../../platform/files/safe-file-name.js';
import { ProblemError } from '../../platform/problems/problem-error.js';
import { refusal } from '../../platform/problems/sentences.js';
import { OwnDrafts } from '../drafts/own-draft.service.js';
import { FileRoom } from './file-room.service.js';
import { refused } from './refused.js';
import { Uploads, type Purpose, type Upload } from './uploads.service.js';
import { say } from '../../words/uploads.js';

/** Bytes of a picture in a text, and of captions. */
const PICTURE_BYTES = 20_000_000;
const CAPTION_BYTES = 1_000_000;
const MEGA = 1_000_000;

/** Whether there is a place for a file, before a byte of it is taken and again when it is there. */
@Injectable()
export class UploadPolicy {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly uploads: Uploads,
    private readonly drafts: OwnDrafts,
    private readonly room: FileRoom,
  ) {}

  /** @param size bytes, as announced */
  async assert(person: CurrentUser, purpose: Purpose, size: number): Promise<void> {
    const most = await this.#bound(person, purpose);
    if (!Number.isFinite(size) || size > most) {
      const given = (size / MEGA).toFixed(1);
      throw refused(say('thisFileHasMbUp', { given, most: most / MEGA }), say('makeItSmallerThenTry'));
    }
    if (size === 0) throw refused(say('thisFileIsEmpty'), say('chooseAnotherFile'));
  }

  #bound(person: CurrentUser, purpose: Purpose): Promise<number> {
    if (purpose.use === 'attachment') return this.#mostAttached(person, purpose);
    if (purpose.use === 'archive') return Promise.resolve(mostOfArchive(person));
    return ofReview(purpose) ? this.#mostRemarked(person, purpose) : this.#most(person, purpose);
  }

  /** Bytes of what goes with a note or an answer, or brings notes, of a review that the one who asks may write. */
  async #mostRemarked(person: CurrentUser, { exchangeId, deliverableId: reviewId }: Purpose): Promise<number> {
    const access = await reviewAccess(this.access, this.database.read, person, reviewId);
    if (access.review.exchangeId !== exchangeId) throw refusal('unknown');
    assertCan(access.context, { kind: 'write-review', ...writingState(access) });
    return LIMITS.remarkMegabytes * MEGA;
  }

  /** Bytes of what goes into a draft. */
  async #most(person: CurrentUser, { exchangeId, participantId, deliverableId, use }: Purpose): Promise<number> {
    const context = await this.place(person, exchangeId, participantId);
    const kinds = use === 'picture' ? (['text'] as const) : (['file', 'recording'] as const);
    const { maxMegabytes } = this.drafts.deliverable(context, deliverableId, kinds);
    return use === 'picture' ? PICTURE_BYTES : use === 'captions' ? CAPTION_BYTES : maxMegabytes * MEGA;
  }

  /** Bytes of what instructors give with brief or guide, or to practise on. */
  async #mostAttached(person: CurrentUser, { exchangeId, deliverableId }: Purpose): Promise<number> {
    assertCan(await this.access.exchange(person, exchangeId), { kind: 'plan' });
    if (deliverableId !== PRACTICE) attachmentPlace(deliverableId);
    return LIMITS.attachmentMegabytes * MEGA;
  }

  /** Before a byte of it is taken: also whether there is room for it. */
  async assertNew(person: CurrentUser, purpose: Purpose, size: number): Promise<void> {
    await this.assert(person, purpose, size);
    const into =
      purpose.use === 'attachment' || purpose.use === 'archive' || ofReview(purpose)
        ? null
        : await this.access.ownDraft(await this.place(person, purpose.exchangeId, purpose.participantId));
    await this.room.assert(person, into, size);
  }

  async openUploads(person: CurrentUser): Promise<OpenUploadView[]> {
    // With a student's eyes there is nothing to go on with.
    const open = person.viewAs === undefined ? await this.uploads.openOf(person) : [];
    // What is read and forgotten.
    const kept = open.filter(({ use }) => use !== 'marked' && use !== 'archive');
    return kept.map(({ id, exchangeId, deliverableId, name, size, received }) => ({
      id,
      exchangeId,
      deliverableId,
      name: safeFileName(name),
      size,
      received,
    }));
  }

  /** Where a file goes: into the draft of the one who asks, or, for staff, of the participant it is for. */
  async place(
    person: CurrentUser,
    exchangeId: string,
    participantId: string | null,
    manager: EntityManager = this.database.read,
  ): Promise<ExchangeContext> {
    const context = await this.access.exchange(person, exchangeId, manager);
    if (participantId !== null) return this.access.actingFor(context, participantId, manager);
    assertCan(context, { kind: 'save-draft' });
    return context;
  }

  /** An upload that is there as a whole, and still has a place. */
  async finished(person: CurrentUser, exchangeId: string, uploadId: string): Promise<Upload> {
    const upload = await this.uploads.owned(person, uploadId);
    await this.assert(person, { ...upload, exchangeId }, upload.size);
    if (upload.finished) return upload;
    throw new ProblemError({
      code: 'upload-unfinished',
      sentence: say('hasNotBeenUploadedAs', { name: safeFileName(upload.name) }),
      whatToDo: say('waitUntilItIsOr'),
    });
  }
}

/** Bytes. @throws ProblemError for somebody who makes no courses */
function mostOfArchive({ createsCourses, viewAs }: CurrentUser): number {
  if (!createsCourses || viewAs !== undefined) throw refusal('not-yours');
  return LIMITS.archiveMegabytes * MEGA;
}

function ofReview({ use }: Purpose): boolean {
  return use === 'remark' || use === 'marked';
}

/** Where an attachment goes that becomes a practice draft. */
export const PRACTICE = 'practice';

/** @throws ProblemError for anything else than the two places that have attachments */
export function attachmentPlace(text: string): AttachmentPlace {
  if (text !== 'brief' && text !== 'guide') throw refusal('unknown');
  return text;
}
