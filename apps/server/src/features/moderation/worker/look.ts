import {
  flagsOf,
  findIdentities,
  type Flag,
  type FlaggingRules,
  type Identity,
  type ReviewEvidence,
} from '@salt-circle/core';

export interface LookedAt extends Omit<ReviewEvidence, 'names'> {
  /** Whose names are not to stand in it. */
  readonly people: readonly Identity[];
}

export interface LookTask {
  readonly reviews: readonly LookedAt[];
  readonly bounds: FlaggingRules;
}

/** What the thread does: the flags of each review. */
export function look({ reviews, bounds }: LookTask): Array<readonly [string, readonly Flag[]]> {
  const evidence = reviews.map(({ people, ...review }) => ({
    ...review,
    names: bounds.names ? namesIn(review.text, people) : [],
  }));
  return [...flagsOf(evidence, bounds)];
}

function namesIn(text: string, people: readonly Identity[]): string[] {
  if (people.length === 0) return [];
  const sure = findIdentities(text, people, { as: 'prose' }).filter(({ certainty }) => certainty === 'sure');
  return [...new Set(sure.map(({ exact }) => exact))];
}
