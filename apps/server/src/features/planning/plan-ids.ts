import type { FieldProblem } from '@salt-circle/contracts';
import { In, type EntityManager } from 'typeorm';
import { Enrolment } from '../../model/course.js';
import type { Exchange } from '../../model/exchange.js';
import { GroupSet, StudentGroup } from '../../model/group.js';
import { LibraryItem } from '../../model/library.js';
import type { PlanRow } from '../../queries/plan-settings.js';
import { invalid } from '../../platform/problems/sentences.js';
import { say } from '../../words/planning.js';

/**
 * Groups, labels and students that a plan newly names are those of its course. What it named before may be gone by now: that is
 * told of elsewhere, and keeps nobody from saving.
 *
 * @throws ProblemError `invalid` with the fields
 */
export async function assertOfCourse(
  manager: EntityManager,
  courseId: string,
  present: Pick<Exchange, 'groupSetId' | 'shorthandId' | 'takesPart'>,
  next: PlanRow,
): Promise<void> {
  const problems: FieldProblem[] = [];
  const refuse = (path: string, sentence: string) => problems.push({ path, code: 'not-of-course', sentence });
  const fresh = (ids: readonly string[], known: readonly string[]) =>
    [...new Set(ids)].filter((id) => !known.includes(id));
  for (const id of fresh(one(next.groupSetId), one(present.groupSetId))) {
    if (!(await manager.existsBy(GroupSet, { id, courseId }))) refuse('groupSetId', say('areNoSuchGroups'));
  }
  for (const id of fresh(one(next.shorthandId), one(present.shorthandId))) {
    if (!(await manager.existsBy(LibraryItem, { id, courseId, kind: 'shorthand' }))) {
      refuse('shorthandId', say('isNoSuchSetOf'));
    }
  }
  const students = fresh(next.takesPart.studentIds, present.takesPart.studentIds);
  if ((await manager.countBy(Enrolment, { courseId, id: In(students) })) < students.length) {
    refuse('takesPart.studentIds', say('isSomebodyMissingOfThose'));
  }
  const groups = fresh(next.takesPart.groupIds, present.takesPart.groupIds);
  const found = await manager
    .createQueryBuilder(StudentGroup, 'one')
    .innerJoin(GroupSet, 'groupSet', 'groupSet.id = one.setId')
    .where('groupSet.courseId = :courseId AND one.id IN (:...groups)', { courseId, groups: [...groups, ''] })
    .getCount();
  if (found < groups.length) refuse('takesPart.groupIds', say('isNoSuchGroup'));
  if (problems.length > 0) throw invalid(problems);
}

function one(id: string | null): string[] {
  return id === null ? [] : [id];
}
