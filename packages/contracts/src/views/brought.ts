import type { ProposedEdit, Selector } from '@salt-circle/core';
import type { NoteKind } from '../noteKinds.js';

/** What a file that was marked elsewhere would add to a review. */
export interface BroughtView {
  /** Number of the version of the draft that the notes would stand in. */
  readonly version: number;
  /** How many more notes the review can have. */
  readonly room: number;
  readonly notes: ReadonlyArray<{
    /** That it would have: the same mark of the same file has the same. */
    readonly id: string;
    /** Guessed from the words. */
    readonly kind: NoteKind;
    readonly body: string;
    readonly partId: string | null;
    readonly selector: Selector;
    readonly edit: ProposedEdit | null;
    /** `perhaps`: there are other words that read the same. */
    readonly certainty: 'sure' | 'perhaps';
  }>;
  readonly unplaced: ReadonlyArray<{ readonly passage: string; readonly words: string; readonly reason: string }>;
  /** Marks that are notes of the review already. */
  readonly known: number;
  readonly remarks: readonly string[];
}

export interface BroughtInView {
  readonly added: number;
}
