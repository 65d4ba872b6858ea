import { MisuseError } from '../problem.js';

/** What there is to grade of somebody: the draft, and the reviewing. */
export const GRADING_WORKS = ['draft', 'reviewing'] as const;
export type GradingWork = (typeof GRADING_WORKS)[number];

export interface ToGrade {
  readonly id: string;
  /** People of one section go to one grader as far as that comes out even; null for none. */
  readonly section: string | null;
}

/**
 * Shares people out among graders.
 *
 * @param people in the order in which they are handed out
 * @param graders at least one, each once
 * @param how `evenly`: in turn, so that no grader has two more than another; `sections`: each section as a whole to whoever has least so
 *   far, the largest first, so that graders see classmates beside each other
 * @returns the grader by person
 * @throws MisuseError `no-graders`
 */
export function shareOut(
  people: readonly ToGrade[],
  graders: readonly string[],
  how: 'evenly' | 'sections',
): ReadonlyMap<string, string> {
  if (graders.length === 0) throw new MisuseError('no-graders', 'there is nobody to share out to', {});
  if (how === 'evenly') {
    return new Map(people.map(({ id }, index) => [id, graders[index % graders.length] as string]));
  }
  const bySection = new Map<string | null, string[]>();
  for (const { id, section } of people) bySection.set(section, [...(bySection.get(section) ?? []), id]);
  const has = new Map(graders.map((grader) => [grader, 0]));
  const shared = new Map<string, string>();
  // Ties by the order given: sorting is stable.
  for (const ids of [...bySection.values()].sort((a, b) => b.length - a.length)) {
    const [grader] = [...has].reduce((least, one) => (one[1] < least[1] ? one : least));
    has.set(grader, (has.get(grader) as number) + ids.length);
    for (const id of ids) shared.set(id, grader);
  }
  return shared;
}
