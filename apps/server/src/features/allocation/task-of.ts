import type { PreviewKind } from '@salt-circle/contracts';
import { nightsWaited, pairKey, type Pair } from '@salt-circle/core';
import type { ExchangeContext } from '../../permissions/access.js';
import type { AllocationPlan } from '../../model/allocation.js';
import type { Question } from './question.js';
import type { SolverTask } from './worker/solve.js';

/** What the solver is asked. Everything in it is made of plain values: it crosses to a thread. */
export function taskOf(
  question: Question,
  kind: PreviewKind,
  seed: number,
  { course, now }: Pick<ExchangeContext, 'course' | 'now'>,
  { party, patience }: Pick<AllocationPlan, 'party' | 'patience'>,
): SolverTask {
  const problem = { ...question.problem, seed };
  if (kind === 'new') return { kind, problem };
  const current = question.current.map(({ reviewerId, draftId }): Pair => ({ reviewerId, draftId }));
  if (kind === 'repair') return repairTask(question, problem, current);
  const listed = new Set(problem.reviewers.map(({ id }) => id));
  const drafts = new Set(problem.drafts.map(({ id }) => id));
  const given = current.filter(({ reviewerId, draftId }) => listed.has(reviewerId) && drafts.has(draftId));
  const count = new Map<string, number>();
  for (const { reviewerId } of given) count.set(reviewerId, (count.get(reviewerId) ?? 0) + 1);
  const firstAt = new Map(question.drafts.flatMap((one) => one.authorIds.map((id) => [id, one.firstAt] as const)));
  const isGiven = new Set(given.map(pairKey));
  const { fixed: _fixed, ...rest } = problem;
  return {
    kind,
    problem: {
      ...rest,
      forbidden: problem.forbidden.filter((pair) => !isGiven.has(pairKey(pair))),
      given,
      // Without a draft of one's own there is no night from which on one waits; such reviewers are there at once.
      waiting: problem.reviewers
        .filter(({ id, capacity }) => (count.get(id) ?? 0) < capacity)
        .map(({ id }) => ({ id, nights: nightsWaited(firstAt.get(id) ?? now, now, course.timeZone) })),
      party,
      patience,
    },
  };
}

function repairTask(
  question: Question,
  problem: SolverTask['problem'] & Question['problem'],
  current: Pair[],
): SolverTask {
  const given = new Set(current.map(({ reviewerId }) => reviewerId));
  const received = new Set(current.map(({ draftId }) => draftId));
  const reviewers = new Set(problem.reviewers.map(({ id }) => id));
  const drafts = new Set(problem.drafts.map(({ id }) => id));
  const fixed = new Set(problem.fixed.map(pairKey));
  // Begun by somebody who has left: it is kept where it is, and counts for nothing any more.
  const begun = new Set(question.current.filter(({ begunAt }) => begunAt !== null).map(pairKey));
  const counted = current.filter((pair) => fixed.has(pairKey(pair)) || !begun.has(pairKey(pair)));
  return {
    kind: 'repair',
    problem: {
      ...problem,
      reviewers: problem.reviewers.filter(({ id }) => given.has(id)),
      drafts: problem.drafts.filter(({ id }) => received.has(id)),
    },
    current: counted,
    changes: {
      reviewers: problem.reviewers.filter(({ id }) => !given.has(id)),
      drafts: problem.drafts.filter(({ id }) => !received.has(id)),
      reviewersLeft: [...given].filter((id) => !reviewers.has(id)),
      draftsWithdrawn: [...received].filter((id) => !drafts.has(id)),
    },
  };
}
