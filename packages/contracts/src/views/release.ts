import type { OwnFeedback } from '@salt-circle/core';
import type { IsoInstant, PersonLabel } from './person.js';

/** What each author gets, before and after release. */
export interface ReleaseView {
  readonly rows: readonly ReleaseRow[];
  /** Authors who have read their feedback: from the first on, a release cannot be taken back. */
  readonly read: number;
}

export interface ReleaseRow {
  readonly participantId: string;
  readonly person: PersonLabel;
  /** Reviews by others that this author gets, and those that are not submitted. */
  readonly reviews: number;
  readonly waiting: number;
  /** Whole reviews, and single things of others, that are withheld. */
  readonly withheld: number;
  readonly how: OwnFeedback;
  /** Why it is held back. */
  readonly reason: string | null;
  readonly readAt: IsoInstant | null;
}
