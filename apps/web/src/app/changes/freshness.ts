import type { ChangeNews } from '@salt-circle/contracts';
import type { Topic } from '@salt-circle/core';

/** By which mutations name what they change; news of others’ changes name topics. */
export const OWN_TAGS = [
  'Session',
  'Courses',
  'Exchange',
  'Plan',
  'Form',
  'Draft',
  'Allocation',
  'Review',
  'OwnRemarks',
  'Progress',
  'Feedback',
  'Today',
  'People',
  'Groups',
  'Library',
  'Outbox',
  'Calendar',
  'Reading',
  'Account',
  'Uploads',
  'Practice',
  'Queue',
  'Looks',
  'Threads',
  'Decisions',
  'Inbox',
  'Grades',
  'Platform',
  'Platforms',
] as const;
type OwnTag = (typeof OWN_TAGS)[number];

export interface TopicTag {
  readonly type: Topic;
  /** Of an exchange or a course; without one, of all. */
  readonly id?: string;
}

const ANYWHERE = 'anywhere';

type Provides = (result: unknown, error: unknown, argument: unknown) => ReadonlyArray<OwnTag | TopicTag>;

/**
 * Tags of a query about one exchange or course, which its argument names: its own, by which mutations name it, and the topics whose news
 * change its answer. News of other exchanges leave it alone.
 */
export function changedHere(own: readonly OwnTag[], ...topics: readonly Topic[]): Provides {
  return (_, __, argument) => [...own, ...topics.map((type) => ({ type, id: idIn(argument) }))];
}

/** The same for a query that is about many exchanges, or whose argument names a review: news of any exchange count. */
export function changedAnywhere(own: readonly OwnTag[], ...topics: readonly Topic[]): Provides {
  return () => [...own, ...topics.map((type) => ({ type, id: ANYWHERE }))];
}

function idIn(argument: unknown): string {
  if (typeof argument === 'string') return argument;
  const { exchangeId, courseId } = (argument ?? {}) as { exchangeId?: string; courseId?: string };
  return exchangeId ?? courseId ?? ANYWHERE;
}

/** What is asked for again after news. What concerns a whole course can change each of its exchanges. */
export function tagsOf({ topics, courseId, exchangeId }: ChangeNews): TopicTag[] {
  if (exchangeId === null) return topics.map((type) => ({ type }));
  const ids = [exchangeId, courseId, ANYWHERE].filter((id) => id !== null);
  return topics.flatMap((type) => ids.map((id) => ({ type, id })));
}
