import type { AllocationView } from '@salt-circle/contracts';

export const NAMES = ['Ann', 'Ben', 'Cho', 'Dee'];
export const ids = NAMES.map((name) => name.toLowerCase());

/** Four people with a draft each, two reviews asked of everybody, and nothing allocated. */
export function view(part: Partial<AllocationView> = {}): AllocationView {
  return {
    revision: 0,
    asOf: 1,
    applied: true,
    begun: false,
    handedIn: 4,
    students: 4,
    reviewers: NAMES.map((name, at) => ({
      id: ids[at] as string,
      label: { name },
      capacity: 2,
      group: null,
      extra: false,
      strength: null,
      leftOut: null,
      practised: null,
    })),
    drafts: NAMES.map((name, at) => ({
      id: `d-${ids[at]}`,
      author: { name },
      title: '',
      authorIds: [ids[at] as string],
      group: null,
      closed: false,
    })),
    pairs: [],
    forbidden: [],
    earlier: [],
    wishes: { whom: 'anyone', reviewsEach: 2, avoid: 'all', mix: false, maxPerDraft: null },
    earlierExchanges: [],
    hasGroups: false,
    schedule: { kind: 'command', at: null, party: 3, patience: 3, next: null, last: null },
    staff: [],
    suggestion: null,
    undo: null,
    alone: [],
    kept: null,
    ...part,
  };
}
