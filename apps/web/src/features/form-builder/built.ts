import type { ReviewForm } from '@salt-circle/core';

/** A form with the title it has in a library; in an exchange the title is empty. */
export interface Built extends ReviewForm {
  readonly title: string;
}
