import { Injectable } from '@nestjs/common';
import type { FeedbackView } from '@salt-circle/contracts';
import { maySee } from '@salt-circle/core';
import type { Person } from '../accounts/entities.js';
import { Database } from '../database/database.js';
import { Authors } from '../drafts/authors.js';
import { Readings } from '../drafts/readings.js';
import { lastVersion } from '../drafts/versions.js';
import { Access, see } from '../exchanges/access.js';
import { formOf } from '../exchanges/form-of.js';
import { Labels } from '../exchanges/labels.js';
import { loadContent } from '../reviews/content.js';
import { Review } from '../reviews/entities.js';

@Injectable()
export class FeedbackService {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly readings: Readings,
  ) {}

  /** All that an author gets about the own draft. Reviews in the order of their random ids. */
  async mine(person: Person, exchangeId: string): Promise<FeedbackView> {
    const place = await this.access.exchange(person, exchangeId);
    see(place, { kind: 'feedback' });
    const manager = this.database.read;
    const form = await formOf(manager, place);
    const draft = await this.access.ownDraft(place);
    const version = draft === null ? null : await lastVersion(manager, draft.id);
    if (draft === null || version === null) return { draft: null, form, reviews: [], missing: 0 };
    const all = await manager.find(Review, { where: { draftId: draft.id }, order: { id: 'ASC' } });
    const shown = all.filter(({ submittedAt }) => {
      const reviewing = { viewerHandedIn: true, ofOwnDraft: true, selfReviewed: false };
      const subject = { kind: 'review', byViewer: false, ...reviewing, submitted: submittedAt !== null } as const;
      return maySee(place.viewer, place.facts, subject).allowed;
    });
    const authors = await Authors.load(manager, place.exchange);
    const labels = await Labels.ofExchange(manager, place);
    const reviews: Array<FeedbackView['reviews'][number]> = [];
    for (const review of shown) {
      reviews.push({
        id: review.id,
        reviewer: labels.reviewer(review.reviewerId),
        self: authors.of(draft).includes(review.reviewerId),
        ...(await loadContent(manager, review.id)),
      });
    }
    return {
      draft: await this.readings.of(manager, place, draft, version, 'author'),
      form,
      reviews,
      missing: all.length - shown.length,
    };
  }
}
