import type {
  AdditionReason,
  AllocationProgress,
  AllocationQuality,
  Pair,
  RemovalReason,
  Shortfall,
  Whom,
} from '@salt-circle/core';
import type { Problem } from '../problems.js';
import type { IsoInstant, PersonLabel } from './person.js';
import type { ReviewState } from './views.js';

/** Why somebody gets no drafts to review by an automatic allocation. */
export type LeftOut = 'not-handed-in' | 'excused' | 'left';

export interface BoardReviewer {
  readonly id: string;
  readonly label: PersonLabel;
  /** Reviews asked of this person. */
  readonly capacity: number;
  readonly group: { readonly id: string; readonly title: string } | null;
  /** Somebody of the staff who reviews as well. */
  readonly extra: boolean;
  /** 0 to 1, from the reviews of earlier exchanges; null for somebody without. */
  readonly strength: number | null;
  readonly leftOut: LeftOut | null;
  /** Practice is behind this student; null where there is none, and for staff. */
  readonly practised: boolean | null;
}

export interface BoardDraft {
  readonly id: string;
  readonly author: PersonLabel;
  readonly title: string;
  readonly authorIds: readonly string[];
  readonly group: { readonly id: string; readonly title: string } | null;
  /** No reviews are asked for it any more: its authors have left or are excused. */
  readonly closed: boolean;
}

export interface BoardPair extends Pair {
  readonly reviewId: string;
  readonly state: ReviewState;
  /** Made or held by hand: stays in every new allocation. */
  readonly locked: boolean;
  /** The reviewer's own draft. */
  readonly self: boolean;
  /** For the sentence before it is taken away. */
  readonly answered: number;
  /** What must be answered, for the share that is done. */
  readonly required: number;
  readonly notes: number;
}

export interface WishesView {
  readonly whom: Whom;
  readonly reviewsEach: number;
  /** Earlier exchanges of the course whose pairs are avoided: all of them, or these. */
  readonly avoid: 'all' | readonly string[];
  readonly mix: boolean;
  readonly maxPerDraft: number | null;
}

export type ScheduleKind = 'command' | 'at-due' | 'at' | 'nightly';

export interface ScheduleView {
  readonly kind: ScheduleKind;
  readonly at: IsoInstant | null;
  /** For nightly rounds: fewest people for a round, and the most nights to wait for company. */
  readonly party: number;
  readonly patience: number;
  /** When it runs next, and what the last run came to. */
  readonly next: IsoInstant | null;
  readonly last: { readonly at: IsoInstant; readonly outcome: RunOutcome } | null;
}

/**
 * `kept`: not everybody could be placed, so it waits as a preview. `around`: applied, and short or uneven only because of pairs
 * made by hand. `partly`: a nightly round was applied, and some wait on for drafts that are still to come. `left-over`: it
 * was the last round, so they wait in vain.
 */
export type RunOutcome = 'applied' | 'around' | 'partly' | 'left-over' | 'kept' | 'nothing-to-do' | 'too-few-drafts';

/** What has happened since the allocation was made, in counts and names. */
export interface SuggestionView {
  readonly late: readonly PersonLabel[];
  readonly left: readonly PersonLabel[];
  readonly forbidden: number;
}

export interface StaffReviewer {
  readonly personId: string;
  readonly name: string;
  /** Reviews that this one takes on; null for none. */
  readonly reviews: number | null;
}

export interface AllocationView {
  /** Grows from answer to answer of the server: of two, the one with more is newer. */
  readonly asOf: number;
  readonly revision: number;
  readonly applied: boolean;
  readonly begun: boolean;
  readonly handedIn: number;
  readonly students: number;
  readonly reviewers: readonly BoardReviewer[];
  readonly drafts: readonly BoardDraft[];
  readonly pairs: readonly BoardPair[];
  readonly forbidden: readonly Pair[];
  readonly earlier: ReadonlyArray<Pair & { readonly times: number }>;
  readonly wishes: WishesView;
  /** Earlier exchanges of the course that have pairs to avoid. */
  readonly earlierExchanges: ReadonlyArray<{ readonly id: string; readonly title: string }>;
  readonly hasGroups: boolean;
  readonly schedule: ScheduleView;
  readonly staff: readonly StaffReviewer[];
  readonly suggestion: SuggestionView | null;
  /**
   * With their own drafts: people of whose group nobody else has handed in, so that the rules give them nobody, until
   * somebody is found for them by hand.
   */
  readonly alone: readonly Pair[];
  /** What the last act was, when it can be undone. */
  readonly undo: { readonly step: number; readonly act: AllocationAct } | null;
  /** A scheduled run that could not place everybody. */
  readonly kept: PreviewView | null;
}

export type AllocationAct = 'applied' | 'repaired' | 'round' | 'by-hand' | 'imported';

/** `new`: from nothing but what is held. `repair`: as little changed as can be. `round`: for those who wait. */
export type PreviewKind = 'new' | 'repair' | 'round';

export interface PreviewView {
  readonly id: string;
  readonly kind: PreviewKind;
  readonly seed: number;
  readonly madeAt: IsoInstant;
  readonly scheduled: boolean;
  readonly wishes: WishesView;
  readonly pairs: readonly Pair[];
  readonly quality: AllocationQuality;
  readonly shortfalls: readonly Shortfall[];
  readonly removed: ReadonlyArray<Pair & { readonly reason: RemovalReason }>;
  readonly added: ReadonlyArray<Pair & { readonly reason: AdditionReason }>;
}

export interface JobView {
  readonly id: string;
  readonly state: 'running' | 'done' | 'failed' | 'cancelled';
  readonly progress: AllocationProgress;
  readonly preview: PreviewView | null;
  readonly problem: Problem | null;
}

/** What a file of pairs would do, or has done. */
export interface AllocationImportView {
  readonly added: readonly ImportedPair[];
  readonly removed: readonly ImportedPair[];
  /** Already so. */
  readonly same: number;
  /** Begun, and not in the file: these stay. */
  readonly kept: readonly ImportedPair[];
  readonly problems: ReadonlyArray<{ readonly row: number; readonly sentence: string }>;
  /** What was read, to be sent again for applying. */
  readonly text: string;
  readonly applied: boolean;
}

export interface ImportedPair {
  readonly reviewer: PersonLabel;
  readonly author: PersonLabel;
}
