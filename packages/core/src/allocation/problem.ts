import { MisuseError } from '../problem.js';

export interface Pair {
  readonly reviewerId: string;
  readonly draftId: string;
}

export interface AllocationProblem {
  /** `capacity`: reviews asked of this person, a whole number of 0 or more. */
  readonly reviewers: ReadonlyArray<{ readonly id: string; readonly capacity: number }>;
  /** Only drafts that were handed in. */
  readonly drafts: ReadonlyArray<{ readonly id: string; readonly authorIds: readonly string[] }>;
  /** Any whole number. The same problem with the same seed gives the same allocation. */
  readonly seed: number;
}

export interface AllocationQuality {
  /** Reviews asked for in all, and how many of them found a draft. */
  readonly asked: number;
  readonly placed: number;
  /** Fewest and most reviews any draft gets; 0 and 0 without drafts. */
  readonly fewestPerDraft: number;
  readonly mostPerDraft: number;
  /** Pairs of people who review each other. */
  readonly mutualPairs: number;
}

/** A reviewer for whom there were not enough drafts. */
export interface Shortfall {
  readonly reviewerId: string;
  readonly asked: number;
  readonly placed: number;
  /** Drafts that this reviewer may review at all. */
  readonly eligible: number;
}

export interface Allocation {
  readonly pairs: readonly Pair[];
  readonly quality: AllocationQuality;
  readonly shortfalls: readonly Shortfall[];
}

/** @throws MisuseError for duplicate ids, or a capacity that is not a whole number from 0 to 1000 */
export function assertAllocationProblem(given: AllocationProblem): void {
  const ids = new Set<string>();
  for (const { id, capacity } of given.reviewers) {
    if (ids.has(id)) throw new MisuseError('reviewer-duplicate', `The reviewer ${id} is listed twice.`, { id });
    ids.add(id);
    if (!Number.isInteger(capacity) || capacity < 0 || capacity > 1000) {
      throw new MisuseError(
        'capacity-invalid',
        `The capacity ${capacity} of ${id} is not a whole number from 0 to 1000.`,
        {
          id,
          capacity,
        },
      );
    }
  }
  ids.clear();
  for (const { id } of given.drafts) {
    if (ids.has(id)) throw new MisuseError('draft-duplicate', `The draft ${id} is listed twice.`, { id });
    ids.add(id);
  }
  if (!Number.isFinite(given.seed)) throw new MisuseError('seed-invalid', 'The seed is not a number.', {});
}
