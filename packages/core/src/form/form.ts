/** One named level of a criterion. Without points, all levels of the form's criterion are without points. */
export interface Level {
  readonly id: string;
  readonly title: string;
  readonly description: string;
  /** 0 or more, or null where the criterion carries no points. */
  readonly points: number | null;
}

export interface CriterionItem {
  readonly kind: 'criterion';
  readonly id: string;
  readonly title: string;
  readonly guidance: string;
  readonly required: boolean;
  readonly levels: readonly Level[];
  /** Whether a written reason is asked for beside the level. */
  readonly comment: 'none' | 'optional' | 'required';
}

export interface PromptItem {
  readonly kind: 'prompt';
  readonly id: string;
  readonly title: string;
  readonly guidance: string;
  readonly required: boolean;
  /** 0 for no minimum. Counted as in `countWords`. */
  readonly minimumWords: number;
}

export type FormItem = CriterionItem | PromptItem;

export interface ReviewForm {
  readonly items: readonly FormItem[];
}

/** What a reviewer entered for one item; absent parts are unanswered. */
export interface Answer {
  readonly levelId?: string | null;
  readonly text?: string;
}

/** By item id. */
export type Answers = Readonly<Record<string, Answer | undefined>>;
