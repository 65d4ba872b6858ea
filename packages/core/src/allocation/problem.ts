import { MisuseError } from '../problem.js';

/** This reviewer reviews this draft. */
export interface Pair {
  readonly reviewerId: string;
  readonly draftId: string;
}

export interface ReviewerEntry {
  readonly id: string;
  /** Reviews asked of this person, a whole number from 0 to 1000; pairs that are fixed count towards it. */
  readonly capacity: number;
  readonly groupId?: string | undefined;
  /** 0 weak to 1 strong. Those without count as the mean of the others. */
  readonly strength?: number | undefined;
}

export interface DraftEntry {
  readonly id: string;
  /** People who wrote it; they need not be among the reviewers. */
  readonly authorIds: readonly string[];
  /** With one author, the group of that author. With none or several, the group whose own draft it is. */
  readonly groupId?: string | undefined;
  /** Gets no further reviews and does not count for the balance; fixed pairs stay. */
  readonly closed?: boolean | undefined;
}

export interface AllocationProblem {
  readonly reviewers: readonly ReviewerEntry[];
  /** Only drafts that were handed in. */
  readonly drafts: readonly DraftEntry[];
  /** `same-group`: somebody without a group reviews nothing. `other-groups`: one without a group may review all. */
  readonly scope: 'anyone' | 'same-group' | 'other-groups';
  /** No draft gets more than this many reviews, but for those that are fixed. */
  readonly maxPerDraft?: number | undefined;
  /** Made by hand or begun: kept, whatever the rules say; they count towards capacity and balance. */
  readonly fixed: readonly Pair[];
  readonly forbidden: readonly Pair[];
  /** Pairs of earlier exchanges, to be avoided, as often as they met. */
  readonly earlier: ReadonlyArray<Pair & { readonly times: number }>;
  /** Any whole number. The same problem with the same seed gives the same allocation. */
  readonly seed: number;
}

/** What was reached of each wish, in the order in which they count, and the best there is. */
export interface AllocationQuality {
  /** Reviews: asked for, placed, and the most that can be placed. `beyond`: fixed ones over what was asked of somebody. */
  readonly placed: {
    readonly asked: number;
    readonly reached: number;
    readonly best: number;
    readonly beyond: number;
  };
  /** Fewest and most reviews of a draft (0 and 0 without drafts); sum of squares of the numbers, and the least possible. */
  readonly balance: {
    readonly fewest: number;
    readonly most: number;
    readonly squares: number;
    readonly best: number;
  };
  /** Meetings of before that come again, counted by how often they have been, and the fewest possible; `pairs` counts each once. */
  readonly repeats: { readonly reached: number; readonly best: number; readonly pairs: number };
  /** Pairs of people who review each other. As few as `bound` may or may not be possible; fewer are not. */
  readonly mutual: { readonly reached: number; readonly bound: number };
  /** Mean strength, 0 to 1, of the weakest set of reviewers of a draft, and a bound above it. Null without strengths. */
  readonly mix: { readonly weakest: number; readonly bound: number } | null;
}

/**
 * A smallest set of reviewers that is stuck: together they may only review these drafts, which hold `possible` of the
 * `asked` reviews. What is missing is the difference.
 */
export interface Shortfall {
  readonly reviewerIds: readonly string[];
  readonly draftIds: readonly string[];
  readonly asked: number;
  readonly possible: number;
}

export interface Allocation {
  /** Fixed pairs included; by reviewer, then draft. */
  readonly pairs: readonly Pair[];
  readonly quality: AllocationQuality;
  readonly shortfalls: readonly Shortfall[];
}

/** What is being worked on, and how far that is, 0 to 1. */
export interface AllocationProgress {
  readonly step: 'deal' | 'place' | 'balance' | 'repeats' | 'mutual' | 'mix';
  readonly share: number;
}

export type Watch = (progress: AllocationProgress) => void;

