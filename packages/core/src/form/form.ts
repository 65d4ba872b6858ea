/** One named level of a criterion. Without points, all levels of the form's criterion are without points. */
export interface Level {
  readonly id: string;
  readonly title: string;
  readonly description: string;
  /** 0 or more, or null where the criterion carries no points. */
  readonly points: number | null;
}

/** Whether a written reason is asked for beside a choice. */
export type CommentRule = 'none' | 'optional' | 'required';

interface ItemBase {
  readonly id: string;
  readonly title: string;
  readonly guidance: string;
  readonly required: boolean;
  /**
   * Share of the score, 0 or more, in a form that goes by weights (see {@link ReviewForm.weighting});
   * ignored in one that goes by points, and for items without points.
   */
  readonly weight: number;
}

/** Named levels, with or without points. */
export interface CriterionItem extends ItemBase {
  readonly kind: 'criterion';
  readonly levels: readonly Level[];
  readonly comment: CommentRule;
}

/** A stretch of a range with its description, `from` and `to` included, in points. */
export interface Band {
  readonly id: string;
  readonly title: string;
  readonly description: string;
  readonly from: number;
  readonly to: number;
}

/** Points within described bands, partial credit included. */
export interface RangeItem extends ItemBase {
  readonly kind: 'range';
  /** Lowest first; between them they say what the points from the first `from` to the last `to` mean. */
  readonly bands: readonly Band[];
  /** The smallest difference in points: 1, 0.5 or 0.1. */
  readonly step: number;
  readonly comment: CommentRule;
}

export interface ChecklistEntry {
  readonly id: string;
  readonly text: string;
  /** Points for “yes”, or null where the checklist carries none. */
  readonly points: number | null;
}

/** Things that are there or not; each is answered with yes or no, so that “no” differs from “not looked at”. */
export interface ChecklistItem extends ItemBase {
  readonly kind: 'checklist';
  readonly entries: readonly ChecklistEntry[];
  /** Entries can also be answered with “cannot tell”, which is an answer and gives no points. Forms of before leave it out. */
  readonly cannotTell?: boolean;
  readonly comment: CommentRule;
}

/** Free text. */
export interface PromptItem extends ItemBase {
  readonly kind: 'prompt';
  /** 0 for no minimum. Counted as in `countWords`. */
  readonly minimumWords: number;
}

/** What works, and the next step. */
export interface PairItem extends ItemBase {
  readonly kind: 'pair';
  /** What the two fields ask; empty for the usual words. */
  readonly worksLabel: string;
  readonly nextLabel: string;
  /** For each of the two fields. */
  readonly minimumWords: number;
}

/** A count or measurement; carries no points. */
export interface NumberItem extends ItemBase {
  readonly kind: 'number';
  readonly minimum: number | null;
  readonly maximum: number | null;
  /** Whole numbers only. */
  readonly whole: boolean;
  /** What is counted, e.g. `sources`; may be empty. */
  readonly unit: string;
}

export interface ChoiceOption {
  readonly id: string;
  readonly title: string;
}

/** One of several, or any of several; carries no points. */
export interface ChoiceItem extends ItemBase {
  readonly kind: 'choice';
  readonly options: readonly ChoiceOption[];
  readonly multiple: boolean;
  readonly comment: CommentRule;
}

export type FormItem = CriterionItem | RangeItem | ChecklistItem | PromptItem | PairItem | NumberItem | ChoiceItem;
export type ItemKind = FormItem['kind'];

export const ITEM_KINDS = ['criterion', 'range', 'checklist', 'prompt', 'pair', 'number', 'choice'] as const;

export interface ReviewForm {
  readonly items: readonly FormItem[];
  /** `points`: the score is the sum of points. `weights`: each scored item counts by its weight, in percent. */
  readonly weighting: 'points' | 'weights';
  /** The comment on the draft as a whole, answered under {@link OVERALL_ID}. */
  readonly overall: CommentRule;
  /** For the overall comment, once something is written in it; 0 for no minimum. */
  readonly overallWords: number;
  /** Notes on the draft without which a review is not complete, and how many are hoped for; 0 for none. */
  readonly minimumNotes: number;
  readonly targetNotes: number;
}

/** What an overall comment is stored under; no item may have this id. */
export const OVERALL_ID = 'overall';

export const EMPTY_FORM: ReviewForm = {
  items: [],
  weighting: 'points',
  overall: 'optional',
  overallWords: 0,
  minimumNotes: 0,
  targetNotes: 0,
};

export type Check = 'yes' | 'no' | 'cannot-tell';

/** What an entry of the checklist can be answered with. */
export function checksOf({ cannotTell = false }: Pick<ChecklistItem, 'cannotTell'>): readonly Check[] {
  return cannotTell ? ['yes', 'no', 'cannot-tell'] : ['yes', 'no'];
}

/** What a reviewer entered for one item; absent parts are unanswered. Each kind reads its own parts. */
export interface Answer {
  /** Criterion. */
  readonly levelId?: string | null;
  /** Prompt; “what works” of a pair; the comment of the other kinds. */
  readonly text?: string;
  /** “Next step” of a pair. */
  readonly next?: string;
  /** Range (points) and number. */
  readonly value?: number | null;
  /** Checklist, by entry id. */
  readonly checks?: Readonly<Record<string, Check>>;
  /** Choice, ids of options. */
  readonly choices?: readonly string[];
}

/** By item id; the overall comment under {@link OVERALL_ID}. */
export type Answers = Readonly<Record<string, Answer | undefined>>;
