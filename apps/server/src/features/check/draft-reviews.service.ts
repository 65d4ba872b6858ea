import { Injectable } from '@nestjs/common';
import type { DraftReviewsView } from '@salt-circle/contracts';
import { Access, act, acts, see, type Place } from '../../access/access.js';
import type { EntityManager } from 'typeorm';
import { Authors } from '../../access/authors.js';
import { formOf } from '../../access/form-of.js';
import { staffParticipant } from '../../access/participants.js';
import { Labels } from '../../access/labels.js';
import type { Asker } from '../../access/seeing.js';
import { relation, standingTo } from '../../access/standing.js';
import { countingVersion } from '../../access/versions.js';
import { Draft } from '../../model/draft.js';
import { Review } from '../../model/review.js';
import { Database } from '../../platform/database/database.js';
import { Ids } from '../../platform/ids/ids.js';
import { ProblemError } from '../../platform/problems/problem-error.js';
import { refusal } from '../../platform/problems/sentences.js';
import { ReviewContents } from '../reviews/contents.service.js';

/** All reviews of one draft beside each other, with one’s own under the own name. */
@Injectable()
export class DraftReviews {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly contents: ReviewContents,
    private readonly ids: Ids,
  ) {}

  /** What is withheld is among them: staff see what they keep from the author. */
  async of(person: Asker, exchangeId: string, draftId: string): Promise<DraftReviewsView> {
    const place = await this.access.exchange(person, exchangeId);
    see(place, { kind: 'workspace' });
    const manager = this.database.read;
    const draft = await manager.findOneBy(Draft, { id: draftId, exchangeId });
    const version = draft === null ? null : await countingVersion(manager, draft.id);
    if (draft === null || version === null) throw refusal('unknown');
    const labels = await Labels.ofExchange(manager, place);
    const own = (await Authors.load(manager, place.exchange)).of(draft);
    const all = await manager.find(Review, { where: { draftId }, order: { id: 'ASC' } });
    const standing = { ...relation(await standingTo(manager, place, draft)), byViewer: false };
    const reviews: Array<DraftReviewsView['reviews'][number]> = [];
    for (const review of all.filter(({ submittedAt }) => submittedAt !== null)) {
      const { answers, notes } = await this.contents.load(manager, place, review, standing);
      reviews.push({
        id: review.id,
        reviewer: labels.reviewerOf(review),
        self: own.includes(review.reviewerId),
        withheld: review.withheldAt !== null,
        answers,
        notes: notes.length,
      });
    }
    return {
      draftId,
      draftTitle: version.title,
      author: labels.authorOf(draft),
      form: await formOf(manager, place),
      reviews,
      waiting: all.filter(({ submittedAt, voice }) => submittedAt === null && voice === null).length,
      ...(await this.#own(manager, place, draft)),
    };
  }

  /** An own review, beside the others, under the own name. Begun twice, it is one. */
  async begin(person: Asker, exchangeId: string, draftId: string): Promise<{ id: string }> {
    return this.database.write(async (manager, happened) => {
      const place = await this.access.exchange(person, exchangeId, manager);
      act(place, { kind: 'review-as-staff' });
      const { role } = place.viewer;
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
        voice: role,
        toldAt: place.now,
      });
      const where = { courseId: place.course.id, exchangeId };
      happened({ action: 'review-by-staff', actorId: person.id, ...where, details: { review: id } });
      return { id };
    });
  }

  async #own(
    manager: EntityManager,
    place: Place,
    { id: draftId }: Draft,
  ): Promise<Pick<DraftReviewsView, 'ownId' | 'mayReview'>> {
    const mayReview = acts(place, { kind: 'review-as-staff' });
    if (place.participant === null) return { ownId: null, mayReview };
    const known = await manager.findOneBy(Review, { reviewerId: place.participant.id, draftId });
    return { ownId: known?.id ?? null, mayReview };
  }
}

function reviewsAlready(): ProblemError {
  return new ProblemError({
    code: 'invalid',
    sentence:
      'You were given this draft to review under an alias, and both reviews beside each other would tell whose that is.',
    whatToDo:
      'Write in the review that you have, or have it taken away on the allocation board and ask somebody else of the staff.',
  });
}
