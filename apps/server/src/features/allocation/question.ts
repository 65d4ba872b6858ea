import type { LeftOut, WishesView } from '@salt-circle/contracts';
import { groupOf, pairKey, type AllocationProblem, type Pair } from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import { Participant, type Exchange } from '../../model/exchange.js';
import { allOwnTimes } from '../../access/own-times.js';
import { activeParticipants } from '../../access/participants.js';
import { studentsOf } from '../../access/students.js';
import { Review } from '../../model/review.js';
import { Earlier } from './earlier.js';
import { AllocationPlan, ForbiddenPair } from '../../model/allocation.js';
import { handedInDrafts, type HandedIn } from './handed-in.js';
import { fingerprintOf, problemOf, type Parts } from './problem-of.js';

/** All that who reviews whom follows from, and what is allocated now. */
export interface Question {
  readonly exchange: Exchange;
  readonly wishes: WishesView;
  readonly problem: Omit<AllocationProblem, 'seed'>;
  /** Reviews as they are, apart from those of one's own draft. */
  readonly current: readonly Review[];
  /** Reviews of one's own draft: they are no matter of choice, and not part of the problem. */
  readonly selfPairs: readonly Pair[];
  readonly own: readonly Review[];
  readonly students: readonly Participant[];
  readonly extras: readonly Participant[];
  readonly leftOut: ReadonlyMap<string, LeftOut>;
  /** Everybody's, also of people who take no part any more. */
  readonly drafts: readonly HandedIn[];
  readonly open: ReadonlySet<string>;
  readonly groups: ReadonlyMap<string, string>;
  readonly earlier: Earlier;
  /** By participant. */
  readonly strengths: ReadonlyMap<string, number>;
  /** Of people, hand-ins and settings; not of what has begun. */
  readonly fingerprint: string;
}

export function defaultPlan(exchangeId: string, now: number): AllocationPlan {
  return {
    exchangeId,
    revision: 0,
    avoid: null,
    mix: false,
    maxPerDraft: null,
    schedule: 'command',
    runAt: null,
    party: 3,
    patience: 3,
    ranUntil: now,
    lastRunAt: null,
    lastOutcome: null,
  };
}

export async function planOf(manager: EntityManager, exchangeId: string, now: number): Promise<AllocationPlan> {
  return (await manager.findOneBy(AllocationPlan, { exchangeId })) ?? defaultPlan(exchangeId, now);
}

export function wishesOf(exchange: Exchange, { avoid, mix, maxPerDraft }: AllocationPlan): WishesView {
  const { whom, reviewsPerStudent: reviewsEach } = exchange;
  return { whom, reviewsEach, avoid: avoid ?? 'all', mix, maxPerDraft };
}

/** In the order of random ids: nothing of the persons steers who reviews whom. */
export async function loadQuestion(
  manager: EntityManager,
  exchange: Exchange,
  wishes: WishesView,
  now: number,
): Promise<Question> {
  const all = await manager.findBy(Participant, { exchangeId: exchange.id });
  const students = await activeParticipants(manager, exchange.id);
  const extras = all.filter(({ extraReviews }) => extraReviews !== null);
  const drafts = await handedInDrafts(manager, exchange);
  const leftOut = await whoIsLeftOut(manager, exchange, all, students, drafts);
  const takesPart = (id: string) => !leftOut.has(id) || leftOut.get(id) === 'not-handed-in';
  const open = drafts.filter(({ authorIds }) => authorIds.some(takesPart));
  const openIds = new Set(open.map(({ draftId }) => draftId));
  const authorsOf = new Map(drafts.map(({ draftId, authorIds }) => [draftId, authorIds]));
  const reviews = await manager.find(Review, {
    where: { exchangeId: exchange.id },
    order: { reviewerId: 'ASC', position: 'ASC' },
  });
  const isOwn = ({ reviewerId, draftId }: Pair) => authorsOf.get(draftId)?.includes(reviewerId) === true;
  const current = reviews.filter((review) => !isOwn(review));
  const groups = await groupsOf(manager, exchange, students);
  const earlier = await Earlier.load(manager, exchange, now);
  const personOf = new Map(all.map(({ id, personId }) => [id, personId]));
  const fixed = fixedPairs(current, openIds, takesPart);
  const taking = [...students, ...extras].filter(({ id }) => !leftOut.has(id));
  const takingIds = new Set(taking.map(({ id }) => id));
  // Given a draft by hand without taking part, or gone after submitting: they keep what they have, and get nothing more.
  const reviewing = new Set(fixed.map(({ reviewerId }) => reviewerId));
  const further = all.filter(({ id }) => reviewing.has(id) && !takingIds.has(id));
  const listed = new Set([...takingIds, ...further.map(({ id }) => id)]);
  const apart = await forbiddenPairs(manager, exchange.id, open, listed);
  const avoid = wishes.avoid === 'all' ? null : wishes.avoid;
  const strengths = strengthsOf(all, earlier);
  const parts: Parts = {
    wishes,
    taking,
    further,
    drafts: open,
    groups,
    strengths,
    fixed,
    apart,
    earlier: earlier.pairs([...taking, ...further], open, personOf, avoid),
  };
  return {
    exchange,
    wishes,
    problem: problemOf(parts),
    current,
    own: reviews.filter(isOwn),
    selfPairs: exchange.selfReview === 'off' ? [] : selfPairs(open, listed),
    students,
    extras,
    leftOut,
    drafts,
    open: openIds,
    groups,
    earlier,
    strengths,
    fingerprint: fingerprintOf(parts),
  };
}

