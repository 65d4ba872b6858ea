import { Injectable } from '@nestjs/common';
import { LIMITS, type ReviewFileCard, type ReviewFileRequest } from '@salt-circle/contracts';
import { OVERALL_ID } from '@salt-circle/core';
import { IsNull, type EntityManager } from 'typeorm';
import { Access, assertCan } from '../../permissions/access.js';
import { formFor } from '../../queries/review-form.js';
import { fileCards, filesOf } from '../../queries/review-files.js';
import { writingState, reviewAccess, type ReviewAccess } from '../../permissions/review-access.js';
import type { CurrentUser } from '../../auth/view-as.js';
import { NoteRow, Review } from '../../model/review.js';
import { ReviewFile } from '../../model/review-file.js';
import { Clock } from '../../platform/clock/clock.js';
import { Database, type EmitEvent } from '../../platform/database/database.js';
import { safeFileName } from '../../platform/files/safe-file-name.js';
import { Ids } from '../../platform/ids/ids.js';
import { ProblemError } from '../../platform/problems/problem-error.js';
import { invalid, refusal } from '../../platform/problems/sentences.js';
import { Copies } from '../reading/copies.service.js';
import { FileIntake } from './file-intake.service.js';
import { Uploads } from './uploads.service.js';
import { UploadPolicy } from './upload-policy.service.js';
import { say } from '../../words/uploads.js';

/** Files and spoken remarks that reviewers put to their notes and answers. */
@Injectable()
export class ReviewFiles {
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

  /** Adds a finished upload to a note or an answer. The same upload again gives what it gave before. */
  async add(person: CurrentUser, reviewId: string, request: ReviewFileRequest): Promise<ReviewFileCard[]> {
    const { uploadId } = request;
    const before = await this.#writing(person, reviewId, this.database.read);
    if (await this.database.read.existsBy(ReviewFile, { uploadId, reviewId })) return this.#cards(before);
    const upload = await this.policy.finished(person, before.context.exchange.id, uploadId);
    if (upload.use !== 'remark' || upload.deliverableId !== reviewId) throw refusal('unknown');
    await assertTarget(this.database.read, before, request);
    const inspected = await this.intake.inspect(upload, uploadId);
    const kept = await this.intake.keep(upload.path);
    const cards = await this.database.write(async (manager, emit) => {
      const access = await this.#writing(person, reviewId, manager);
      // The same request a second time, while the first was still looking into the file.
      if (await manager.existsBy(ReviewFile, { uploadId, reviewId })) return this.#cards(access, manager);
      await assertTarget(manager, access, request);
      await this.intake.record(manager, kept, inspected);
      await manager.insert(ReviewFile, {
        ...{ id: this.ids.uuid(), reviewId, uploadId, digest: kept.digest, name: safeFileName(upload.name) },
        ...{ itemId: request.itemId ?? null, noteId: request.noteId ?? null },
        ...{ addedAt: this.clock.now(), removedAt: null, withheldAt: null },
      });
      await manager.update(Review, { id: reviewId }, { workedAt: access.context.now });
      this.#tell(emit, access);
      return this.#cards(access, manager);
    });
    this.copies.enqueue(kept.digest, person.id);
    await this.uploads.forget(uploadId);
    return cards;
  }

  /** What is gone already stays gone. What was submitted with it stays submitted, until it is submitted again. */
  async remove(person: CurrentUser, reviewId: string, id: string): Promise<void> {
    await this.database.write(async (manager, emit) => {
      const access = await this.#writing(person, reviewId, manager);
      await manager.update(ReviewFile, { id, reviewId, removedAt: IsNull() }, { removedAt: this.clock.now() });
      this.#tell(emit, access);
    });
  }

  async #cards(access: ReviewAccess, manager: EntityManager = this.database.read): Promise<ReviewFileCard[]> {
    const { context, review } = access;
    return fileCards(manager, await filesOf(manager, context, review, access), true);
  }

  #tell(emit: EmitEvent, { context }: ReviewAccess): void {
    const where = { courseId: context.course.id, exchangeId: context.exchange.id };
    emit.quietly({ topic: 'reviews', ...where });
    emit.quietly({ topic: 'own-review', ...where, personIds: [context.person.id] });
  }

  async #writing(person: CurrentUser, reviewId: string, manager: EntityManager): Promise<ReviewAccess> {
    const access = await reviewAccess(this.access, manager, person, reviewId);
    assertCan(access.context, { kind: 'write-review', ...writingState(access) });
    // Practice is read once, beside the key, and thrown away.
    if (access.context.facts.practice) throw refusal('unknown');
    return access;
  }
}

/** @throws ProblemError unless there is something that the file goes with, and room for it */
async function assertTarget(
  manager: EntityManager,
  { context, review }: ReviewAccess,
  { itemId = null, noteId = null }: ReviewFileRequest,
): Promise<void> {
  if ((itemId === null) === (noteId === null)) throw wrong('itemId', say('fileGoesWithAnswerOr'));
  if (review.versionId === null) {
    throw wrong('itemId', say('fileGoesWithWordsWrite'));
  }
  if (itemId !== null) {
    const { items, overall } = await formFor(manager, context, review);
    const there = items.some(({ id }) => id === itemId) || (itemId === OVERALL_ID && overall !== 'none');
    if (!there) throw wrong('itemId', say('formHasNoSuchItem'));
  } else if (!(await manager.existsBy(NoteRow, { id: noteId ?? '', reviewId: review.id }))) {
    throw wrong('noteId', say('thisNoteHasNotBeen'));
  }
  const all = await manager.findBy(ReviewFile, { reviewId: review.id, removedAt: IsNull() });
  const here = all.filter((row) => row.itemId === itemId && row.noteId === noteId);
  if (here.length >= LIMITS.remarkFiles) {
    throw full(say('thereAreFilesHereAlready', { remarkFiles: LIMITS.remarkFiles }));
  }
  if (all.length >= LIMITS.reviewFiles) {
    throw full(say('thisReviewHasFilesAlready', { reviewFiles: LIMITS.reviewFiles }));
  }
}

function wrong(path: string, sentence: string): ProblemError {
  return invalid([{ path, code: 'no-place', sentence }]);
}

function full(sentence: string): ProblemError {
  return new ProblemError({ code: 'too-many-files', sentence, whatToDo: say('takeOneAwayFirst') });
}
