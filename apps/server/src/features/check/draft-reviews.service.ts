import { Injectable } from '@nestjs/common';
import type { DraftReviewsView } from '@salt-circle/contracts';
import { Access, see } from '../../access/access.js';
import { Authors } from '../../access/authors.js';
import { formOf } from '../../access/form-of.js';
import { Labels } from '../../access/labels.js';
import type { Asker } from '../../access/seeing.js';
import { relation, standingTo } from '../../access/standing.js';
import { countingVersion } from '../../access/versions.js';
import { Draft } from '../../model/draft.js';
import { Review } from '../../model/review.js';
import { Database } from '../../platform/database/database.js';
import { refusal } from '../../platform/problems/sentences.js';
import { ReviewContents } from '../reviews/contents.service.js';

/** All reviews of one draft beside each other. */
@Injectable()
export class DraftReviews {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly contents: ReviewContents,
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
        reviewer: labels.reviewer(review.reviewerId),
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
      waiting: all.length - reviews.length,
    };
  }
}
