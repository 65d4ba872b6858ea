import { hasPractised, practiceState, type PracticeState, type PracticeTries } from '@salt-circle/core';
import { In, IsNull, Not, type EntityManager } from 'typeorm';
import { Exchange, Participant } from '../model/exchange.js';
import { PracticeTry } from '../model/practice.js';
import { Review } from '../model/review.js';

/** A practice draft with the review of it that is the key. */
export interface PracticeDraft {
  readonly exchange: Exchange;
  readonly key: Review;
  /** The key has been submitted: students can try. */
  readonly ready: boolean;
}

/**
 * The exchange of a practice draft, as it counts: open from the opening of drafts until reviews are due, with the form of the
 * exchange that it is for. Names are hidden in it whatever that one says: nobody is to know who else practises.
 */
export function practiceExchange(stored: Exchange, main: Exchange): Exchange {
  const { id, deliverables, practiceOf, practiceConsent, names } = stored;
  const { draftsOpen } = main;
  return {
    ...main,
    ...{ id, deliverables, practiceOf, practiceConsent, names },
    ...{ draftsDue: draftsOpen, lateUntil: null, reviewsOpen: draftsOpen, selfReviewDue: null },
    ...{ checkUntil: null, release: null, repliesDue: null, revisionDue: null },
    ...{ handInAs: 'alone', groupSetId: null, whom: 'anyone', selfReview: 'off', ownHandInFirst: false, rolling: true },
    ...{ feedbackEach: false, reviewsFinal: true, showNamesAtRelease: false },
  };
}

/** In the order in which they were added. */
export async function practiceDrafts(manager: EntityManager, exchangeId: string): Promise<PracticeDraft[]> {
  const exchanges = await manager.find(Exchange, {
    where: { practiceOf: exchangeId },
    order: { createdAt: 'ASC', id: 'ASC' },
  });
  const drafts: PracticeDraft[] = [];
  for (const exchange of exchanges) {
    const author = await manager.findOneByOrFail(Participant, { exchangeId: exchange.id, extraReviews: Not(IsNull()) });
    const key = await manager.findOneByOrFail(Review, { exchangeId: exchange.id, reviewerId: author.id });
    drafts.push({ exchange, key, ready: key.submittedAt !== null });
  }
  return drafts;
}

/** What a person has tried of a practice draft, with the review that it was tried in. */
export interface OwnTries extends PracticeTries {
  readonly review: Review | null;
}

const NOTHING: OwnTries = { review: null, shares: [], begun: false };

/** Of one practice draft: what each person has tried. A fixed number of queries. */
export async function triesByPerson(
  manager: EntityManager,
  { exchange, key }: PracticeDraft,
  personId?: string,
): Promise<Map<string, OwnTries>> {
  const people = await manager.findBy(Participant, {
    exchangeId: exchange.id,
    extraReviews: IsNull(),
    ...(personId !== undefined && { personId }),
  });
  if (people.length === 0) return new Map();
  const reviews = await manager.findBy(Review, {
    exchangeId: exchange.id,
    id: Not(key.id),
    ...(personId !== undefined && { reviewerId: In(people.map(({ id }) => id)) }),
  });
  const tries = await manager
    .createQueryBuilder(PracticeTry, 'try')
    .innerJoin(Review, 'review', 'review.id = try.reviewId AND review.exchangeId = :id', { id: exchange.id })
    .select(['try.reviewId', 'try.number', 'try.share', 'try.id'])
    .orderBy('try.number', 'ASC')
    .getMany();
  const byReviewer = new Map(reviews.map((review) => [review.reviewerId, review]));
  return new Map(
    people.map((one) => {
      const review = byReviewer.get(one.id) ?? null;
      const shares = tries.filter(({ reviewId }) => reviewId === review?.id).map(({ share }) => share);
      return [one.personId, { review, shares, begun: review?.begunAt != null && review.submittedAt === null }];
    }),
  );
}

export async function ownTries(manager: EntityManager, draft: PracticeDraft, personId: string): Promise<OwnTries> {
  return (await triesByPerson(manager, draft, personId)).get(personId) ?? NOTHING;
}

/**
 * Where everybody stands with the practice drafts that can be tried; null where there is no practice.
 *
 * @param only the id of a person to ask for alone
 */
export async function practiceStates(
  manager: EntityManager,
  exchange: Exchange,
  only?: string,
): Promise<((personId: string) => PracticeState[]) | null> {
  if (exchange.practice.when === 'off') return null;
  const ready = (await practiceDrafts(manager, exchange.id)).filter((one) => one.ready);
  if (ready.length === 0) return null;
  const tries: Array<Map<string, OwnTries>> = [];
  for (const draft of ready) tries.push(await triesByPerson(manager, draft, only));
  return (personId) => tries.map((of) => practiceState(exchange.practice, of.get(personId) ?? NOTHING));
}

/** Whether somebody’s reviews wait for practice. Who has begun one before practice was asked for goes on with it. */
export async function practiceComesFirst(
  manager: EntityManager,
  exchange: Exchange,
  participant: Participant | null,
): Promise<boolean> {
  if (exchange.practice.when !== 'first' || participant === null) return false;
  if (await manager.existsBy(Review, { reviewerId: participant.id, begunAt: Not(IsNull()) })) return false;
  const { personId } = participant;
  return !hasPractised((await practiceStates(manager, exchange, personId))?.(personId) ?? []);
}

/**
 * How near everybody came to the keys, 0 to 1, by person: the mean over the practice drafts of the last submitted try of each, which is
 * how somebody reads by now. Whoever has submitted none that can be compared is missing.
 */
export async function nearestInPractice(manager: EntityManager, exchange: Exchange): Promise<Map<string, number>> {
  const shares = new Map<string, number[]>();
  for (const draft of await practiceDrafts(manager, exchange.id)) {
    for (const [personId, tries] of await triesByPerson(manager, draft)) {
      const last = tries.shares.filter((share) => share !== null).at(-1);
      if (last !== undefined) shares.set(personId, [...(shares.get(personId) ?? []), last]);
    }
  }
  return new Map([...shares].map(([id, each]) => [id, each.reduce((sum, one) => sum + one, 0) / each.length]));
}
