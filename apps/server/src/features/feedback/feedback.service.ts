import { Injectable } from '@nestjs/common';
import type { FeedbackView } from '@salt-circle/contracts';
import { Access, act, ownParticipant, see, sees } from '../../access/access.js';
import { Authors } from '../../access/authors.js';
import { formOf } from '../../access/form-of.js';
import { Labels } from '../../access/labels.js';
import type { Asker } from '../../access/seeing.js';
import { relation, standingTo } from '../../access/standing.js';
import { countingVersion, reviewedVersion } from '../../access/versions.js';
import type { DraftVersion } from '../../model/draft.js';
import { Participant } from '../../model/exchange.js';
import { Review } from '../../model/review.js';
import { Database } from '../../platform/database/database.js';
import { Readings } from '../reading/readings.service.js';
import { ReviewContents } from '../reviews/contents.service.js';

@Injectable()
export class FeedbackService {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly readings: Readings,
    private readonly contents: ReviewContents,
  ) {}

  /** Its author has looked at it: it is no news any more. */
  async read(person: Asker, exchangeId: string): Promise<void> {
    await this.database.write(async (manager, happened) => {
      const place = await this.access.exchange(person, exchangeId, manager);
      act(place, { kind: 'read-feedback' });
      const { id, feedbackReadAt } = ownParticipant(place);
      // Review by review, there is something new to read again and again.
      if (feedbackReadAt !== null && !place.exchange.feedbackEach) return;
      await manager.update(Participant, { id }, { feedbackReadAt: place.now });
      happened.quietly({ topic: 'own-draft', courseId: place.course.id, exchangeId, personIds: [person.id] });
    });
  }

  /** All that an author gets about the own draft. Reviews in the order of their random ids. */
  async mine(person: Asker, exchangeId: string): Promise<FeedbackView> {
    const place = await this.access.exchange(person, exchangeId);
    see(place, { kind: 'feedback' });
    const manager = this.database.read;
    const form = await formOf(manager, place);
    const draft = await this.access.ownDraft(place);
    const counting = draft === null ? null : await countingVersion(manager, draft.id);
    if (draft === null || counting === null) return { drafts: [], form, reviews: [], missing: 0 };
    const standing = await standingTo(manager, place, draft);
    const all = await manager.find(Review, { where: { draftId: draft.id }, order: { id: 'ASC' } });
    const authors = await Authors.load(manager, place.exchange);
    const labels = await Labels.ofExchange(manager, place);
    const versions = new Map<string, DraftVersion>();
    const reviews: Array<FeedbackView['reviews'][number]> = [];
    for (const review of all) {
      const { submittedAt, withheldAt, reviewerId } = review;
      // As the author, also of a review of one's own: it comes with the others, once it is submitted.
      const reading = { ...relation(standing), byViewer: false };
      const written = { submitted: submittedAt !== null, withheld: withheldAt !== null };
      if (!sees(place, { kind: 'review', ...reading, ...written })) continue;
      const version = (await reviewedVersion(manager, review)) ?? counting;
      versions.set(version.id, version);
      reviews.push({
        id: review.id,
        reviewer: labels.reviewerOf(review),
        self: authors.of(draft).includes(reviewerId),
        version: version.number,
        ...(await this.contents.load(manager, place, review, reading)),
      });
    }
    const read = versions.size === 0 ? [counting] : [...versions.values()].sort((a, b) => b.number - a.number);
    const drafts: Array<FeedbackView['drafts'][number]> = [];
    for (const version of read) drafts.push(await this.readings.of(manager, place, draft, version, 'author'));
    // One that is withheld is not told of either.
    // Of others: whether the own one is submitted, its author knows.
    const own = authors.of(draft);
    const missing = all.filter(
      ({ submittedAt, reviewerId, voice }) => submittedAt === null && voice === null && !own.includes(reviewerId),
    ).length;
    // Until all are released, what is not submitted yet is nobody's to know.
    return { drafts, form, reviews, missing: place.facts.may.released ? missing : 0 };
  }
}
