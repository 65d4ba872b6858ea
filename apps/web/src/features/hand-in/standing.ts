import type { ExchangeView, MyDraftView, VersionMeta } from '@salt-circle/contracts';

export type Purpose = VersionMeta['purpose'];

/** What is handed in now: the draft as long as it can be, then the revision. */
export function purposeOf({ mayHandIn, mayRevise }: Pick<ExchangeView, 'mayHandIn' | 'mayRevise'>): Purpose {
  return mayRevise && !mayHandIn ? 'revision' : 'draft';
}

/** The version that counts: for reviewing, or as the revision. */
export function countingOf({ versions }: Pick<MyDraftView, 'versions'>, of: Purpose): VersionMeta | undefined {
  return versions.findLast(({ withdrawn, purpose }) => !withdrawn && purpose === of);
}

export interface Standing {
  readonly mark: 'not-begun' | 'in-progress' | 'done' | 'late';
  readonly words: string;
  readonly explained: string;
  readonly loud: boolean;
}

/** Whether it counts: the one thing that must never be in doubt. */
export function standing(
  draft: Pick<MyDraftView, 'id' | 'versions'>,
  changed: boolean,
  open: boolean,
  purpose: Purpose = 'draft',
): Standing {
  const version = countingOf(draft, purpose)?.number;
  if (purpose === 'revision') return revising(version, changed);
  if (version === undefined) {
    return open
      ? {
          mark: draft.id !== null || changed ? 'in-progress' : 'not-begun',
          words: 'Not handed in yet',
          explained: 'It is kept as you type, but it counts only once you hand it in.',
          loud: true,
        }
      : {
          mark: 'late',
          words: 'Not handed in',
          explained:
            'The due time has passed. Your text is kept and can be read; ask your instructor whether it can still be taken in.',
          loud: true,
        };
  }
  if (changed) {
    return {
      mark: 'in-progress',
      words: `Version ${version} is handed in; what you see has changed since`,
      explained: open
        ? 'The earlier version counts until you hand in again.'
        : 'Your changes came after the due time: they are kept, but version ' + version + ' counts.',
      loud: open,
    };
  }
  return {
    mark: 'done',
    words: `Handed in, version ${version}`,
    explained: open ? 'You can change it and hand in again until drafts are due.' : 'This is what reviewers read.',
    loud: false,
  };
}

function revising(version: number | undefined, changed: boolean): Standing {
  if (version === undefined) {
    return {
      mark: 'in-progress',
      words: 'Revision not handed in yet',
      explained: 'It is kept as you type, but it counts only once you hand it in. The draft that was reviewed stays.',
      loud: true,
    };
  }
  if (changed) {
    return {
      mark: 'in-progress',
      words: `Your revision, version ${version}, is handed in; what you see has changed since`,
      explained: 'The earlier one counts until you hand in again.',
      loud: true,
    };
  }
  return {
    mark: 'done',
    words: `Revision handed in, version ${version}`,
    explained: 'You can change it and hand in again until the revision is due.',
    loud: false,
  };
}
