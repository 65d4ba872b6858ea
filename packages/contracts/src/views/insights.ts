import type { ItemInsight } from '@salt-circle/core';
import type { PersonLabel } from './person.js';

/** What the reviews of an exchange say together; for staff. Scores are shares of the maximum, 0 to 1. */
export interface InsightsView {
  readonly items: readonly ItemInsight[];
  readonly drafts: ReadonlyArray<{
    readonly id: string;
    readonly author: PersonLabel;
    readonly mean: number;
    readonly adjusted: number;
    readonly low: number;
    readonly high: number;
    readonly reviews: number;
    /** How many of its reviewers give less than others on average, and more. */
    readonly less: number;
    readonly more: number;
    /** Reviews after which the interval would be half as wide; null where no number would say. */
    readonly forHalf: number | null;
    /** By the own reviews of staff; null without. */
    readonly staff: number | null;
  }>;
  readonly reviewers: ReadonlyArray<{
    readonly id: string;
    readonly person: PersonLabel;
    readonly severity: number;
    readonly low: number;
    readonly high: number;
    readonly reviews: number;
  }>;
  /** Reviews submitted on each day of the course's calendar, in its order. */
  readonly days: ReadonlyArray<{ readonly day: string; readonly reviews: number }>;
  /** Why severity is not taken out as it should be. */
  readonly problem: string | null;
}
