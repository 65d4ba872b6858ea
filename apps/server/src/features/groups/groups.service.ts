import { Injectable } from '@nestjs/common';
import type {
  DivisionRequest,
  GroupImportPreview,
  GroupImportRequest,
  GroupMember,
  GroupSetView,
  GroupsView,
  MoveMemberRequest,
} from '@salt-circle/contracts';
import { divide, mayDo, maySee, needsGroups, readGroupRows } from '@salt-circle/core';
import { In, type EntityManager } from 'typeorm';
import type { Asker } from '../../access/seeing.js';
import { Clock } from '../../platform/clock/clock.js';
import { Database } from '../../platform/database/database.js';
import { insertAll } from '../../platform/database/insert-all.js';
import { Access, assertAllowed } from '../../access/access.js';
import { Draft } from '../../model/draft.js';
import { Exchange } from '../../model/exchange.js';
import { setupOf } from '../../access/setup-of.js';
import { Ids } from '../../platform/ids/ids.js';
import { cellsOf, unreadable } from '../../platform/tables/cells.js';
import { enrolledOf, type CoursePerson } from '../../access/enrolled.js';
import { runningExchanges } from '../../access/running.js';
import { sourceOf } from '../../platform/tables/source.js';
import { ProblemError } from '../../platform/problems/problem-error.js';
import { groupProblem } from '../../platform/problems/roster-sentences.js';
import { invalid, refusal } from '../../platform/problems/sentences.js';
import { consequencesOfMove } from './consequences.js';
import { GroupMemberRow, GroupSet, StudentGroup } from '../../model/group.js';

type Titled = ReadonlyArray<{ readonly title: string; readonly memberIds: readonly string[] }>;

@Injectable()
export class GroupsService {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly clock: Clock,
    private readonly ids: Ids,
  ) {}

  async list(person: Asker, courseId: string): Promise<GroupsView> {
    const { viewer } = await this.access.course(person, courseId);
    assertAllowed(maySee(viewer, null, { kind: 'people' }));
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

  addSet(person: Asker, courseId: string, title: string): Promise<{ id: string }> {
    return this.#changing(person, courseId, (manager) => this.#insertSet(manager, courseId, title));
  }

  renameSet(person: Asker, courseId: string, setId: string, title: string): Promise<void> {
    return this.#changing(person, courseId, async (manager) => {
      await this.#set(manager, courseId, setId);
      await assertSetTitleFree(manager, courseId, title, setId);
      await manager.update(GroupSet, { id: setId }, { title: title.trim() });
    });
  }

  removeSet(person: Asker, courseId: string, setId: string): Promise<void> {
    return this.#changing(person, courseId, async (manager) => {
      await this.#set(manager, courseId, setId);
      const users = (await manager.findBy(Exchange, { courseId, groupSetId: setId })).filter((one) =>
        needsGroups(setupOf(one)),
      );
      if (users.length > 0) {
        const titles = users.map(({ title }) => `“${title}”`).join(', ');
        throw new ProblemError({
          code: 'plan-fixed',
          sentence: `${titles} ${users.length === 1 ? 'goes' : 'go'} by these groups, so they cannot be removed.`,
          whatToDo: 'Choose other groups there first.',
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

  addGroup(person: Asker, courseId: string, setId: string, title: string): Promise<{ id: string }> {
    return this.#changing(person, courseId, async (manager) => {
      await this.#set(manager, courseId, setId);
      await assertGroupTitleFree(manager, setId, title, null);
      const position = 1 + (await manager.countBy(StudentGroup, { setId }));
      const id = this.ids.uuid();
      await manager.insert(StudentGroup, { id, setId, title: title.trim(), position });
      return { id };
    });
  }

  renameGroup(person: Asker, courseId: string, setId: string, groupId: string, title: string): Promise<void> {
    return this.#changing(person, courseId, async (manager) => {
      await this.#group(manager, courseId, setId, groupId);
      await assertGroupTitleFree(manager, setId, title, groupId);
      await manager.update(StudentGroup, { id: groupId }, { title: title.trim() });
    });
  }

  /** Only an empty group can be removed: its members would fall out of whatever goes by it. */
  removeGroup(person: Asker, courseId: string, setId: string, groupId: string): Promise<void> {
    return this.#changing(person, courseId, async (manager) => {
      const group = await this.#group(manager, courseId, setId, groupId);
      const members = await manager.countBy(GroupMemberRow, { groupId });
      if (members > 0) {
        throw invalid([
          {
            path: 'groupId',
            code: 'group-not-empty',
            sentence: `“${group.title}” has ${members === 1 ? 'a member' : `${members} members`}. Move them to other groups first.`,
          },
        ]);
      }
      await assertNoDrafts(manager, [groupId]);
      await manager.delete(StudentGroup, { id: groupId });
    });
  }

  /** Moves somebody; while an exchange that goes by the groups runs, only after the consequences have been read. */
  moveMember(
    person: Asker,
    courseId: string,
    setId: string,
    enrolmentId: string,
    { groupId, confirmed }: MoveMemberRequest,
  ): Promise<void> {
    return this.#changing(person, courseId, async (manager) => {
      await this.#set(manager, courseId, setId);
      if (groupId !== null) await this.#group(manager, courseId, setId, groupId);
      const student = (await activeStudents(manager, courseId)).find(({ id }) => id === enrolmentId);
      if (student === undefined) throw refusal('unknown');
      const current = await manager.findOneBy(GroupMemberRow, { setId, enrolmentId });
      if ((current?.groupId ?? null) === groupId) return;
      const consequences = await consequencesOfMove(manager, courseId, setId, student, this.clock.now());
      if (consequences.length > 0 && !confirmed) {
        throw new ProblemError({
          code: 'needs-confirming',
          sentence: `${student.name} is part of ${consequences.length === 1 ? 'an exchange' : 'exchanges'} under way that ${consequences.length === 1 ? 'goes' : 'go'} by these groups.`,
          whatToDo: 'Read what follows from the move, then move all the same or leave it.',
          fields: consequences.map((sentence) => ({ path: 'groupId', code: 'consequence', sentence })),
        });
      }
      await manager.delete(GroupMemberRow, { setId, enrolmentId });
      if (groupId !== null) await manager.insert(GroupMemberRow, { setId, enrolmentId, groupId });
    });
  }

  /** Divides all active students anew; a set that a running exchange goes by is left alone. */
  divide(person: Asker, courseId: string, setId: string, request: DivisionRequest): Promise<void> {
    return this.#changing(person, courseId, async (manager) => {
      await this.#set(manager, courseId, setId);
      await this.#assertNotRunning(manager, courseId, setId);
      const { by, number, seed, mixedBy } = request;
      const traitOf = { nothing: () => null, section: sectionOf, trait: (one: CoursePerson) => one.trait }[mixedBy];
      const groups = divide(await activeStudents(manager, courseId), { by, number, seed }, traitOf);
      await this.#replace(
        manager,
        setId,
        groups.map((memberIds, index) => ({ title: `Group ${index + 1}`, memberIds })),
      );
    });
  }

  import(person: Asker, courseId: string, setId: string, request: GroupImportRequest): Promise<GroupImportPreview> {
    return this.#changing(person, courseId, async (manager) => {
      await this.#set(manager, courseId, setId);
      const source = sourceOf(request);
      if (source.kind === 'bundle')
        throw unreadable('Groups are read from a CSV file.', 'Choose a file that ends in .csv.');
      const students = await activeStudents(manager, courseId);
      const { groups, problems } = readGroupRows(cellsOf(source.text), students);
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
        problems: problems.map(groupProblem),
        text: source.text,
        applied: apply,
      };
    });
  }

  async #insertSet(manager: EntityManager, courseId: string, title: string): Promise<{ id: string }> {
    await assertSetTitleFree(manager, courseId, title, null);
    const id = this.ids.uuid();
    await manager.insert(GroupSet, { id, courseId, title: title.trim(), createdAt: this.clock.now() });
    return { id };
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
      sentence: `“${running[0]?.title ?? ''}” goes by these groups and is under way, so they are not made anew.`,
      whatToDo: 'Move single students, or make another set for the next exchange.',
    });
  }

  #changing<T>(person: Asker, courseId: string, work: (manager: EntityManager) => Promise<T>): Promise<T> {
    return this.database.write(async (manager, happened) => {
      const { viewer } = await this.access.course(person, courseId);
      assertAllowed(mayDo(viewer, null, { kind: 'manage-course' }));
      const result = await work(manager);
      happened({ action: 'groups-changed', actorId: person.id, courseId });
      return result;
    });
  }

  async #set(manager: EntityManager, courseId: string, setId: string): Promise<GroupSet> {
    const set = await manager.findOneBy(GroupSet, { id: setId, courseId });
    if (set === null) throw refusal('unknown');
    return set;
  }

  async #group(manager: EntityManager, courseId: string, setId: string, groupId: string): Promise<StudentGroup> {
    await this.#set(manager, courseId, setId);
    const group = await manager.findOneBy(StudentGroup, { id: groupId, setId });
    if (group === null) throw refusal('unknown');
    return group;
  }
}

