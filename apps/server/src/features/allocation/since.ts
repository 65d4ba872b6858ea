import { pairKey } from '@salt-circle/core';
import type { Question } from './question.js';

/** What has happened since drafts were allocated. Participants by id. */
export interface Since {
  /** Without any of the reviews that they should give or get. */
  readonly late: readonly string[];
  /** With reviews to give or get, though they take no part any more. */
  readonly left: readonly string[];
  /** Pairs that are allocated, and kept apart by now. */
  readonly forbidden: number;
}

/** What a repair would mend; null when nothing has happened, nothing is allocated yet, or reviewing is over. */
export function happenedSince(question: Question, now: number): Since | null {
  const { current, problem, exchange, drafts, open, leftOut, selfPairs, own } = question;
  if (current.length + own.length === 0 || now >= (exchange.reviewsDue ?? Infinity)) return null;
  const given = new Set(current.map(({ reviewerId }) => reviewerId));
  const received = new Set(current.map(({ draftId }) => draftId));
  const reachable = problem.drafts.length > 1;
  // With nightly rounds, whoever comes later waits for the next round and is not forgotten.
  const late = exchange.rolling
    ? []
    : [
        ...problem.reviewers
          .filter(({ id, capacity }) => reachable && capacity > 0 && !given.has(id))
          .map(({ id }) => id),
        ...problem.drafts.filter(({ id }) => reachable && !received.has(id)).flatMap(({ authorIds }) => authorIds),
        ...selfPairs.filter((pair) => !own.some((row) => pairKey(row) === pairKey(pair))).map((one) => one.reviewerId),
      ];
  const pending = current.filter(({ begunAt }) => begunAt === null);
  const gone = (id: string) => leftOut.get(id) === 'left' || leftOut.get(id) === 'excused';
  const authorsOf = new Map(drafts.map(({ draftId, authorIds }) => [draftId, authorIds]));
  const left = [
    ...pending.filter(({ reviewerId }) => gone(reviewerId)).map(({ reviewerId }) => reviewerId),
    ...pending.filter(({ draftId }) => !open.has(draftId)).flatMap(({ draftId }) => authorsOf.get(draftId) ?? []),
  ];
  const apart = new Set(problem.forbidden.map(pairKey));
  const forbidden = pending.filter((pair) => apart.has(pairKey(pair))).length;
  if (late.length + left.length + forbidden === 0) return null;
  return { late: [...new Set(late)], left: [...new Set(left)], forbidden };
}
