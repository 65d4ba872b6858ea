import { Injectable } from '@nestjs/common';
import type { CourseInsightsView } from '@salt-circle/contracts';
import { peerScore, readItems } from '@salt-circle/core';
import { Access, assertCanSee } from '../../permissions/access.js';
import { courseExchanges } from '../../queries/course-exchanges.js';
import type { CurrentUser } from '../../auth/view-as.js';
import { Enrolment } from '../../model/course.js';
import { Participant } from '../../model/exchange.js';
import { Database } from '../../platform/database/database.js';
import { groupedBy } from '../../platform/grouping/grouped-by.js';
import { peersOf, reviewsInGrades } from './reviews-in-grades.js';

/** Exchanges of a course beside each other: how people, and items of the same name, come along. */
@Injectable()
export class CourseInsights {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
  ) {}

  async of(person: CurrentUser, courseId: string): Promise<CourseInsightsView> {
    assertCanSee(await this.access.course(person, courseId), { kind: 'people' });
    const manager = this.database.read;
    const all = await courseExchanges(manager, courseId);
    const due = ({ draftsDue, createdAt }: (typeof all)[number]) => draftsDue ?? createdAt;
    const published = all.filter(({ publishedAt }) => publishedAt !== null).sort((a, b) => due(a) - due(b));
    const exchanges: Array<CourseInsightsView['exchanges'][number]> = [];
    const scores: Array<ReadonlyMap<string, number>> = [];
    const given: Array<ReadonlyMap<string, { readonly submitted: number; readonly of: number }>> = [];
    for (const exchange of published) {
      const { form, reviews, drafts, authors } = await reviewsInGrades(manager, { exchange });
      const people = new Map(
        (await manager.findBy(Participant, { exchangeId: exchange.id })).map((one) => [one.id, one.personId]),
      );
      const peers = peersOf(reviews);
      const items = readItems(
        form,
        peers.map(({ review, answers }) => ({ draftId: review.draftId, answers })),
      );
      exchanges.push({
        ...{ id: exchange.id, title: exchange.title, reviews: peers.length },
        items: items.flatMap(({ title, mean, answers }) => (mean === null ? [] : [{ title, mean, answers }])),
      });
      const byDraft = groupedBy(peers, ({ review }) => review.draftId);
      const got = drafts.flatMap((draft) => {
        const score = peerScore(
          (byDraft.get(draft.id) ?? []).flatMap((one) => one.score ?? []),
          'mean',
        );
        return score === null ? [] : authors.of(draft).map((id) => [people.get(id) ?? '', score] as const);
      });
      scores.push(new Map(got));
      const asked = groupedBy(
        reviews.filter(({ review, self }) => review.voice === null && !self),
        ({ review }) => review.reviewerId,
      );
      given.push(
        new Map(
          [...asked].map(([id, own]) => {
            const submitted = own.filter(({ review }) => review.submittedAt !== null).length;
            return [people.get(id) ?? '', { submitted, of: own.length }] as const;
          }),
        ),
      );
    }
    const students = (await manager.findBy(Enrolment, { courseId, active: true })).filter(
      ({ role }) => role === 'student',
    );
    return {
      exchanges,
      people: students
        .sort((a, b) => a.name.localeCompare(b.name))
        .map(({ personId, name }) => ({
          ...{ id: personId, name },
          scores: scores.map((of) => of.get(personId) ?? null),
          given: given.map((of) => of.get(personId) ?? null),
        })),
    };
  }
}
