import type { Closeness, PracticeRule, PracticeState, ReviewForm } from '@salt-circle/core';
import type { DraftReading } from './drafts.js';
import type { IsoInstant } from './person.js';
import type { AnswerView, NoteView } from './views.js';

/** The practice drafts of an exchange. */
export interface PracticeView {
  readonly rule: PracticeRule;
  /** A try can be begun or gone on with now, by the one who asks. */
  readonly open: boolean;
  /** Until when. */
  readonly until: IsoInstant | null;
  readonly drafts: readonly PracticeCard[];
}

export interface PracticeCard {
  readonly id: string;
  readonly title: string;
  /** For a student: where the own tries stand; null for staff. */
  readonly own: PracticeOwn | null;
  /** For staff; null for a student. */
  readonly staff: {
    readonly key: 'not-begun' | 'in-progress' | 'submitted';
    readonly keyReviewId: string;
    /** How the author agreed, where a student wrote it. */
    readonly consent: string | null;
    /** Students who have submitted a try of it. */
    readonly tried: number;
    /** Their mean share of items near to the key, at their last try, 0..1; null where nothing can be compared. */
    readonly meanShare: number | null;
  } | null;
}

export interface PracticeOwn {
  readonly state: PracticeState;
  readonly reviewId: string | null;
  /** Of each submitted try: share of items near to the key, 0..1, or null. */
  readonly shares: ReadonlyArray<number | null>;
  /** One more can be begun. */
  readonly again: boolean;
  /** The key can be looked at. */
  readonly result: boolean;
}

/** A submitted try beside the key. */
export interface PracticeResultView {
  readonly id: string;
  readonly title: string;
  readonly exchange: {
    readonly id: string;
    readonly title: string;
    readonly courseId: string;
    readonly courseTitle: string;
    readonly timeZone: string;
  };
  readonly rule: PracticeRule;
  readonly own: PracticeOwn;
  readonly draft: DraftReading;
  readonly form: ReviewForm;
  readonly closeness: Closeness;
  readonly yours: PracticeContent;
  readonly key: PracticeContent;
}

export interface PracticeContent {
  readonly answers: Readonly<Record<string, AnswerView>>;
  readonly notes: readonly NoteView[];
}
