import { Injectable } from '@nestjs/common';
import { Access, assertCan } from '../../permissions/access.js';
import { staffParticipant } from '../../queries/participants.js';
import type { CurrentUser } from '../../auth/view-as.js';
import { countingVersion } from '../../queries/versions.js';
import { Draft } from '../../model/draft.js';
import { Review } from '../../model/review.js';
import { Database } from '../../platform/database/database.js';
import { Ids } from '../../platform/ids/ids.js';
import { ProblemError } from '../../platform/problems/problem-error.js';
import { refusal } from '../../platform/problems/sentences.js';
import { say } from '../../words/moderation.js';

/** Reviews by staff under their own names, beside those of the students. */
@Injectable()
export class OwnReviews {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly ids: Ids,
  ) {}

  /** Begun twice, it is one. */
  async begin(person: CurrentUser, exchangeId: string, draftId: string): Promise<{ id: string }> {
    return this.database.write(async (manager, emit) => {
      const context = await this.access.exchange(person, exchangeId, manager);
      assertCan(context, { kind: 'review-as-staff' });
      const { role } = context.viewer;
      const draft = await manager.findOneBy(Draft, { id: draftId, exchangeId });
      if (draft === null || role === null || role === 'student') throw refusal('unknown');
      if ((await countingVersion(manager, draft.id)) === null) throw refusal('unknown');
      const reviewerId = await staffParticipant(manager, this.ids, exchangeId, person.id);
      const known = await manager.findOne(Review, { where: { reviewerId, draftId }, withDeleted: true });
      if (known?.voice != null) return { id: known.id };
      if (known !== null) throw reviewsAlready();
      const id = this.ids.uuid();
      await manager.insert(Review, {
        id,
        exchangeId,
        reviewerId,
        draftId,
        position: 0,
        ...{ voice: role, ownForm: context.exchange.draftForm },
        toldAt: context.now,
      });
      const where = { courseId: context.course.id, exchangeId };
      emit({ action: 'review-by-staff', actorId: person.id, ...where, details: { review: id } });
      return { id };
    });
  }
}

function reviewsAlready(): ProblemError {
  return new ProblemError({
    code: 'invalid',
    sentence: say('youWereGivenThisDraft'),
    whatToDo: say('writeInReviewThatYou'),
  });
}
