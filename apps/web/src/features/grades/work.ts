import type { GradeRow, GradesView, GradingWorkView, QueueView } from '@salt-circle/contracts';
import { flagRank, GRADING_WORKS, type GradingWork, wordsBy } from '@salt-circle/core';
import { say } from '../../words/grades.js';

/** How far somebody is graded: all that is asked for, some of it, or nothing yet; `nothing` where there is nothing to grade. */
export type Graded = 'graded' | 'half' | 'open' | 'nothing';

/** What staff mark themselves, as the grade has it; both where it has neither, since marking goes before weighing. */
export function asked({ parts, rule }: Pick<GradesView, 'parts' | 'rule'>): readonly GradingWork[] {
  const has = (part: string) => parts.some((one) => one.part === part);
  const works = GRADING_WORKS.filter((work) =>
    work === 'draft' ? has('instructor-mark') : has('review-quality') && rule.quality.mark > 0,
  );
  return works.length === 0 ? GRADING_WORKS : works;
}

export function gradedOf(row: Pick<GradeRow, 'work'>, works: readonly GradingWork[]): Graded {
  const states = works.map((work) => row.work[work].state).filter((state) => state !== 'none');
  if (states.length === 0) return 'nothing';
  if (states.every((state) => state === 'done')) return 'graded';
  return states.some((state) => state !== 'open') ? 'half' : 'open';
}

/** How many are how far. */
export function progressWords(rows: ReadonlyArray<Pick<GradeRow, 'work'>>, works: readonly GradingWork[]): string {
  const counts = (state: Graded) => rows.filter((one) => gradedOf(one, works) === state).length;
  const [graded, half, open] = [counts('graded'), counts('half'), counts('open')];
  return say('gradedHalfGradedToGrade', { graded, half, open });
}

/** Whether something of it has been given to this person to grade. */
export function isOf(row: Pick<GradeRow, 'work'>, works: readonly GradingWork[], personId: string): boolean {
  return works.some((work) => row.work[work].grader?.id === personId);
}

/** "to grade", "graded by Ines Marchetti". */
export function workWords({ state, by, grader }: GradingWorkView): string {
  switch (state) {
    case 'none':
      return say('nothingToGrade');
    case 'open':
      return grader === null ? say('toGrade') : say('toGradeFor', { name: grader.name });
    case 'half':
      if (grader === null) return by === null ? say('begun') : say('begunBy', { by });
      return by === null ? say('begunFor', { name: grader.name }) : say('begunByFor', { by, name: grader.name });
    case 'done':
      return by === null ? say('graded') : say('gradedBy', { by });
  }
}

export const ORDERS = wordsBy(say, { name: 'byName', flag: 'flaggedReviewsFirst', open: 'openFirst' });
export type Order = keyof typeof ORDERS;

/**
 * @param rows by name
 * @param queue of the reviews; undefined while it is not there, which leaves them by name
 */
export function ordered(
  rows: readonly GradeRow[],
  order: Order,
  works: readonly GradingWork[],
  queue: QueueView | undefined,
): readonly GradeRow[] {
  if (order === 'name') return rows;
  if (order === 'open') {
    const place: Readonly<Record<Graded, number>> = { open: 0, half: 1, graded: 2, nothing: 3 };
    return rows.toSorted((a, b) => place[gradedOf(a, works)] - place[gradedOf(b, works)]);
  }
  const rank = new Map(
    queue?.rows.map(({ reviewId, flags }) => [
      reviewId,
      flagRank(flags.filter(({ dismissed }) => !dismissed).map(({ flag }) => flag)),
    ]),
  );
  // By the worst of somebody’s reviews: one that may harm somebody is not made good by others.
  const worst = ({ reviewIds }: GradeRow) => Math.max(0, ...reviewIds.map((id) => rank.get(id) ?? 0));
  return rows.toSorted((a, b) => worst(b) - worst(a));
}
