import type { IsoInstant, PersonLabel } from './person.js';
import type { LateView } from './drafts.js';
import type { ReviewState } from './views.js';

export interface ProgressReview {
  readonly id: string;
  readonly draftId: string;
  readonly author: PersonLabel;
  readonly state: ReviewState;
  readonly changing: boolean;
  readonly answered: number;
  readonly required: number;
  /** In answers and notes together. */
  readonly words: number;
  readonly notes: number;
}

export interface ProgressRow {
  readonly id: string;
  readonly person: PersonLabel;
  readonly draft: {
    readonly id: string | null;
    readonly state: 'none' | 'saved' | 'handed-in';
    readonly version: number;
    readonly handedInAt: IsoInstant | null;
    readonly words: number;
    readonly title: string;
    /** Bytes of its files. */
    readonly bytes: number;
    readonly late: LateView | null;
    /** When the saved text was last changed. */
    readonly savedAt: IsoInstant | null;
    /** A reading copy that could not be made. */
    readonly copyFailed: boolean;
    /** Of a hand-in as a group. */
    readonly group: string | null;
  };
  readonly reviews: readonly ProgressReview[];
  /** Practice drafts behind this student, of all that there are; null where there is no practice. */
  readonly practised: { readonly done: number; readonly of: number; readonly begun: boolean } | null;
  readonly received: number;
  readonly receives: number;
  /** No longer in the course; the work is kept. */
  readonly dropped: boolean;
  readonly excused: boolean;
  readonly words: number;
  readonly notes: number;
  /** Whole minutes at work on all of them; null where the course does not measure that. */
  readonly minutes: number | null;
  /** When anything was last written in one of the reviews. */
  readonly workedAt: IsoInstant | null;
  /** Requests for a look that wait for an answer. */
  readonly asks: number;
  readonly section: string | null;
  /** At most one of each set. `set`: the title of the set. */
  readonly groups: ReadonlyArray<{ readonly id: string; readonly set: string; readonly title: string }>;
}

export interface ProgressView {
  readonly rows: readonly ProgressRow[];
}
