import type {
  Explanation,
  FormItem,
  Grade,
  GradePart,
  GradePartName,
  GradeRule,
  GradingWork,
  QualityEvidence,
} from '@salt-circle/core';
import type { IsoInstant, PersonLabel } from './person.js';
import type { AnswerView } from './views.js';

/** What a grade rests on, beside the figures of its lines. */
export interface GradeGroundsView {
  /** Reviews of the peers that give a score. */
  readonly reviews: number;
  /** What each gave, as a share of the maximum, in no order that tells whose it is; for staff. */
  readonly scores: readonly number[];
  /** Where severity is taken out: between these the score lies, 95 times in a hundred. */
  readonly interval: { readonly low: number; readonly high: number } | null;
  /** Where severity is taken out: in what company the draft was read, and what the plain mean is. */
  readonly company: (Explanation & { readonly mean: number }) | null;
  /** For a student those columns alone that count. */
  readonly quality: QualityEvidence;
  /** How late the draft came, in percentage points of the grade, or in points of the form. */
  readonly late: { readonly percent: number; readonly points: number };
}

/** One thing to grade of somebody. */
export interface GradingWorkView {
  /** `none`: there is nothing to grade, such as no draft. */
  readonly state: 'none' | 'open' | 'half' | 'done';
  /** Who graded it last. */
  readonly by: string | null;
  /** Whose it is, where it has been shared out. */
  readonly grader: { readonly id: string; readonly name: string } | null;
}

/** Somebody of the staff, who grades. */
export interface GraderView {
  /** Of the person. */
  readonly id: string;
  readonly name: string;
}

export interface GradeRow {
  readonly id: string;
  readonly person: PersonLabel;
  readonly section: string | null;
  /** With a version that counts. */
  readonly draftId: string | null;
  readonly reviewIds: readonly string[];
  readonly grade: Grade;
  readonly grounds: GradeGroundsView;
  readonly work: Readonly<Record<GradingWork, GradingWorkView>>;
  /** Of the reviewing: by item; where it is marked review by review, by `review.item`. */
  readonly mark: {
    readonly answers: Readonly<Record<string, AnswerView>>;
    readonly by: string | null;
  };
  /** This one sees the own grade. */
  readonly released: boolean;
  /** What was told of is no longer what is given. */
  readonly correction: string | null;
}

export interface GradesView {
  readonly parts: readonly GradePart[];
  readonly rule: GradeRule;
  /** Of the plan, which holds parts and rule. */
  readonly revision: number;
  readonly reviewingForm: readonly FormItem[];
  /** By which drafts are marked from now on; null for the form of the exchange. */
  readonly draftForm: readonly FormItem[] | null;
  /** Reviewing is marked review by review, not once a person. */
  readonly reviewingEach: boolean;
  /** All staff of the course, by name. */
  readonly graders: readonly GraderView[];
  readonly rows: readonly GradeRow[];
  readonly release: IsoInstant | null;
  /** Why severity is not taken out as it should be, and what was done; null where it is, or is not asked for. */
  readonly problem: string | null;
  /** Something is still being worked out: these are not the last numbers. */
  readonly provisional: boolean;
  /** May set the rule, and release. */
  readonly mayRule: boolean;
}

/** Whose grade moves by how much with other weights or rules. */
export interface GradeMoveView {
  readonly id: string;
  readonly person: PersonLabel;
  readonly before: string | null;
  readonly after: string | null;
  /** In percentage points; null where there is no grade on one side. */
  readonly by: number | null;
}

/** A student's own. */
export interface OwnGradeView {
  readonly rule: GradeRule;
  readonly grade: Grade;
  readonly grounds: GradeGroundsView;
}

/** Who else is grading the same person at the moment, by name. */
export interface GradingCompanyView {
  readonly others: readonly string[];
}

export type GradeTarget = GradePartName | '';
