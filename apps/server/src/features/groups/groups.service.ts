import { Injectable } from '@nestjs/common';
import type { MoveMemberRequest } from '@salt-circle/contracts';
import type { EntityManager } from 'typeorm';
import type { CurrentUser } from '../../auth/view-as.js';
import { GroupMemberRow, StudentGroup } from '../../model/group.js';
import { Clock } from '../../platform/clock/clock.js';
import { Ids } from '../../platform/ids/ids.js';
import { ProblemError } from '../../platform/problems/problem-error.js';
import { invalid, refusal } from '../../platform/problems/sentences.js';
import { consequencesOfMove } from './consequences.js';
import { activeStudents, assertNoDrafts, GroupChanges } from './group-changes.js';
import { say } from '../../words/groups.js';

/** Single groups of a set, and who is in which. */
@Injectable()
export class GroupsService {
  constructor(
    private readonly changes: GroupChanges,
    private readonly clock: Clock,
    private readonly ids: Ids,
  ) {}

  addGroup(person: CurrentUser, courseId: string, setId: string, title: string): Promise<{ id: string }> {
    return this.changes.in(person, courseId, async (manager) => {
      await this.changes.set(manager, courseId, setId);
      await assertGroupTitleFree(manager, setId, title, null);
      const position = 1 + (await manager.countBy(StudentGroup, { setId }));
      const id = this.ids.uuid();
      await manager.insert(StudentGroup, { id, setId, title: title.trim(), position });
      return { id };
    });
  }

  renameGroup(person: CurrentUser, courseId: string, setId: string, groupId: string, title: string): Promise<void> {
    return this.changes.in(person, courseId, async (manager) => {
      await this.changes.group(manager, courseId, setId, groupId);
      await assertGroupTitleFree(manager, setId, title, groupId);
      await manager.update(StudentGroup, { id: groupId }, { title: title.trim() });
    });
  }

  /** Only an empty group can be removed: its members would fall out of whatever goes by it. */
  removeGroup(person: CurrentUser, courseId: string, setId: string, groupId: string): Promise<void> {
    return this.changes.in(person, courseId, async (manager) => {
      const group = await this.changes.group(manager, courseId, setId, groupId);
      const members = await manager.countBy(GroupMemberRow, { groupId });
      if (members > 0) {
        throw invalid([
          {
            path: 'groupId',
            code: 'group-not-empty',
            sentence: say('hasMembersMoveThemTo', { title: group.title, members }),
          },
        ]);
      }
      await assertNoDrafts(manager, [groupId]);
      await manager.delete(StudentGroup, { id: groupId });
    });
  }

  /** Moves somebody; while an exchange that goes by the groups runs, only after the consequences have been read. */
  moveMember(
    person: CurrentUser,
    courseId: string,
    setId: string,
    enrolmentId: string,
    { groupId, confirmed }: MoveMemberRequest,
  ): Promise<void> {
    return this.changes.in(person, courseId, async (manager) => {
      await this.changes.set(manager, courseId, setId);
      if (groupId !== null) await this.changes.group(manager, courseId, setId, groupId);
      const student = (await activeStudents(manager, courseId)).find(({ id }) => id === enrolmentId);
      if (student === undefined) throw refusal('unknown');
      const current = await manager.findOneBy(GroupMemberRow, { setId, enrolmentId });
      if ((current?.groupId ?? null) === groupId) return;
      const consequences = await consequencesOfMove(manager, courseId, setId, student, this.clock.now());
      if (consequences.length > 0 && !confirmed) {
        throw new ProblemError({
          code: 'needs-confirming',
          sentence: say('isPartOfExchangesUnder', { name: student.name, exchanges: consequences.length }),
          whatToDo: say('readWhatFollowsFromMove'),
          fields: consequences.map((sentence) => ({ path: 'groupId', code: 'consequence', sentence })),
        });
      }
      await manager.delete(GroupMemberRow, { setId, enrolmentId });
      if (groupId !== null) await manager.insert(GroupMemberRow, { setId, enrolmentId, groupId });
    });
  }
}

async function assertGroupTitleFree(
  manager: EntityManager,
  setId: string,
  title: string,
  except: string | null,
): Promise<void> {
  const same = await manager.findOneBy(StudentGroup, { setId, title: title.trim() });
  if (same === null || same.id === except) return;
  const sentence = say('thereIsGroupCalledIn', { title: same.title });
  throw invalid([{ path: 'title', code: 'title-taken', sentence }]);
}