export const MAX_CAPACITY = 1000;

/**
 * @throws MisuseError for ids that are listed twice or unknown, a capacity, maximum, strength, number of times or seed
 * out of its range, a pair listed twice, and a pair both fixed and forbidden
 */
export function assertAllocationProblem(given: AllocationProblem): void {
  const reviewers = distinct(given.reviewers, 'reviewer');
  const drafts = distinct(given.drafts, 'draft');
  for (const { id, capacity, strength } of given.reviewers) {
    if (!isWhole(capacity, 0, MAX_CAPACITY)) {
      throw misuse('capacity-invalid', `The capacity ${capacity} of ${id} is not a whole number from 0 to 1000.`, {
        id,
        capacity,
      });
    }
    if (strength !== undefined && !(strength >= 0 && strength <= 1)) {
      throw misuse('strength-invalid', `The strength ${strength} of ${id} is not from 0 to 1.`, { id, strength });
    }
  }
  const { maxPerDraft: most, seed } = given;
  if (most !== undefined && !isWhole(most, 1, Number.MAX_SAFE_INTEGER)) {
    throw misuse('maximum-invalid', `At most ${most} reviews for a draft is not a whole number of 1 or more.`, {
      most,
    });
  }
  if (!Number.isSafeInteger(seed)) throw misuse('seed-invalid', 'The seed is not a whole number.', { seed });
  const fixed = known(given.fixed, 'fixed', reviewers, drafts);
  known(given.forbidden, 'forbidden', reviewers, drafts, fixed);
  known(given.earlier, 'earlier', reviewers, drafts);
  for (const { reviewerId, draftId, times } of given.earlier) {
    if (isWhole(times, 1, 1_000_000)) continue;
    const message = `${times} earlier meetings of ${reviewerId} and ${draftId} is not a whole number of 1 or more.`;
    throw misuse('times-invalid', message, { reviewerId, draftId, times });
  }
}

function misuse(code: string, message: string, fields: Record<string, unknown>): MisuseError {
  return new MisuseError(code, message, fields);
}

function isWhole(number: number, from: number, to: number): boolean {
  return Number.isInteger(number) && number >= from && number <= to;
}

function distinct(entries: ReadonlyArray<{ readonly id: string }>, what: 'reviewer' | 'draft'): Map<string, number> {
  const ids = new Map<string, number>();
  for (const { id } of entries) {
    if (ids.has(id)) throw misuse(`${what}-duplicate`, `The ${what} ${id} is listed twice.`, { id });
    ids.set(id, ids.size);
  }
  return ids;
}

/** @returns the pairs, each as one number */
function known(
  pairs: readonly Pair[],
  list: 'fixed' | 'forbidden' | 'earlier',
  reviewers: ReadonlyMap<string, number>,
  drafts: ReadonlyMap<string, number>,
  clash: ReadonlySet<number> = new Set(),
): Set<number> {
  const seen = new Set<number>();
  for (const { reviewerId, draftId } of pairs) {
    const reviewer = reviewers.get(reviewerId);
    const draft = drafts.get(draftId);
    if (reviewer === undefined || draft === undefined) {
      const [what, id] = reviewer === undefined ? ['reviewer', reviewerId] : ['draft', draftId];
      throw misuse(`${what}-unknown`, `The ${list} pairs name the ${what} ${id}, who is not listed.`, { id, list });
    }
    const key = reviewer * drafts.size + draft;
    if (seen.has(key)) {
      const message = `The pair of ${reviewerId} and ${draftId} is listed twice among the ${list} ones.`;
      throw misuse('pair-duplicate', message, { reviewerId, draftId, list });
    }
    if (clash.has(key)) {
      const message = `The pair of ${reviewerId} and ${draftId} is both fixed and forbidden.`;
      throw misuse('pair-fixed-and-forbidden', message, { reviewerId, draftId });
    }
    seen.add(key);
  }
  return seen;
}
