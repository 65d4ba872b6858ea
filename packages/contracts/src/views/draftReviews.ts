import type { ReviewForm } from '@salt-circle/core';
import type { PersonLabel } from './person.js';
import type { AnswerView } from './views.js';

/** All submitted reviews of one draft, for staff. */
export interface DraftReviewsView {
  readonly draftId: string;
  readonly draftTitle: string;
  readonly author: PersonLabel;
  readonly form: ReviewForm;
  readonly reviews: ReadonlyArray<{
    readonly id: string;
    readonly reviewer: PersonLabel;
    readonly self: boolean;
    readonly withheld: boolean;
    readonly answers: Readonly<Record<string, AnswerView>>;
    readonly notes: number;
  }>;
  /** Allocated reviews that are not submitted. */
  readonly waiting: number;
  /** The review of whoever asks, under the own name, as far as it is; null before it is begun. */
  readonly ownId: string | null;
  /** Whether it can be begun. */
  readonly mayReview: boolean;
}
