import { endOf, reviewerStrengths, type Pair, type ReviewingRecord } from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import { courseExchanges } from '../../queries/course-exchanges.js';
import { Authors } from '../../queries/authors.js';
import { Draft } from '../../model/draft.js';
import { Exchange, Participant } from '../../model/exchange.js';
import { Review } from '../../model/review.js';
import type { HandedIn } from './handed-in.js';

interface EarlierRow {
  readonly exchangeId: string;
  readonly reviewer: string;
  readonly participantId: string;
  readonly groupId: string | null;
  readonly submitted: number;
  readonly words: number;
}

/** Reviews of the other exchanges of a course, by people instead of participants. */
export class Earlier {
  private constructor(
    readonly exchanges: ReadonlyArray<Pick<Exchange, 'id' | 'title'>>,
    /** By exchange: who reviewed whom, and how often. */
    private readonly met: ReadonlyMap<string, ReadonlyMap<string, ReadonlyMap<string, number>>>,
    /** By person, 0 to 1. */
    readonly strengths: ReadonlyMap<string, number>,
  ) {}

  /** For what does not ask whom somebody has met before: that is read from every earlier exchange of the course. */
  static none(): Earlier {
    return new Earlier([], new Map(), new Map());
  }

  static async load(manager: EntityManager, exchange: Exchange, now: number): Promise<Earlier> {
    const others = (await courseExchanges(manager, exchange.courseId))
      // What comes after this one is no meeting of before.
      .filter(({ id, publishedAt, draftsDue }) => {
        const before = exchange.draftsDue === null || draftsDue === null || draftsDue <= exchange.draftsDue;
        return id !== exchange.id && publishedAt !== null && before;
      })
      .sort((a, b) => (a.draftsDue ?? 0) - (b.draftsDue ?? 0) || a.id.localeCompare(b.id));
    const met = new Map<string, Map<string, Map<string, number>>>();
    const records = new Map<string, ReviewingRecord>();
    for (const other of others) {
      const rows = await earlierRows(manager, other.id);
      if (rows.length === 0) continue;
      const personOf = new Map(
        (await manager.findBy(Participant, { exchangeId: other.id })).map((one) => [one.id, one]),
      );
      const authors = await Authors.load(manager, other);
      const pairs = new Map<string, Map<string, number>>();
      // Only when reviewing is over does an unwritten review say anything.
      const over = other.reviewsDue !== null && endOf(other.reviewsDue) <= now;
      for (const row of rows) {
        const persons = authors.of(row).map((id) => personOf.get(id)?.personId ?? '');
        if (persons.includes(row.reviewer)) continue;
        const list = pairs.get(row.reviewer) ?? new Map<string, number>();
        pairs.set(row.reviewer, list);
        for (const author of persons) list.set(author, (list.get(author) ?? 0) + 1);
        if (over) records.set(row.reviewer, plus(records.get(row.reviewer), row));
      }
      met.set(other.id, pairs);
    }
    return new Earlier(
      others.filter(({ id }) => met.has(id)).map(({ id, title }) => ({ id, title })),
      met,
      reviewerStrengths([...records.values()]),
    );
  }

  /** @param avoid ids of exchanges; null for all of them */
  pairs(
    reviewers: ReadonlyArray<Pick<Participant, 'id' | 'personId'>>,
    drafts: readonly HandedIn[],
    personOf: ReadonlyMap<string, string>,
    avoid: readonly string[] | null,
  ): Array<Pair & { times: number }> {
    const draftsBy = new Map<string, string[]>();
    for (const { draftId, authorIds } of drafts) {
      for (const id of authorIds) {
        const person = personOf.get(id) ?? '';
        draftsBy.set(person, [...(draftsBy.get(person) ?? []), draftId]);
      }
    }
    return reviewers.flatMap(({ id: reviewerId, personId }) => {
      const times = new Map<string, number>();
      for (const [exchangeId, pairs] of this.met) {
        if (avoid !== null && !avoid.includes(exchangeId)) continue;
        const within = new Map<string, number>();
        for (const [author, count] of pairs.get(personId) ?? []) {
          // Of a group's draft, whoever was met most often counts: one review met all of them at once.
          for (const draftId of draftsBy.get(author) ?? []) {
            within.set(draftId, Math.max(within.get(draftId) ?? 0, count));
          }
        }
        for (const [draftId, count] of within) times.set(draftId, (times.get(draftId) ?? 0) + count);
      }
      return [...times].map(([draftId, count]) => ({ reviewerId, draftId, times: count }));
    });
  }
}

function plus(record: ReviewingRecord | undefined, { reviewer, submitted, words }: EarlierRow): ReviewingRecord {
  return {
    id: reviewer,
    allocated: (record?.allocated ?? 0) + 1,
    submitted: (record?.submitted ?? 0) + submitted,
    words: (record?.words ?? 0) + (submitted === 1 ? words : 0),
  };
}

function earlierRows(manager: EntityManager, exchangeId: string): Promise<EarlierRow[]> {
  return manager
    .createQueryBuilder(Review, 'review')
    .innerJoin(Participant, 'participant', 'participant.id = review.reviewerId')
    .innerJoin(Draft, 'draft', 'draft.id = review.draftId')
    .select([
      'review.exchangeId AS exchangeId',
      'participant.personId AS reviewer',
      'draft.participantId AS participantId',
      'draft.groupId AS groupId',
      'review.submittedAt IS NOT NULL AS submitted',
      'review.words AS words',
    ])
    .where('review.exchangeId = :exchangeId AND review.voice IS NULL', { exchangeId })
    .getRawMany<EarlierRow>();
}
