import type { Student } from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import { Enrolment } from '../model/course.js';
import { GroupMemberRow, GroupSet } from '../model/group.js';

/** A student of the course, with the person behind the enrolment. */
export interface CourseStudent extends Student {
  readonly personId: string;
  readonly name: string;
  readonly trait: string | null;
}

/** The active students of a course with their groups, in the order of their enrolments' ids. Two queries. */
export async function studentsOf(manager: EntityManager, courseId: string): Promise<CourseStudent[]> {
  const enrolments = await manager.find(Enrolment, {
    where: { courseId, role: 'student', active: true },
    order: { id: 'ASC' },
  });
  const members = await manager
    .createQueryBuilder(GroupMemberRow, 'member')
    .innerJoin(GroupSet, 'groupSet', 'groupSet.id = member.setId')
    .where('groupSet.courseId = :courseId', { courseId })
    .getMany();
  const groups = new Map<string, Record<string, string>>();
  for (const { enrolmentId, setId, groupId } of members) {
    groups.set(enrolmentId, { ...groups.get(enrolmentId), [setId]: groupId });
  }
  return enrolments.map(({ id, personId, name, section, trait }) => ({
    id,
    personId,
    name,
    section,
    trait,
    groupIds: groups.get(id) ?? {},
  }));
}
