import type { LeftOut, WishesView } from '@salt-circle/contracts';
import { pairKey, type AllocationProblem, type Pair } from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import { AllocationPlan, type ForbiddenPair } from '../../model/allocation.js';
import type { Exchange, Participant } from '../../model/exchange.js';
import type { Review } from '../../model/review.js';
import { loadCircumstances, loadPairs, type Circumstances, type Pairs } from './circumstances.js';
import type { Earlier } from './earlier.js';
import type { HandedIn } from './handed-in.js';
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
  /** As in {@link Pairs}. */
  readonly voiced: readonly Pair[];
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

/** What holds before anybody has planned an allocation. */
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

/** The stored plan, or the default; `now` in milliseconds. */
export async function planOf(manager: EntityManager, exchangeId: string, now: number): Promise<AllocationPlan> {
  return (await manager.findOneBy(AllocationPlan, { exchangeId })) ?? defaultPlan(exchangeId, now);
}

/** What is wished of an allocation, by exchange and plan. */
export function wishesOf(exchange: Exchange, { avoid, mix, maxPerDraft }: AllocationPlan): WishesView {
  const { whom, reviewsPerStudent: reviewsEach } = exchange;
  return { whom, reviewsEach, avoid: avoid ?? 'all', mix, maxPerDraft };
}

/** Loads all of it and puts it together; for what asks once. */
export async function loadQuestion(
  manager: EntityManager,
  exchange: Exchange,
  wishes: WishesView,
  now: number,
): Promise<Question> {
  const circumstances = await loadCircumstances(manager, exchange, now);
  return questionOf(exchange, wishes, circumstances, await loadPairs(manager, exchange.id));
}

/** Puts the question together from what was loaded; asks the database for nothing. */
export function questionOf(
  exchange: Exchange,
  wishes: WishesView,
  circumstances: Circumstances,
  { reviews, keptApart, voiced }: Pairs,
): Question {
  const { participants, students, extras, leftOut, drafts, groups, earlier } = circumstances;
  const takesPart = (id: string) => !leftOut.has(id) || leftOut.get(id) === 'not-handed-in';
  const taking = [...students, ...extras].filter(({ id }) => !leftOut.has(id));
  const open = drafts.filter(({ authorIds }) => authorIds.some(takesPart));
  const openIds = new Set(open.map(({ draftId }) => draftId));

  const authorsOf = new Map(drafts.map(({ draftId, authorIds }) => [draftId, authorIds]));
  const isOwn = ({ reviewerId, draftId }: Pair) => authorsOf.get(draftId)?.includes(reviewerId) === true;
  const current = reviews.filter((review) => !isOwn(review));
  const fixed = fixedPairs(current, openIds, takesPart);
  const further = reviewingWithoutTaking(participants, taking, fixed);
  const listed = new Set([...taking, ...further].map(({ id }) => id));

  const strengths = strengthsOf(participants, earlier);
  const personOf = new Map(participants.map(({ id, personId }) => [id, personId]));
  const avoid = wishes.avoid === 'all' ? null : wishes.avoid;
  const parts: Parts = {
    wishes,
    taking,
    further,
    drafts: open,
    groups,
    strengths,
    fixed,
    apart: [
      ...pairsApart(keptApart, open, listed),
      ...voiced.filter(({ reviewerId, draftId }) => listed.has(reviewerId) && openIds.has(draftId)),
    ],
    earlier: earlier.pairs([...taking, ...further], open, personOf, avoid),
  };
  return {
    exchange,
    wishes,
    problem: problemOf(parts),
    current,
    own: reviews.filter(isOwn),
    voiced,
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

/** Given a draft by hand without taking part, or gone after submitting: they keep what they have, and get nothing more. */
function reviewingWithoutTaking(
  participants: readonly Participant[],
  taking: readonly Participant[],
  fixed: readonly Pair[],
): Participant[] {
  const reviewing = new Set(fixed.map(({ reviewerId }) => reviewerId));
  const takingIds = new Set(taking.map(({ id }) => id));
  return participants.filter(({ id }) => reviewing.has(id) && !takingIds.has(id));
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

/** Begun or held: what nobody but a person takes away. What somebody who has left did not submit will not be finished. */
function fixedPairs(current: readonly Review[], open: ReadonlySet<string>, takesPart: (id: string) => boolean): Pair[] {
  return current
    .filter(({ draftId }) => open.has(draftId))
    .filter(({ submittedAt, begunAt, locked, reviewerId }) =>
      takesPart(reviewerId) ? begunAt !== null || locked : submittedAt !== null,
    )
    .map(({ reviewerId, draftId }) => ({ reviewerId, draftId }));
}

/** What was kept apart by people, as pairs of reviewer and draft; each once. */
function pairsApart(
  rows: readonly ForbiddenPair[],
  drafts: readonly HandedIn[],
  reviewers: ReadonlySet<string>,
): Pair[] {
  const draftsBy = new Map<string, string[]>();
  for (const { draftId, authorIds } of drafts) {
    for (const id of authorIds) draftsBy.set(id, [...(draftsBy.get(id) ?? []), draftId]);
  }
  const pairs = rows
    .filter(({ reviewerId }) => reviewers.has(reviewerId))
    .flatMap(({ reviewerId, authorId }) => (draftsBy.get(authorId) ?? []).map((draftId) => ({ reviewerId, draftId })));
  return [...new Map(pairs.map((pair) => [pairKey(pair), pair])).values()];
}
