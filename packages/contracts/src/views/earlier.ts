import type { ReviewForm } from '@salt-circle/core';
import type { PersonLabel } from './person.js';
import type { AnswerView, NoteView } from './views.js';

/** For whoever reviews a revision: what was said of the draft in the round before. */
export interface EarlierView {
  /** Null where this is no second round. */
  readonly exchangeTitle: string | null;
  readonly form: ReviewForm;
  /** The own one first. */
  readonly reviews: ReadonlyArray<{
    readonly id: string;
    /** By which it was written, where that is another one. */
    readonly form?: ReviewForm;
    /** Others by number: their aliases were those of another exchange. */
    readonly reviewer: PersonLabel;
    readonly answers: Readonly<Record<string, AnswerView>>;
    readonly notes: readonly NoteView[];
  }>;
}

/** An exchange in which the revisions of this one are reviewed. */
export interface RoundCard {
  readonly id: string;
  readonly title: string;
}