const sectionOf = ({ section }: CoursePerson) => section;

async function activeStudents(manager: EntityManager, courseId: string): Promise<CoursePerson[]> {
  return (await enrolledOf(manager, courseId)).filter(({ active, role }) => active && role === 'student');
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

/** A draft without its group would have no authors any more: its feedback and its place in the archive would be lost. */
async function assertNoDrafts(manager: EntityManager, groupIds: readonly string[]): Promise<void> {
  const draft = groupIds.length === 0 ? null : await manager.findOneBy(Draft, { groupId: In([...groupIds]) });
  if (draft === null) return;
  const { title } = await manager.findOneByOrFail(Exchange, { id: draft.exchangeId });
  throw new ProblemError({
    code: 'plan-fixed',
    sentence: `There are drafts of these groups in “${title}”, so they stay.`,
    whatToDo: 'Make another set for the next exchange.',
  });
}

async function assertSetTitleFree(
  manager: EntityManager,
  courseId: string,
  title: string,
  except: string | null,
): Promise<void> {
  const same = await manager.findOneBy(GroupSet, { courseId, title: title.trim() });
  if (same === null || same.id === except) return;
  const sentence = `There is a group set called “${same.title}” already. Choose another name.`;
  throw invalid([{ path: 'title', code: 'title-taken', sentence }]);
}

async function assertGroupTitleFree(
  manager: EntityManager,
  setId: string,
  title: string,
  except: string | null,
): Promise<void> {
  const same = await manager.findOneBy(StudentGroup, { setId, title: title.trim() });
  if (same === null || same.id === except) return;
  const sentence = `There is a group called “${same.title}” in this set already. Choose another name.`;
  throw invalid([{ path: 'title', code: 'title-taken', sentence }]);
}
