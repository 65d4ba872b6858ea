import type { ShorthandEntry } from './shorthand.js';
import type {
  AfterRule,
  Deliverable,
  GradePart,
  LateRule,
  NamesPolicy,
  PracticeRule,
  ReviewForm,
  SelfReview,
  TakesPart,
  Whom,
} from '@salt-circle/core';
import type { FieldProblem } from '../problems.js';
import type { ScheduleKind } from './allocation.js';
import type { IsoInstant } from './person.js';
import type { DatesView, PersonalDatesPart } from './views.js';

/** All settings of an exchange, as they are saved. */
export interface PlanSettings {
  readonly title: string;
  readonly briefHtml: string;
  readonly guideHtml: string;
  readonly dates: DatesView;
  readonly late: LateRule | null;
  readonly deliverables: readonly Deliverable[];
  readonly takesPart: TakesPartView;
  readonly handInAs: 'alone' | 'group';
  readonly whom: Whom;
  readonly groupSetId: string | null;
  readonly reviewsPerStudent: number;
  readonly selfReview: SelfReview;
  readonly ownHandInFirst: boolean;
  readonly names: NamesPolicy;
  readonly showNamesAtRelease: boolean;
  /** Authors read each review as it is submitted, not all of them at release. */
  readonly feedbackEach: boolean;
  /** What a reviewer has submitted stays, unless an instructor reopens it. */
  readonly reviewsFinal: boolean;
  readonly practice: PracticeRule;
  readonly after: AfterRule;
  /** Hours before a due time at which who has not done it is reminded; null: never. */
  readonly remindHours: number | null;
  readonly gradeParts: readonly GradePart[];
  readonly shorthandId: string | null;
}

/** All fields whatever the kind, so that switching back and forth forgets nothing. */
export interface TakesPartView {
  readonly kind: TakesPart['kind'];
  readonly sections: readonly string[];
  readonly groupIds: readonly string[];
  readonly studentIds: readonly string[];
}

/** Settings that can be fixed once an exchange is published or work has begun. */
export type FixableSetting =
  | 'names'
  | 'reviewsPerStudent'
  | 'takesPart'
  | 'handInAs'
  | 'whom'
  | 'groupSetId'
  | 'selfReview'
  | 'deliverables'
  | 'feedbackEach'
  | 'reviewsFinal';

export interface PlanView extends PlanSettings {
  readonly revision: number;
  readonly published: boolean;
  /** Who takes part, by the settings as they are saved. */
  readonly students: number;
  /** What must be mended before publishing, in the order of the page. */
  readonly missing: readonly FieldProblem[];
  /** What may be as intended, but should be looked at: a date on a holiday, say. */
  readonly remarks: readonly FieldProblem[];
  /** Settings that can no longer be changed, with the reason. */
  readonly fixed: Readonly<Partial<Record<FixableSetting, string>>>;
  readonly own: readonly PersonalDatesView[];
  /** Drafts that count and were handed in late. */
  readonly lateHandIns: number;
  /** When drafts are allocated without anybody asking for it. */
  readonly allocation: {
    readonly revision: number;
    readonly kind: ScheduleKind;
    readonly at: IsoInstant | null;
    readonly party: number;
    readonly patience: number;
  };
  /** What the settings can choose from. */
  readonly choices: PlanChoices;
}

export interface PlanChoices {
  readonly sections: readonly string[];
  readonly students: ReadonlyArray<{ readonly id: string; readonly name: string; readonly section: string | null }>;
  readonly groupSets: ReadonlyArray<{
    readonly id: string;
    readonly title: string;
    readonly groups: ReadonlyArray<{ readonly id: string; readonly title: string; readonly size: number }>;
  }>;
  readonly shorthand: ReadonlyArray<{ readonly id: string; readonly title: string }>;
}

export interface PersonalDatesView extends PersonalDatesPart {
  readonly id: string;
  readonly studentId: string | null;
  readonly groupId: string | null;
  /** Of the student or the group. */
  readonly name: string;
  readonly reason: string;
}

export interface FormView extends ReviewForm {
  readonly revision: number;
  /** Why the form can no longer change, or null while it can. */
  readonly frozen: string | null;
  readonly problems: readonly FieldProblem[];
}

export interface CopyPreview {
  readonly dates: DatesView;
  readonly days: number;
  readonly clashes: readonly string[];
}

export interface LibraryCard {
  readonly id: string;
  readonly kind: 'form' | 'shorthand' | 'template';
  readonly title: string;
  /** One line that says what is in it. */
  readonly about: string;
  readonly changedAt: IsoInstant;
}

export interface LibraryView {
  readonly entries: readonly LibraryCard[];
}

export interface LibraryFormView extends FormView {
  readonly id: string;
  readonly title: string;
}

export interface ShorthandView {
  readonly id: string;
  readonly title: string;
  readonly entries: readonly ShorthandEntry[];
  readonly revision: number;
}

/** What a form file was understood to be. */
export interface FormImportView {
  readonly kind: 'form-file' | 'rubric' | 'table';
  readonly title: string;
  readonly form: ReviewForm | null;
  readonly problems: readonly FieldProblem[];
  readonly ignored: readonly string[];
  /** Titles of all rubrics in the document, where there are several. */
  readonly titles: readonly string[];
  /** Set once it has been added. */
  readonly addedId: string | null;
}
