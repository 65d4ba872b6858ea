import type { Flag, FlaggingRules } from '@salt-circle/core';
import type { Withholdable } from '../withholdable.js';
import type { IsoInstant, PersonLabel } from './person.js';

/** A flag about a review, with what it is known by. */
export interface FlagView {
  readonly key: string;
  readonly flag: Flag;
  /** Somebody of the staff has said that it is none. */
  readonly dismissed: boolean;
  /** Of a text that stands in another review: whose that is. */
  readonly other: { readonly reviewer: PersonLabel; readonly author: PersonLabel } | null;
}

/** Who has looked at a review as it is submitted now. */
export interface LookedView {
  readonly by: string;
  readonly at: IsoInstant;
}

/** A submitted review in the queue, those with flags first. */
export interface QueueRow {
  readonly reviewId: string;
  readonly reviewer: PersonLabel;
  readonly author: PersonLabel;
  readonly draftTitle: string;
  readonly self: boolean;
  readonly words: number;
  readonly notes: number;
  readonly submittedAt: IsoInstant;
  readonly flags: readonly FlagView[];
  readonly looked: LookedView | null;
  /** Kept from the author: all of it, or so many things of it. */
  readonly withheld: 'all' | number;
}

export interface QueueView {
  readonly bounds: FlaggingRules;
  readonly rows: readonly QueueRow[];
}

/** Something of a review that is kept from its author. */
export interface WithheldView {
  readonly kind: Withholdable;
  /** Id of the note, the item or the file; empty for the whole review. */
  readonly targetId: string;
  /** For staff, and for the reviewer where told. */
  readonly reason: string;
  /** For staff; null for the reviewer. */
  readonly staff: {
    readonly by: string;
    readonly at: IsoInstant;
    readonly told: boolean;
    readonly counts: boolean;
  } | null;
}

/** What staff know of one review beside what stands in it. */
export interface CheckView {
  /** Null for a review that is not submitted. */
  readonly flags: readonly FlagView[] | null;
  readonly looked: LookedView | null;
}
