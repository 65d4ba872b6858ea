import type { LeftOut } from '@salt-circle/contracts';
import { groupOf, type Pair } from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import { allPersonalDates } from '../../permissions/personal-dates.js';
import { activeParticipants } from '../../queries/participants.js';
import { studentsOf } from '../../queries/students.js';
import { ForbiddenPair } from '../../model/allocation.js';
import { Participant, type Exchange } from '../../model/exchange.js';
import { Review } from '../../model/review.js';
import { Earlier } from './earlier.js';
import { handedInDrafts, type HandedIn } from './handed-in.js';

/** Who takes part and what is handed in. No act on the allocation changes any of it, but the one on staff who review. */
export interface Circumstances {
  /** Everybody who has ever had a part. */
  readonly participants: readonly Participant[];
  readonly students: readonly Participant[];
  readonly extras: readonly Participant[];
  /** By participant, why no reviews are asked of somebody. */
  readonly leftOut: ReadonlyMap<string, LeftOut>;
  /** Everybody's, also of people who take no part any more. */
  readonly drafts: readonly HandedIn[];
  /** Group by participant, where the exchange has groups. */
  readonly groups: ReadonlyMap<string, string>;
  readonly earlier: Earlier;
}

/** What is allocated now, and who was kept apart by hand. */
export interface Pairs {
  readonly reviews: readonly Review[];
  readonly keptApart: readonly ForbiddenPair[];
  /** Drafts that staff review under their own names: the same people cannot review them under an alias as well. */
  readonly voiced: readonly Pair[];
}

/** In the order of random ids: nothing of the persons steers who reviews whom. @param earlier null to load it */
export async function loadCircumstances(
  manager: EntityManager,
  exchange: Exchange,
  now: number,
  earlier: Earlier | null = null,
): Promise<Circumstances> {
  const participants = await manager.findBy(Participant, { exchangeId: exchange.id });
  const students = await activeParticipants(manager, exchange.id);
  const drafts = await handedInDrafts(manager, exchange);
  return {
    participants,
    students,
    extras: participants.filter(({ extraReviews }) => (extraReviews ?? 0) > 0),
    leftOut: await whoIsLeftOut(manager, exchange, participants, students, drafts),
    drafts,
    groups: await groupsOf(manager, exchange, students),
    earlier: earlier ?? (await Earlier.load(manager, exchange, now)),
  };
}

/** Reviews by reviewer and their place in the reviewer's list; pairs kept apart in the order in which that was said. */
export async function loadPairs(manager: EntityManager, exchangeId: string): Promise<Pairs> {
  const all = await manager.find(Review, { where: { exchangeId }, order: { reviewerId: 'ASC', position: 'ASC' } });
  return {
    reviews: all.filter(({ voice }) => voice === null),
    voiced: all.filter(({ voice }) => voice !== null).map(({ reviewerId, draftId }) => ({ reviewerId, draftId })),
    keptApart: await manager.find(ForbiddenPair, { where: { exchangeId }, order: { id: 'ASC' } }),
  };
}

async function whoIsLeftOut(
  manager: EntityManager,
  exchange: Exchange,
  all: readonly Participant[],
  students: readonly Participant[],
  drafts: readonly HandedIn[],
): Promise<Map<string, LeftOut>> {
  const own = await allPersonalDates(manager, exchange);
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
