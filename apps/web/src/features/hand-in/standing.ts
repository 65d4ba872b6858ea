import type { MyDraftView } from '@salt-circle/contracts';

export interface Standing {
  readonly mark: 'not-begun' | 'in-progress' | 'done' | 'late';
  readonly words: string;
  readonly explained: string;
  readonly loud: boolean;
}

/** Whether it counts: the one thing that must never be in doubt. */
export function standing(draft: Pick<MyDraftView, 'id' | 'versions'>, changed: boolean, open: boolean): Standing {
  const version = draft.versions.findLast(({ withdrawn }) => !withdrawn)?.number;
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
