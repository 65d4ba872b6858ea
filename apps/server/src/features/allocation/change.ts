import { pairKey, type Pair } from '@salt-circle/core';
import { In, type EntityManager } from 'typeorm';
import { insertAll } from '../../platform/database/insert-all.js';
import { portions } from '../../platform/database/portions.js';
import type { Exchange } from '../../model/exchange.js';
import type { Ids } from '../../platform/ids/ids.js';
import { Review } from '../../model/review.js';
import { AllocationStep, ForbiddenPair, type PairRow, type StepHands } from '../../model/allocation.js';
import type { Question } from './question.js';
import { ALLOCATED } from '../../permissions/review-state.js';

export interface Change {
  readonly act: AllocationStep['act'];
  readonly add: ReadonlyArray<Pair & { readonly locked: boolean }>;
  readonly remove: readonly Review[];
  readonly before?: AllocationStep['before'];
}

/** What turns what is allocated now into these pairs. What has begun stays, whatever they say. */
export function changeTo(question: Question, pairs: readonly Pair[]): Pick<Change, 'add' | 'remove'> {
  const inOrder =
    question.exchange.selfReview === 'after' ? [...pairs, ...question.selfPairs] : [...question.selfPairs, ...pairs];
  const wanted = new Map(inOrder.map((pair) => [pairKey(pair), pair]));
  const now = [...question.current, ...question.own];
  const there = new Set(now.map(pairKey));
  // A review of oneself that was given by hand is no matter of the rules, and stays.
  const own = new Set(question.own.map(({ id }) => id));
  return {
    add: [...wanted.values()].filter((pair) => !there.has(pairKey(pair))).map((pair) => ({ ...pair, locked: false })),
    remove: now.filter(
      (review) => review.begunAt === null && !wanted.has(pairKey(review)) && !(review.locked && own.has(review.id)),
    ),
  };
}

/** Makes a change and keeps what is needed to undo it. @returns whether anything was changed */
export async function makeChange(
  manager: EntityManager,
  ids: Ids,
  exchange: Exchange,
  now: number,
  { act, add, remove, before = {} }: Change,
): Promise<boolean> {
  if (add.length + remove.length === 0 && before.hands === undefined) return false;
  const all = await manager.find(Review, { where: { exchangeId: exchange.id, ...ALLOCATED }, withDeleted: true });
  const removing = new Set(remove.map(({ id }) => id));
  const last = new Map<string, number>();
  for (const { id, reviewerId, position, removedAt } of all) {
    if (removedAt === null && !removing.has(id)) last.set(reviewerId, Math.max(last.get(reviewerId) ?? 0, position));
  }
  const put = new Map(all.filter(({ removedAt }) => removedAt !== null).map((one) => [pairKey(one), one]));
  const added: PairRow[] = [];
  const fresh: Array<Partial<Review>> = [];
  await takeAway(manager, remove, now);
  for (const { reviewerId, draftId, locked } of add) {
    const position = (last.get(reviewerId) ?? 0) + 1;
    last.set(reviewerId, position);
    const old = put.get(pairKey({ reviewerId, draftId }));
    const row = { id: old?.id ?? ids.uuid(), reviewerId, draftId, position, locked, toldAt: null };
    added.push(row);
    // What had begun once comes back with all that was written.
    if (old === undefined) fresh.push({ ...row, exchangeId: exchange.id });
    else await manager.update(Review, { id: old.id }, { removedAt: null, locked, position, toldAt: null });
  }
  await insertAll(manager, Review, fresh);
  await manager.insert(AllocationStep, {
    exchangeId: exchange.id,
    at: now,
    act,
    added,
    removed: remove.map(asRow),
    before,
  });
  return true;
}

function asRow({ id, reviewerId, draftId, position, locked, toldAt }: Review): PairRow {
  return { id, reviewerId, draftId, position, locked, toldAt };
}

/** What has not begun goes for good; the work of what has is kept, out of sight. */
async function takeAway(manager: EntityManager, reviews: readonly Review[], now: number): Promise<void> {
  const begun = reviews.filter(({ begunAt }) => begunAt !== null);
  for (const { id } of begun) await manager.update(Review, { id }, { removedAt: now });
  const others = reviews.filter(({ begunAt }) => begunAt === null).map(({ id }) => id);
  for (const some of portions(others)) await manager.delete(Review, { id: In(some) });
}

/** The last step, if nobody has begun a review that it brought. */
export async function undoable(manager: EntityManager, exchangeId: string): Promise<AllocationStep | null> {
  const [step] = await manager.find(AllocationStep, { where: { exchangeId }, order: { id: 'DESC' }, take: 1 });
  if (step === undefined) return null;
  const begun = new Set(
    (await manager.findBy(Review, { exchangeId })).filter(({ begunAt }) => begunAt !== null).map(({ id }) => id),
  );
  return step.added.some(({ id }) => begun.has(id)) ? null : step;
}

async function undoHands(manager: EntityManager, exchangeId: string, hands: StepHands | undefined): Promise<void> {
  if (hands === undefined) return;
  for (const pair of hands.held) await manager.update(Review, { ...pair }, { locked: false });
  for (const pair of hands.letGo) await manager.update(Review, { ...pair }, { locked: true });
  for (const people of hands.apart) await manager.delete(ForbiddenPair, { exchangeId, ...people });
  await insertAll(
    manager,
    ForbiddenPair,
    hands.together.map((people) => ({ ...people, exchangeId })),
  );
}

/** Takes a step back. @returns how many pairs it concerned */
export async function undo(
  manager: EntityManager,
  exchange: Exchange,
  step: AllocationStep,
  now: number,
): Promise<number> {
  const reviews = await manager.find(Review, { where: { exchangeId: exchange.id, ...ALLOCATED }, withDeleted: true });
  const byId = new Map(reviews.map((one) => [one.id, one]));
  const live = new Set(reviews.filter(({ removedAt }) => removedAt === null).map(pairKey));
  const added = step.added.flatMap(({ id }) => byId.get(id) ?? []).filter(({ removedAt }) => removedAt === null);
  await takeAway(manager, added, now);
  for (const one of added) live.delete(pairKey(one));
  const back = step.removed.filter((row) => !live.has(pairKey(row)));
  for (const row of back) {
    if (byId.has(row.id)) await manager.update(Review, { id: row.id }, { removedAt: null, locked: row.locked });
  }
  await insertAll(
    manager,
    Review,
    back.filter(({ id }) => !byId.has(id)).map((row) => ({ ...row, exchangeId: exchange.id })),
  );
  await undoHands(manager, exchange.id, step.before.hands);
  await manager.delete(AllocationStep, { id: step.id });
  return added.length + back.length;
}
