import { Injectable } from '@nestjs/common';
import type { DivisionRequest, GroupImportPreview, GroupImportRequest } from '@salt-circle/contracts';
import { divide, needsGroups, readGroupRows } from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import type { CoursePerson } from '../../queries/course-people.js';
import { runningExchanges } from '../../queries/running-exchanges.js';
import type { CurrentUser } from '../../auth/view-as.js';
import { setupOf } from '../../queries/exchange-setup.js';
import { GroupMemberRow, StudentGroup } from '../../model/group.js';
import { Clock } from '../../platform/clock/clock.js';
import { insertAll } from '../../platform/database/insert-all.js';
import { Ids } from '../../platform/ids/ids.js';
import { ProblemError } from '../../platform/problems/problem-error.js';
import { groupProblem, told } from '../../platform/problems/roster-sentences.js';
import { unreadable } from '../../platform/tables/cells.js';
import { Tables } from '../../platform/tables/tables.js';
import { activeStudents, assertNoDrafts, GroupChanges } from './group-changes.js';
import { say } from '../../words/groups.js';

type Titled = ReadonlyArray<{ readonly title: string; readonly memberIds: readonly string[] }>;

/** Fills a whole set at once: by dividing the students, or from a file. */
@Injectable()
export class FillingService {
  constructor(
    private readonly changes: GroupChanges,
    private readonly clock: Clock,
    private readonly ids: Ids,
    private readonly tables: Tables,
  ) {}

  /** Divides all active students anew; a set that a running exchange goes by is left alone. */
  divide(person: CurrentUser, courseId: string, setId: string, request: DivisionRequest): Promise<void> {
    return this.changes.in(person, courseId, async (manager) => {
      await this.changes.set(manager, courseId, setId);
      await this.#assertNotRunning(manager, courseId, setId);
      const { by, number, seed, mixedBy } = request;
      const traitOf = { nothing: () => null, section: sectionOf, trait: (one: CoursePerson) => one.trait }[mixedBy];
      const groups = divide(await activeStudents(manager, courseId), { by, number, seed }, traitOf);
      await this.#replace(
        manager,
        setId,
        groups.map((memberIds, index) => ({ title: say('group', { index: index + 1 }), memberIds })),
      );
    });
  }

  async import(
    person: CurrentUser,
    courseId: string,
    setId: string,
    request: GroupImportRequest,
  ): Promise<GroupImportPreview> {
    await this.changes.assertMay(person, courseId);
    const source = await this.tables.table(request);
    if (source.kind !== 'table') throw unreadable(say('groupsAreReadFromCsv'), say('chooseFileThatEndsIn'));
    return this.changes.in(person, courseId, async (manager) => {
      await this.changes.set(manager, courseId, setId);
      const students = await activeStudents(manager, courseId);
      const { groups, problems } = readGroupRows(source.cells, students);
      const names = new Map(students.map(({ id, name }) => [id, name]));
      const placed = new Set(groups.flatMap(({ memberIds }) => memberIds));
      const apply = request.apply && problems.length === 0;
      if (apply) {
        await this.#assertNotRunning(manager, courseId, setId);
        await this.#replace(manager, setId, groups);
      }
      return {
        groups: groups.map(({ title, memberIds }) => ({ title, members: memberIds.map((id) => names.get(id) ?? '') })),
        without: students.filter(({ id }) => !placed.has(id)).map(({ name }) => name),
        problems: told(problems.map(groupProblem)),
        text: source.text,
        applied: apply,
      };
    });
  }

  async #replace(manager: EntityManager, setId: string, groups: Titled): Promise<void> {
    const old = await manager.findBy(StudentGroup, { setId });
    await assertNoDrafts(
      manager,
      old.map(({ id }) => id),
    );
    await manager.delete(StudentGroup, { setId });
    const rows = groups.map(({ title }, index) => ({ id: this.ids.uuid(), setId, title, position: index + 1 }));
    await insertAll(manager, StudentGroup, rows);
    const members = groups.flatMap(({ memberIds }, index) =>
      memberIds.map((enrolmentId) => ({ setId, enrolmentId, groupId: (rows[index] as { id: string }).id })),
    );
    await insertAll(manager, GroupMemberRow, members);
  }

  async #assertNotRunning(manager: EntityManager, courseId: string, setId: string): Promise<void> {
    const running = (await runningExchanges(manager, courseId, this.clock.now())).filter(
      (one) => one.groupSetId === setId && needsGroups(setupOf(one)),
    );
    if (running.length === 0) return;
    throw new ProblemError({
      code: 'plan-fixed',
      sentence: say('goesByTheseGroupsAnd', { title: running[0]?.title ?? '' }),
      whatToDo: say('moveSingleStudentsOrMake'),
    });
  }
}

const sectionOf = ({ section }: CoursePerson) => section;
