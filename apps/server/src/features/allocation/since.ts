import { endOf, nextRun, pairKey, resolveDates, type DraftEntry, type Pair } from '@salt-circle/core';
import { datesOf } from '../../permissions/exchange-facts.js';
import type { Exchange } from '../../model/exchange.js';
import { groupedBy } from '../../platform/grouping/grouped-by.js';
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
export function happenedSince(question: Question, timeZone: string, now: number): Since | null {
  const { current, problem, exchange, drafts, open, leftOut, selfPairs, own } = question;
  if (current.length + own.length === 0 || isReviewingOver(question, now)) return null;
  const given = new Set(current.map(({ reviewerId }) => reviewerId));
  const received = new Set(current.map(({ draftId }) => draftId));
  const reachable = problem.drafts.length > 1;
  const alone = new Set(aloneIn(question).map(({ draftId }) => draftId));
  // With nightly rounds, whoever comes later waits for the next round and is not forgotten; after the last, everybody short is.
  const late = exchange.rolling
    ? isLastRoundOver(exchange, timeZone, now)
      ? leftOver(question)
      : []
    : [
        ...problem.reviewers
          .filter(({ id, capacity }) => reachable && capacity > 0 && !given.has(id))
          .map(({ id }) => id),
        ...problem.drafts
          .filter(({ id }) => reachable && !received.has(id) && !alone.has(id))
          .flatMap(({ authorIds }) => authorIds),
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

export function isReviewingOver({ exchange }: Pick<Question, 'exchange'>, now: number): boolean {
  return now >= endOf(exchange.reviewsDue ?? Infinity);
}

function isLastRoundOver(exchange: Exchange, timeZone: string, now: number): boolean {
  const dates = resolveDates(datesOf(exchange));
  return dates !== null && nextRun({ kind: 'nightly' }, dates, timeZone, now) === null;
}

/** With fewer reviews to give than asked, or a draft that nobody reviews. */
export function leftOver({ current, problem }: Question): string[] {
  const given = groupedBy(current, ({ reviewerId }) => reviewerId);
  const received = new Set(current.map(({ draftId }) => draftId));
  return [
    ...problem.reviewers.filter(({ id, capacity }) => (given.get(id)?.length ?? 0) < capacity).map(({ id }) => id),
    ...problem.drafts.filter(({ id }) => !received.has(id)).flatMap(({ authorIds }) => authorIds),
  ];
}

/** Where people review within their group: authors of drafts that nobody may review, and that nobody reviews, not even they. */
export function aloneIn({ problem, current, own }: Question): Pair[] {
  if (problem.scope !== 'same-group') return [];
  const received = new Set([...current, ...own].map(({ draftId }) => draftId));
  const reviewers = groupedBy(problem.reviewers, ({ groupId }) => groupId ?? '');
  const hasOthers = ({ groupId = '', authorIds }: DraftEntry) =>
    groupId !== '' && (reviewers.get(groupId) ?? []).some(({ id }) => !authorIds.includes(id));
  return problem.drafts
    .filter((draft) => !received.has(draft.id) && !hasOthers(draft))
    .flatMap(({ id, authorIds }) => authorIds.map((reviewerId) => ({ reviewerId, draftId: id })));
}