function strengthsOf(all: readonly Participant[], earlier: Earlier): Map<string, number> {
  return new Map(
    all.flatMap(({ id, personId }) => {
      const strength = earlier.strengths.get(personId);
      return strength === undefined ? [] : [[id, strength] as const];
    }),
  );
}

/** Everybody's review of the own draft. */
function selfPairs(drafts: readonly HandedIn[], reviewers: ReadonlySet<string>): Pair[] {
  return drafts.flatMap(({ authorIds, draftId }) =>
    authorIds.filter((id) => reviewers.has(id)).map((reviewerId) => ({ reviewerId, draftId })),
  );
}

async function whoIsLeftOut(
  manager: EntityManager,
  exchange: Exchange,
  all: readonly Participant[],
  students: readonly Participant[],
  drafts: readonly HandedIn[],
): Promise<Map<string, LeftOut>> {
  const own = await allOwnTimes(manager, exchange);
  const active = new Set(students.map(({ id }) => id));
  const handedIn = new Set(drafts.flatMap(({ authorIds }) => authorIds));
  const reasons = all.map(({ id, personId, extraReviews }): [string, LeftOut | null] => {
    if (extraReviews !== null) return [id, null];
    if (!active.has(id)) return [id, 'left'];
    if (own.get(personId)?.excused === true) return [id, 'excused'];
    return [id, exchange.ownHandInFirst && !handedIn.has(id) ? 'not-handed-in' : null];
  });
  return new Map(reasons.filter((one): one is [string, LeftOut] => one[1] !== null));
}

/** Begun or held: what nobody but a person takes away. What somebody who has left did not submit will not be finished. */
function fixedPairs(current: readonly Review[], open: ReadonlySet<string>, takesPart: (id: string) => boolean): Pair[] {
  return current
    .filter(({ draftId }) => open.has(draftId))
    .filter(({ submittedAt, begunAt, locked, reviewerId }) =>
      takesPart(reviewerId) ? begunAt !== null || locked : submittedAt !== null,
    )
    .map(({ reviewerId, draftId }) => ({ reviewerId, draftId }));
}

async function groupsOf(
  manager: EntityManager,
  exchange: Exchange,
  students: readonly Participant[],
): Promise<Map<string, string>> {
  if (exchange.groupSetId === null) return new Map();
  const enrolled = new Map((await studentsOf(manager, exchange.courseId)).map((one) => [one.personId, one]));
  return new Map(
    students.flatMap(({ id, personId }) => {
      const student = enrolled.get(personId);
      const group = student === undefined ? null : groupOf(student, exchange.groupSetId);
      return group === null ? [] : [[id, group] as const];
    }),
  );
}

async function forbiddenPairs(
  manager: EntityManager,
  exchangeId: string,
  drafts: readonly HandedIn[],
  reviewers: ReadonlySet<string>,
): Promise<Pair[]> {
  const draftsBy = new Map<string, string[]>();
  for (const { draftId, authorIds } of drafts) {
    for (const id of authorIds) draftsBy.set(id, [...(draftsBy.get(id) ?? []), draftId]);
  }
  const rows = await manager.find(ForbiddenPair, { where: { exchangeId }, order: { id: 'ASC' } });
  const pairs = rows
    .filter(({ reviewerId }) => reviewers.has(reviewerId))
    .flatMap(({ reviewerId, authorId }) => (draftsBy.get(authorId) ?? []).map((draftId) => ({ reviewerId, draftId })));
  return [...new Map(pairs.map((pair) => [pairKey(pair), pair])).values()];
}
