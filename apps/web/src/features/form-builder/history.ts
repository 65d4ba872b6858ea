/** Something with its earlier and later states. */
export interface History<T> {
  readonly past: readonly T[];
  readonly present: T;
  readonly future: readonly T[];
  /** What was changed last, and when: the same again within a moment is one step back, not two. */
  readonly last: { readonly label: string; readonly at: number } | null;
}

export type HistoryAction<T> =
  | { readonly type: 'change'; readonly make: (present: T) => T; readonly label: string; readonly at: number }
  | { readonly type: 'undo' | 'redo' }
  /** From elsewhere: there is no way back to what was before. */
  | { readonly type: 'replace'; readonly present: T };

/** States kept; a form is small, and nobody goes back further. */
const KEPT = 100;
/** Typing without a pause of this many milliseconds is one step. */
const ONE_STEP = 1000;

export function begin<T>(present: T): History<T> {
  return { past: [], present, future: [], last: null };
}

export function historyReducer<T>(history: History<T>, action: HistoryAction<T>): History<T> {
  const { past, present, future, last } = history;
  switch (action.type) {
    case 'change': {
      const next = action.make(present);
      if (next === present) return history;
      const { label, at } = action;
      const goesOn = last !== null && last.label === label && at - last.at < ONE_STEP;
      return {
        past: goesOn ? past : [...past.slice(1 - KEPT), present],
        present: next,
        future: [],
        last: { label, at },
      };
    }
    case 'undo': {
      const before = past.at(-1);
      if (before === undefined) return history;
      return { past: past.slice(0, -1), present: before, future: [present, ...future], last: null };
    }
    case 'redo': {
      const [after, ...rest] = future;
      if (after === undefined) return history;
      return { past: [...past, present], present: after, future: rest, last: null };
    }
    case 'replace':
      return begin(action.present);
  }
}
