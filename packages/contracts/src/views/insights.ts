import type { AlongDraft, ItemInsight, ScoreReliability } from '@salt-circle/core';
import type { NoteKind } from '../noteKinds.js';
import type { PersonLabel } from './person.js';

/** What became of remarks, by what they are: a kind of note, or the next step of an answer. */
export interface UptakeView {
  readonly kind: NoteKind | 'next';
  readonly remarks: number;
  /** Ticked off, or put into the text. */
  readonly done: number;
  /** To be done, and not done yet. */
  readonly toDo: number;
  readonly wont: number;
  readonly undecided: number;
}

/** What the reviews of an exchange say together; for staff. Scores are shares of the maximum, 0 to 1. */
export interface InsightsView {
  readonly items: readonly ItemInsight[];
  /** By what drafts can be put together: sections, and every set of groups; each draft by its id with the name of where it belongs. */
  readonly groupings: ReadonlyArray<{ readonly title: string; readonly of: Readonly<Record<string, string>> }>;
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
    /** By its authors themselves; null without. */
    readonly self: number | null;
    /** Mean of the peers for each of the items, in their order, 0 to 1 of its scale; null without an answer. */
    readonly items: ReadonlyArray<number | null>;
  }>;
  readonly reviewers: ReadonlyArray<{
    readonly id: string;
    readonly person: PersonLabel;
    readonly severity: number;
    readonly low: number;
    readonly high: number;
    readonly reviews: number;
  }>;
  /** How far one review, and all of a draft, tell drafts apart; null where nothing can be told apart. */
  readonly reliability: ScoreReliability | null;
  readonly reviews: ReadonlyArray<{
    readonly id: string;
    readonly person: PersonLabel;
    readonly author: PersonLabel;
    readonly words: number;
    readonly notes: number;
    /** At work on it; null where that is not measured. */
    readonly minutes: number | null;
    /** On the course's calendar. */
    readonly day: string;
    /** Where on their scales its answers are, in the order of the items, 0 to 1; null without an answer. */
    readonly levels: ReadonlyArray<number | null>;
    /** Of its notes along the draft: the kind, and in which part of it, from 0. */
    readonly along: ReadonlyArray<readonly [kind: NoteKind, part: number]>;
  }>;
  /** Where notes stand along the drafts, by kind. */
  readonly notes: ReadonlyArray<AlongDraft & { readonly kind: NoteKind }>;
  /** Empty before feedback is released. */
  readonly uptake: readonly UptakeView[];
  /** Reviews submitted on each day of the course's calendar, in its order. */
  readonly days: ReadonlyArray<{ readonly day: string; readonly reviews: number }>;
  /** Why severity is not taken out as it should be. */
  readonly problem: string | null;
  /** Something is still being worked out: drafts and reviewers come later. */
  readonly provisional: boolean;
}

/** Exchanges of a course beside each other; for staff. */
export interface CourseInsightsView {
  /** In the order in which drafts were due. */
  readonly exchanges: ReadonlyArray<{
    readonly id: string;
    readonly title: string;
    readonly reviews: number;
    /** By the title of the item, since each exchange has a form of its own. */
    readonly items: ReadonlyArray<{ readonly title: string; readonly mean: number; readonly answers: number }>;
  }>;
  readonly people: ReadonlyArray<{
    readonly id: string;
    readonly name: string;
    /** In the order of the exchanges: the mean score of the peers for the draft, 0 to 1; null without. */
    readonly scores: ReadonlyArray<number | null>;
    /** Reviews submitted of those given. */
    readonly given: ReadonlyArray<{ readonly submitted: number; readonly of: number } | null>;
  }>;
}
