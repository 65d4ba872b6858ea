import type { Topic } from '@salt-circle/core';

/** That something changed: what to ask for again. Without topics it is a sign of life. */
export interface ChangeNews {
  readonly topics: readonly Topic[];
  readonly courseId: string | null;
  /** Null for what concerns a whole course. */
  readonly exchangeId: string | null;
}
