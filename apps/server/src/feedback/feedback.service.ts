import { Injectable } from '@nestjs/common';
import type { FeedbackView } from '@salt-circle/contracts';
import { maySee } from '@salt-circle/core';
import type { Person } from '../accounts/entities.js';
import { Database } from '../database/database.js';
import { Draft } from '../drafts/entities.js';
import { lastVersion, reading } from '../drafts/versions.js';
import { Access, ownParticipant, see } from '../exchanges/access.js';
import { formOf } from '../exchanges/form-of.js';
import { Labels } from '../exchanges/labels.js';
import { loadContent } from '../reviews/content.js';
import { Review } from '../reviews/entities.js';

@Injectable()
export class FeedbackService {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
  ) {}

  /** All that an author gets about the own draft. Reviews in the order of their random ids. */
  async mine(person: Person, exchangeId: string): Promise<FeedbackView> {
    const place = await this.access.exchange(person, exchangeId);
    see(place, { kind: 'feedback' });
    const manager = this.database.read;
    const form = await formOf(manager, place);
    const draft = await manager.findOneBy(Draft, { participantId: ownParticipant(place).id });
    const version = draft === null ? null : await lastVersion(manager, draft.id);
    if (draft === null || version === null) return { draft: null, form, reviews: [], missing: 0 };
    const all = await manager.find(Review, { where: { draftId: draft.id }, order: { id: 'ASC' } });
    const shown = all.filter(({ submittedAt }) => {
      const reviewing = { viewerHandedIn: true, ofOwnDraft: true, selfReviewed: false };
      const subject = { kind: 'review', byViewer: false, ...reviewing, submitted: submittedAt !== null } as const;
      return maySee(place.viewer, place.facts, subject).allowed;
    });
    const labels = await Labels.ofExchange(manager, place);
    const reviews: Array<FeedbackView['reviews'][number]> = [];
    for (const review of shown) {
      reviews.push({
        id: review.id,
        reviewer: labels.reviewer(review.reviewerId),
        self: review.reviewerId === draft.participantId,
        ...(await loadContent(manager, review.id)),
      });
    }
    return { draft: reading(version), form, reviews, missing: all.length - shown.length };
  }
}
