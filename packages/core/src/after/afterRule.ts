/**
 * Whether authors say how each review helped them, and who reads that: staff alone; its reviewer as well, at once, or once replies and
 * revisions are over.
 */
export type RatingsRule = 'off' | 'staff' | 'at-once' | 'at-end';
export const RATINGS_RULES: readonly RatingsRule[] = ['off', 'staff', 'at-once', 'at-end'];

/** What authors think over once they have read their feedback. */
export interface ReflectionRule {
  /** Questions, in their order. */
  readonly prompts: readonly string[];
  /** Of all answers together; 0 for no minimum. */
  readonly minimumWords: number;
}

/** What comes after the release, beside the dates for it. */
export interface AfterRule {
  readonly ratings: RatingsRule;
  /** Null for none. */
  readonly reflection: ReflectionRule | null;
  /** After release, reviewers read the other reviews of the drafts that they reviewed. */
  readonly othersReviews: boolean;
  /** Reviewers see the revision of a draft that they reviewed, beside what they read. */
  readonly revisionShown: boolean;
}

export const USUAL_AFTER: AfterRule = {
  ratings: 'staff',
  reflection: null,
  othersReviews: false,
  revisionShown: false,
};

export const MAX_PROMPTS = 5;

/** How a review helped its author, from most to least. Steps of ours; three, so that each can be told from the next. */
export const HELPED = ['carried-on', 'some-use', 'no-use'] as const;
export type Helped = (typeof HELPED)[number];
