import { Injectable } from '@nestjs/common';
import type { InsightsView } from '@salt-circle/contracts';
import { explainAdjusted, localTime, peerScore, readItems } from '@salt-circle/core';
import { Access, see } from '../../access/access.js';
import { Labels } from '../../access/labels.js';
import type { Asker } from '../../access/seeing.js';
import { Database } from '../../platform/database/database.js';
import { groupedBy } from '../../platform/grouping/grouped-by.js';
import { Adjusting } from './adjusting.js';
import { peersOf, ratingsOf, reviewsInGrades } from './reviews-in-grades.js';
import { adjustSentence } from './rule-asked.js';

/** What the reviews of an exchange say together. */
@Injectable()
export class Insights {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly adjusting: Adjusting,
  ) {}

  async of(person: Asker, exchangeId: string): Promise<InsightsView> {
    const place = await this.access.exchange(person, exchangeId);
    see(place, { kind: 'workspace' });
    const manager = this.database.read;
    const { form, reviews, drafts } = await reviewsInGrades(manager, place);
    const labels = await Labels.ofExchange(manager, place);
    const peers = peersOf(reviews);
    const ratings = ratingsOf(reviews);
    const adjusted = await this.adjusting.of(exchangeId, ratings);
    const explained = explainAdjusted(adjusted, ratings);
    const byStaff = groupedBy(
      reviews.filter(({ review, score }) => review.voice !== null && score !== null),
      ({ review }) => review.draftId,
    );
    const draftOf = new Map(drafts.map((draft) => [draft.id, draft]));
    const days = new Map<string, number>();
    for (const { review } of peers) {
      const { year, month, day } = localTime(review.submittedAt as number, place.course.timeZone);
      const key = [year, month, day].map((part) => String(part).padStart(2, '0')).join('-');
      days.set(key, (days.get(key) ?? 0) + 1);
    }
    return {
      items: readItems(
        form,
        peers.map(({ review, answers }) => ({ draftId: review.draftId, answers })),
      ),
      drafts: adjusted.drafts.flatMap((one) => {
        const draft = draftOf.get(one.id);
        if (draft === undefined) return [];
        const staff = (byStaff.get(one.id) ?? []).flatMap(({ score }) => score ?? []);
        const { id, mean, adjusted: fair, low, high, ratings: given } = one;
        const author = labels.authorOf(draft);
        const { less = 0, more = 0, forHalf = null } = explained.get(id) ?? {};
        const company = { less, more, forHalf, staff: peerScore(staff, 'mean') };
        return [{ id, author, mean, adjusted: fair, low, high, reviews: given, ...company }];
      }),
      reviewers: adjusted.reviewers.map(({ id, severity, low, high, ratings: given }) => ({
        ...{ id, person: labels.reviewer(id), severity, low, high, reviews: given },
      })),
      days: [...days].sort(([a], [b]) => (a < b ? -1 : 1)).map(([day, count]) => ({ day, reviews: count })),
      problem: adjusted.problem === null ? null : adjustSentence(adjusted.problem),
    };
  }
}
