import type { AllocationProblem, Pair } from '../problem.js';
import { seededRandom } from '../../random/random.js';

/** Everybody hands in one draft and is asked for as many reviews. */
export function everybody(count: number, reviews: number, seed = 1): AllocationProblem {
  const ids = [...Array(count).keys()].map((index) => `p${index}`);
  return {
    reviewers: ids.map((id) => ({ id, capacity: reviews })),
    drafts: ids.map((id) => ({ id: `d-${id}`, authorIds: [id] })),
    scope: 'anyone',
    fixed: [],
    forbidden: [],
    earlier: [],
    seed,
  };
}

export interface Shape {
  readonly people: readonly [least: number, most: number];
  readonly capacity: number;
  /** Whether some drafts have several authors. */
  readonly groups: boolean;
}

/** A problem with something of everything: drop-outs, own capacities, pairs of all three kinds, maxima and scopes. */
export function mixedProblem(seed: number, { people: [least, most], capacity, groups }: Shape): AllocationProblem {
  const random = seededRandom(seed * 7919 + 1);
  const draw = (below: number) => Math.floor(random() * below);
  const people = least + draw(most - least + 1);
  const common = 1 + draw(capacity);
  const groupCount = 2 + draw(Math.max(1, Math.floor(people / 3)));
  const groupOf = new Map([...Array(people).keys()].map((person) => [person, `g${draw(groupCount)}`]));
  const reviewers = [...groupOf].map(([person, groupId]) => ({
    id: `p${person}`,
    capacity: draw(6) === 0 ? draw(capacity + 1) : common,
    ...(draw(8) === 0 ? {} : { groupId }),
  }));
  const authors = [...Array(people).keys()].filter(() => draw(10) > 0);
  const drafts = authors.map((person) => ({
    id: `d${person}`,
    authorIds: groups && draw(3) === 0 ? [`p${person}`, `p${draw(people)}`] : [`p${person}`],
    groupId: groupOf.get(person),
  }));
  const pairs = reviewers.flatMap((reviewer) => drafts.map((draft) => [reviewer, draft] as const));
  const isOwn = ([reviewer, draft]: (typeof pairs)[number]) => draft.authorIds.includes(reviewer.id);
  const some = (share: number) =>
    pairs
      .filter((pair) => !isOwn(pair) && random() < share)
      .map(([{ id: reviewerId }, { id: draftId }]): Pair => ({ reviewerId, draftId }));
  const forbidden = some([0, 0.1, 0.4][draw(3)] as number);
  const isForbidden = new Set(forbidden.map(({ reviewerId, draftId }) => `${reviewerId} ${draftId}`));
  const earlierShare = [0.05, 0.3, 0.9][draw(3)] as number;
  const scopes = ['anyone', 'anyone', 'anyone', 'other-groups', 'same-group'] as const;
  return {
    reviewers,
    drafts,
    scope: scopes[draw(5)] as AllocationProblem['scope'],
    ...(draw(3) === 0 ? { maxPerDraft: 1 + draw(capacity) } : {}),
    fixed:
      draw(2) === 0 ? [] : some(0.03).filter(({ reviewerId, draftId }) => !isForbidden.has(`${reviewerId} ${draftId}`)),
    forbidden,
    earlier: some(earlierShare).map((pair) => ({ ...pair, times: 1 + draw(3) })),
    seed,
  };
}

/** Whether the rules allow it, written down once more and as plainly as can be. */
export function isAllowed(problem: AllocationProblem, { reviewerId, draftId }: Pair): boolean {
  const reviewer = problem.reviewers.find(({ id }) => id === reviewerId);
  const draft = problem.drafts.find(({ id }) => id === draftId);
  if (reviewer === undefined || draft === undefined || draft.closed === true) return false;
  if (draft.authorIds.includes(reviewerId)) return false;
  const sameGroup = reviewer.groupId !== undefined && reviewer.groupId === draft.groupId;
  if (sameGroup && new Set(draft.authorIds).size !== 1) return false;
  if (problem.scope === 'same-group' && !sameGroup) return false;
  if (problem.scope === 'other-groups' && sameGroup) return false;
  return !problem.forbidden.some((pair) => pair.reviewerId === reviewerId && pair.draftId === draftId);
}

/** Least first: what is asked but not placed, squares, repeats, mutual pairs. */
export function worth(problem: AllocationProblem, pairs: readonly Pair[]): [number, number, number, number] {
  const given = new Set(pairs.map(({ reviewerId, draftId }) => `${reviewerId} ${draftId}`));
  const squares = problem.drafts
    .filter(({ closed }) => closed !== true)
    .reduce((sum, { id }) => sum + pairs.filter(({ draftId }) => draftId === id).length ** 2, 0);
  const repeats = problem.earlier.reduce(
    (sum, { reviewerId, draftId, times }) => sum + (given.has(`${reviewerId} ${draftId}`) ? times : 0),
    0,
  );
  const reviewing = new Set(
    pairs.flatMap(({ reviewerId, draftId }) =>
      (problem.drafts.find(({ id }) => id === draftId)?.authorIds ?? []).map((author) => `${reviewerId} ${author}`),
    ),
  );
  const ids = problem.reviewers.map(({ id }) => id);
  const mutual = ids.flatMap((a) =>
    ids.filter((b) => a < b && reviewing.has(`${a} ${b}`) && reviewing.has(`${b} ${a}`)),
  );
  return [-pairs.length, squares, repeats, mutual.length];
}
