import type { QueueRow } from '@salt-circle/contracts';
import { say } from '../../words/moderation.js';

/** Which of the submitted reviews are shown. */
export const SHOWN = {
  open: {
    words: () => say('toLookAt'),
    // What somebody asks for waits for an answer, also where it was looked at before.
    holds: ({ flags, looked }: QueueRow) =>
      flags.some(({ flag, dismissed }) => flag.code === 'asked' || (looked === null && !dismissed)),
  },
  looked: {
    words: () => say('lookedAt'),
    holds: ({ looked }: QueueRow) => looked !== null,
  },
  withheld: {
    words: () => say('withheldLabel'),
    holds: ({ withheld }: QueueRow) => withheld !== 0,
  },
} as const;
export type Shown = keyof typeof SHOWN;
