import { Injectable } from '@nestjs/common';
import type { GroupMember, GroupSetView, GroupsView } from '@salt-circle/contracts';
import { needsGroups } from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import { courseExchanges } from '../../queries/course-exchanges.js';
import { Access, assertCanSee } from '../../permissions/access.js';
import type { CoursePerson } from '../../queries/course-people.js';
import { runningExchanges } from '../../queries/running-exchanges.js';
import type { CurrentUser } from '../../auth/view-as.js';
import { setupOf } from '../../queries/exchange-setup.js';
import { Exchange } from '../../model/exchange.js';
import { GroupMemberRow, GroupSet, StudentGroup } from '../../model/group.js';
import { Clock } from '../../platform/clock/clock.js';
import { Database } from '../../platform/database/database.js';
import { Ids } from '../../platform/ids/ids.js';
import { ProblemError } from '../../platform/problems/problem-error.js';
import { invalid } from '../../platform/problems/sentences.js';
import { activeStudents, assertNoDrafts, GroupChanges } from './group-changes.js';
import { say } from '../../words/groups.js';

/** The sets of groups of a course: each divides the students in its own way. */
@Injectable()
export class GroupSetsService {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly changes: GroupChanges,
    private readonly clock: Clock,
    private readonly ids: Ids,
  ) {}

  async list(person: CurrentUser, courseId: string): Promise<GroupsView> {
    assertCanSee(await this.access.course(person, courseId), { kind: 'people' });
    const manager = this.database.read;
    const students = await activeStudents(manager, courseId);
    const sets = await manager.find(GroupSet, { where: { courseId }, order: { createdAt: 'ASC', id: 'ASC' } });
    const running = (await runningExchanges(manager, courseId, this.clock.now())).filter((one) =>
      needsGroups(setupOf(one)),
    );
    const views: GroupSetView[] = [];
    for (const set of sets) views.push(await setView(manager, set, students, running));
    return {
      sets: views,
      students: students.length,
      hasSections: students.some(({ section }) => section !== null),
      hasTraits: students.some(({ trait }) => trait !== null),
    };
  }

  addSet(person: CurrentUser, courseId: string, title: string): Promise<{ id: string }> {
    return this.changes.in(person, courseId, async (manager) => {
      await assertSetTitleFree(manager, courseId, title, null);
      const id = this.ids.uuid();
      await manager.insert(GroupSet, { id, courseId, title: title.trim(), createdAt: this.clock.now() });
      return { id };
    });
  }

  renameSet(person: CurrentUser, courseId: string, setId: string, title: string): Promise<void> {
    return this.changes.in(person, courseId, async (manager) => {
      await this.changes.set(manager, courseId, setId);
      await assertSetTitleFree(manager, courseId, title, setId);
      await manager.update(GroupSet, { id: setId }, { title: title.trim() });
    });
  }

  removeSet(person: CurrentUser, courseId: string, setId: string): Promise<void> {
    return this.changes.in(person, courseId, async (manager) => {
      await this.changes.set(manager, courseId, setId);
      const users = (await courseExchanges(manager, courseId, { groupSetId: setId })).filter((one) =>
        needsGroups(setupOf(one)),
      );
      if (users.length > 0) {
        const titles = users.map(({ title }) => `“${title}”`).join(', ');
        throw new ProblemError({
          code: 'plan-fixed',
          sentence: say('goByTheseGroupsSo', { titles, users: users.length }),
          whatToDo: say('chooseOtherGroupsThereFirst'),
        });
      }
      const groups = await manager.findBy(StudentGroup, { setId });
      await assertNoDrafts(
        manager,
        groups.map(({ id }) => id),
      );
      await manager.delete(GroupSet, { id: setId });
    });
  }
}

async function setView(
  manager: EntityManager,
  set: GroupSet,
  students: readonly CoursePerson[],
  running: readonly Exchange[],
): Promise<GroupSetView> {
  const groups = await manager.find(StudentGroup, { where: { setId: set.id }, order: { position: 'ASC' } });
  const rows = await manager.findBy(GroupMemberRow, { setId: set.id });
  const groupOf = new Map(rows.map(({ enrolmentId, groupId }) => [enrolmentId, groupId]));
  const members = (groupId: string | undefined) =>
    students
      .filter(({ id }) => groupOf.get(id) === groupId)
      .map(({ id, name, section, trait }): GroupMember => {
        return { id, name, section, trait };
      });
  return {
    id: set.id,
    title: set.title,
    groups: groups.map(({ id, title }) => ({ id, title, members: members(id) })),
    ungrouped: members(undefined),
    usedBy: running.filter(({ groupSetId }) => groupSetId === set.id).map(({ title }) => title),
  };
}

async function assertSetTitleFree(
  manager: EntityManager,
  courseId: string,
  title: string,
  except: string | null,
): Promise<void> {
  const same = await manager.findOneBy(GroupSet, { courseId, title: title.trim() });
  if (same === null || same.id === except) return;
  const sentence = say('thereIsGroupSetCalled', { title: same.title });
  throw invalid([{ path: 'title', code: 'title-taken', sentence }]);
}
