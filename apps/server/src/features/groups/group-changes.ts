import { Injectable } from '@nestjs/common';
import { In, type EntityManager } from 'typeorm';
import { Access, assertCan } from '../../permissions/access.js';
import { enrolledOf, type CoursePerson } from '../../queries/course-people.js';
import type { CurrentUser } from '../../auth/view-as.js';
import { Draft } from '../../model/draft.js';
import { Exchange } from '../../model/exchange.js';
import { GroupSet, StudentGroup } from '../../model/group.js';
import { Database } from '../../platform/database/database.js';
import { ProblemError } from '../../platform/problems/problem-error.js';
import { refusal } from '../../platform/problems/sentences.js';
import { say } from '../../words/groups.js';

/** What every change to the groups of a course begins with: may this person, and is there such a set or group? */
@Injectable()
export class GroupChanges {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
  ) {}

  /** For what must be known before work that takes long; the change itself asks again. */
  async assertMay(person: CurrentUser, courseId: string): Promise<void> {
    assertCan(await this.access.course(person, courseId), { kind: 'manage-course' });
  }

  in<T>(person: CurrentUser, courseId: string, work: (manager: EntityManager) => Promise<T>): Promise<T> {
    return this.database.write(async (manager, emit) => {
      assertCan(await this.access.course(person, courseId, manager), { kind: 'manage-course' });
      const result = await work(manager);
      emit({ action: 'groups-changed', actorId: person.id, courseId });
      return result;
    });
  }

  async set(manager: EntityManager, courseId: string, setId: string): Promise<GroupSet> {
    const set = await manager.findOneBy(GroupSet, { id: setId, courseId });
    if (set === null) throw refusal('unknown');
    return set;
  }

  async group(manager: EntityManager, courseId: string, setId: string, groupId: string): Promise<StudentGroup> {
    await this.set(manager, courseId, setId);
    const group = await manager.findOneBy(StudentGroup, { id: groupId, setId });
    if (group === null) throw refusal('unknown');
    return group;
  }
}

/** Who can be in a group: students who have not left, by name. */
export async function activeStudents(manager: EntityManager, courseId: string): Promise<CoursePerson[]> {
  return (await enrolledOf(manager, courseId)).filter(({ active, role }) => active && role === 'student');
}

/** A draft without its group would have no authors any more: its feedback and its place in the archive would be lost. */
export async function assertNoDrafts(manager: EntityManager, groupIds: readonly string[]): Promise<void> {
  const draft = groupIds.length === 0 ? null : await manager.findOneBy(Draft, { groupId: In([...groupIds]) });
  if (draft === null) return;
  const { title } = await manager.findOneByOrFail(Exchange, { id: draft.exchangeId });
  throw new ProblemError({
    code: 'plan-fixed',
    sentence: say('thereAreDraftsOfThese', { title }),
    whatToDo: say('makeAnotherSetForNext'),
  });
}
