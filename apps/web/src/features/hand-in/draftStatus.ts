import type { ExchangeView, MyDraftView, VersionMeta } from '@salt-circle/contracts';
import { say } from '../../words/hand-in.js';

export type Purpose = VersionMeta['purpose'];

/** What is handed in now: the draft as long as it can be, then the revision. */
export function purposeOf({ mayHandIn, mayRevise }: Pick<ExchangeView, 'mayHandIn' | 'mayRevise'>): Purpose {
  return mayRevise && !mayHandIn ? 'revision' : 'draft';
}

/** The version that counts: for reviewing, or as the revision. */
export function countingOf({ versions }: Pick<MyDraftView, 'versions'>, of: Purpose): VersionMeta | undefined {
  return versions.findLast(({ withdrawn, purpose }) => !withdrawn && purpose === of);
}

export interface DraftStatus {
  readonly mark: 'not-begun' | 'in-progress' | 'done' | 'late';
  readonly words: string;
  readonly explained: string;
  readonly loud: boolean;
}

/** Whether it counts: the one thing that must never be in doubt. */
export function draftStatus(
  draft: Pick<MyDraftView, 'id' | 'versions'>,
  changed: boolean,
  open: boolean,
  purpose: Purpose = 'draft',
): DraftStatus {
  const version = countingOf(draft, purpose)?.number;
  if (purpose === 'revision') return revising(version, changed);
  if (version === undefined) {
    return open
      ? {
          mark: draft.id !== null || changed ? 'in-progress' : 'not-begun',
          words: say('notHandedInYet'),
          explained: say('itIsKeptAsYou'),
          loud: true,
        }
      : {
          mark: 'late',
          words: say('notHandedIn'),
          explained: say('dueTimeHasPassedYour'),
          loud: true,
        };
  }
  if (changed) {
    return {
      mark: 'in-progress',
      words: say('versionIsHandedInWhat', { version }),
      explained: open ? say('earlierVersionCountsUntilYou') : say('yourChangesCameAfterDue', { version }),
      loud: open,
    };
  }
  return {
    mark: 'done',
    words: say('handedInVersion', { version }),
    explained: open ? say('youCanChangeItAnd') : say('thisIsWhatReviewersRead'),
    loud: false,
  };
}

function revising(version: number | undefined, changed: boolean): DraftStatus {
  if (version === undefined) {
    return {
      mark: 'in-progress',
      words: say('revisionNotHandedInYet'),
      explained: say('itIsKeptAsYouType'),
      loud: true,
    };
  }
  if (changed) {
    return {
      mark: 'in-progress',
      words: say('yourRevisionVersionIsHanded', { version }),
      explained: say('earlierOneCountsUntilYou'),
      loud: true,
    };
  }
  return {
    mark: 'done',
    words: say('revisionHandedInVersion', { version }),
    explained: say('youCanChangeItAndHand'),
    loud: false,
  };
}
