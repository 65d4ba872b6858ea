import type { ProgressRow } from '@salt-circle/contracts';
import { say } from '../../words/tracking.js';

/** Rows of students that an instructor looks for. */
export type Filter =
  'all' | 'not-handed-in' | 'late' | 'not-practised' | 'not-begun' | 'unfinished' | 'thin' | 'none-received' | 'asks';

/** Of a submitted review with fewer words than this, notes included, somebody should take a look. */
export const THIN_WORDS = 60;

function submitted(row: ProgressRow): number {
  return row.reviews.filter(({ state }) => state === 'submitted').length;
}

export const FILTERS: Readonly<
  Record<Exclude<Filter, 'all'>, { readonly words: () => string; readonly holds: (row: ProgressRow) => boolean }>
> = {
  'not-handed-in': {
    words: () => say('notHandedInLabel'),
    holds: ({ draft, excused }) => draft.state !== 'handed-in' && !excused,
  },
  late: {
    words: () => say('late'),
    holds: ({ draft }) => draft.late !== null,
  },
  'not-practised': {
    words: () => say('notPractised'),
    holds: ({ practised }) => practised !== null && practised.done < practised.of,
  },
  'not-begun': {
    words: () => say('noReviewBegun'),
    holds: (row) => row.reviews.length > 0 && row.reviews.every(({ state }) => state === 'not-begun'),
  },
  unfinished: {
    words: () => say('unfinished'),
    holds: (row) => submitted(row) < row.reviews.length,
  },
  thin: {
    words: () => say('thin'),
    holds: (row) => row.reviews.some(({ state, words }) => state === 'submitted' && words < THIN_WORDS),
  },
  'none-received': {
    words: () => say('noReviewReceived'),
    holds: ({ draft, received }) => draft.state === 'handed-in' && received === 0,
  },
  asks: {
    words: () => say('asksYou'),
    holds: ({ asks }) => asks > 0,
  },
};

/** Offered also where nobody is concerned: that is worth knowing. */
export const ALWAYS: ReadonlySet<Filter> = new Set<Filter>(['not-practised', 'not-begun', 'unfinished', 'thin']);
