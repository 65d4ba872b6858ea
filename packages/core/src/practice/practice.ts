/** Practice before the real reviews: whether it is asked for, how often it may be tried, and what is near enough to the key. */
export interface PracticeRule {
  readonly when: 'off' | 'offered' | 'first';
  /** Tries for each practice draft, 1 or more; null for as many as one likes. */
  readonly tries: number | null;
  /** Share of the items that must be near to the key, 0..1; null where submitting is enough. */
  readonly closeEnough: number | null;
}

export const NO_PRACTICE: PracticeRule = { when: 'off', tries: null, closeEnough: null };

/** Practice drafts of one exchange, and tries of each, at most. */
export const MAX_PRACTICE_DRAFTS = 3;
export const MAX_PRACTICE_TRIES = 10;

/** What one person has done on one practice draft. */
export interface PracticeTries {
  /** Closeness of each submitted try, in their order: share of items near to the key, or null where none can be compared. */
  readonly shares: ReadonlyArray<number | null>;
  /** Something is written and not submitted. */
  readonly begun: boolean;
}

/** `done`: near enough; `used-up`: submitted as often as one may, and not near enough, which holds up nobody. */
export type PracticeState = 'not-begun' | 'in-progress' | 'again' | 'done' | 'used-up';

/** Where somebody stands with one practice draft. */
export function practiceState({ tries, closeEnough }: PracticeRule, { shares, begun }: PracticeTries): PracticeState {
  const near = (share: number | null) => closeEnough === null || share === null || share >= closeEnough;
  if (shares.some(near)) return 'done';
  if (shares.length > 0 && shares.length >= (tries ?? Infinity)) return 'used-up';
  if (begun) return 'in-progress';
  return shares.length === 0 ? 'not-begun' : 'again';
}

/** Whether one more try may be begun: after one that was submitted, while there are tries left. */
export function mayTryAgain({ when, tries }: PracticeRule, { shares, begun }: PracticeTries): boolean {
  return when !== 'off' && !begun && shares.length > 0 && shares.length < (tries ?? Infinity);
}

/** Whether all of the practice drafts are behind somebody. True where there are none. */
export function hasPractised(states: readonly PracticeState[]): boolean {
  return states.every((state) => state === 'done' || state === 'used-up');
}
