import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { Access, assertCan } from '../../permissions/access.js';
import { eventOrigin, writingState, reviewAccess, type ReviewAccess } from '../../permissions/review-access.js';
import type { CurrentUser } from '../../auth/view-as.js';
import type { DraftVersion } from '../../model/draft.js';
import { Review } from '../../model/review.js';
import { Database, type EmitEvent } from '../../platform/database/database.js';
import { versionToReview } from './version-to-review.js';

/** Where something was written. */
export interface Writing extends ReviewAccess {
  /** The version that the review is of from now on. */
  readonly version: DraftVersion;
}

/** What is written in a review: whether it may be now, of which version it is from then on, and who hears of it. */
@Injectable()
export class ReviewWriting {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
  ) {}

  /** @param read number of the version that the reviewer has in view; the review is of that one from now on */
  in<T>(
    person: CurrentUser,
    reviewId: string,
    read: number | undefined,
    work: (manager: EntityManager, writing: Writing, emit: EmitEvent) => Promise<T>,
  ): Promise<T> {
    return this.database.write(async (manager, emit: EmitEvent) => {
      const access = await reviewAccess(this.access, manager, person, reviewId);
      assertCan(access.context, { kind: 'write-review', ...writingState(access) });
      const version = await versionToReview(manager, access.review, read);
      if (access.review.versionId === null) {
        await manager.update(Review, { id: reviewId }, { versionId: version.id });
      }
      const review = { ...access.review, versionId: version.id };
      const result = await work(manager, { ...access, review, version }, emit);
      if (access.review.begunAt === null)
        emit({ action: 'review-begun', ...eventOrigin(access), details: { review: reviewId } });
      const { course, exchange } = access.context;
      const where = { courseId: course.id, exchangeId: exchange.id };
      emit.quietly({ topic: 'reviews', ...where });
      // Another tab or device of the reviewer shows it too.
      emit.quietly({ topic: 'own-review', ...where, personIds: [access.context.person.id] });
      return result;
    });
  }
}
