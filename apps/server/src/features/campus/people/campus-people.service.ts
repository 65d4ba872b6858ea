import { Injectable } from '@nestjs/common';
import type { CampusPeopleRequest, CourseCampusView, RosterApplied, RosterPreview } from '@salt-circle/contracts';
import {
  compareMembers,
  MEDIA,
  noAddress,
  readMembers,
  SCOPE,
  type CampusMember,
  type MemberChanges,
  type PlacedPerson,
} from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import { Access, assertCan, assertCanSee } from '../../../permissions/access.js';
import { enrolledOf } from '../../../queries/course-people.js';
import { takeIntoRunningExchanges } from '../../../queries/running-exchanges.js';
import type { CurrentUser } from '../../../auth/view-as.js';
import { Campus, CampusColumn, CampusCourse } from '../../../model/campus.js';
import { Enrolment } from '../../../model/course.js';
import { Exchange } from '../../../model/exchange.js';
import { Person } from '../../../model/person.js';
import { Clock } from '../../../platform/clock/clock.js';
import { Database } from '../../../platform/database/database.js';
import { insertAll } from '../../../platform/database/insert-all.js';
import { Ids } from '../../../platform/ids/ids.js';
import { ProblemError } from '../../../platform/problems/problem-error.js';
import { isoOrNull } from '../../../platform/wire/instants.js';
import { Invitations } from '../../people/invitations.service.js';
import { CampusClient } from '../platforms/campus-client.service.js';
import { CampusFault } from '../platforms/campus-fault.js';
import { usersOf } from '../gradebook/gradebook-parts.js';
import { fingerprintOf, previewOf, type Named } from './people-preview.js';
import { say } from '../../../words/campus.js';

/** People of one course whom a campus may name: what is more is no course. */
const MOST_PEOPLE = 20_000;

interface Linked {
  readonly link: CampusCourse;
  readonly campus: Campus;
}

/** Who is in a course, as the campus says it. */
@Injectable()
export class CampusPeople {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly clock: Clock,
    private readonly ids: Ids,
    private readonly client: CampusClient,
    private readonly invitations: Invitations,
  ) {}

  async one(person: CurrentUser, courseId: string): Promise<CourseCampusView> {
    const context = await this.access.course(person, courseId);
    assertCanSee(context, { kind: 'people' });
    const linked = await this.#linked(courseId);
    if (linked === null) return { campus: null };
    const { link, campus } = linked;
    const { title, nightly, missing, services } = link;
    return {
      campus: {
        ...{ name: campus.name, title, nightly, missing },
        givesPeople: services.membershipsUrl !== null,
        takesGrades: services.columnsUrl !== null || services.scopes.includes(SCOPE.scores),
        fetchedAt: isoOrNull(link.fetchedAt),
        fault: link.fault ?? campus.fault,
      },
    };
  }

  async setNightly(person: CurrentUser, courseId: string, nightly: 'off' | 'add'): Promise<void> {
    await this.#mayManage(person, courseId);
    await this.database.write((manager) => manager.update(CampusCourse, { courseId }, { nightly }));
  }

  /** People and their work stay; whoever is known at the campus still comes in by it, once the course is linked again. */
  async unlink(person: CurrentUser, courseId: string): Promise<void> {
    await this.#mayManage(person, courseId);
    await this.database.write(async (manager, emit) => {
      const exchanges = await manager.find(Exchange, { select: { id: true }, where: { courseId } });
      for (const { id } of exchanges) await manager.delete(CampusColumn, { exchangeId: id });
      await manager.delete(CampusCourse, { courseId });
      // Another course of the campus, or another campus, may know somebody else by such an id.
      await manager.update(Enrolment, { courseId }, { campusUser: null });
      emit({ action: 'campus-unlinked', actorId: person.id, courseId });
    });
  }

  /** Asks the campus, and says what that would change. */
  async preview(person: CurrentUser, courseId: string): Promise<RosterPreview> {
    await this.#mayManage(person, courseId);
    const linked = await this.#mustBeLinked(courseId);
    const named = await this.#ask(linked);
    const changes = compareMembers(await this.#places(this.database.read, linked.link), named.members);
    return previewOf(changes, named, linked.campus.name);
  }

  /** What was seen, or nothing: the campus is asked again, and says perhaps something else by now. */
  async apply(
    person: CurrentUser,
    courseId: string,
    { fingerprint, dropMissing }: CampusPeopleRequest,
  ): Promise<RosterApplied> {
    await this.#mayManage(person, courseId);
    const linked = await this.#mustBeLinked(courseId);
    const { members } = await this.#ask(linked);
    return this.database.write(async (manager, emit) => {
      const changes = compareMembers(await this.#places(manager, linked.link), members);
      if (fingerprintOf(changes) !== fingerprint) {
        throw new ProblemError({
          code: 'conflict',
          sentence: say('peopleOfCourseOrWhat'),
          whatToDo: say('lookAtWhatItWould'),
        });
      }
      const dropped = dropMissing ? changes.missing.map(({ id }) => id) : [];
      for (const id of dropped) await manager.update(Enrolment, { id }, { active: false });
      await this.invitations.end(manager, dropped);
      const counts = { ...(await this.#take(manager, courseId, changes)), dropped: dropped.length };
      const missing = changes.missing.length - dropped.length;
      await manager.update(CampusCourse, { courseId }, { missing });
      emit({ action: 'campus-people-taken', actorId: person.id, courseId, details: counts });
      return { ...counts, invited: 0 };
    });
  }

  /**
   * Takes over who is new, and who is called otherwise. Nobody is dropped, and nobody is tied to a place that came from elsewhere: that is
   * for somebody to look at. A fault is noted with the course.
   */
  async fetchNightly(courseId: string): Promise<void> {
    const linked = await this.#linked(courseId);
    if (linked === null) return;
    try {
      const { members } = await this.#ask(linked);
      await this.database.write(async (manager, emit) => {
        const found = compareMembers(await this.#places(manager, linked.link), members);
        const sure = { ...found, update: found.update.filter(({ tiedBy, rejoins }) => tiedBy === null && !rejoins) };
        const counts = await this.#take(manager, courseId, sure);
        await manager.update(CampusCourse, { courseId }, { missing: found.missing.length });
        if (counts.added + counts.updated > 0) {
          emit({ action: 'campus-people-taken', actorId: null, courseId, details: { ...counts, dropped: 0 } });
        }
      });
    } catch (error) {
      if (!(error instanceof CampusFault)) throw error;
    }
  }

  /** Whoever has come by the campus once is known, whether the place is tied or not. */
  async #places(manager: EntityManager, link: CampusCourse): Promise<PlacedPerson[]> {
    const users = await usersOf(manager, link);
    const rows = await enrolledOf(manager, link.courseId);
    return rows.map((row) => ({ ...row, campusUser: row.campusUser ?? users.get(row.personId) ?? null }));
  }

  async #take(
    manager: EntityManager,
    courseId: string,
    { add, update }: Pick<MemberChanges, 'add' | 'update'>,
  ): Promise<{ added: number; updated: number }> {
    const now = this.clock.now();
    const rows = add.map((member) => {
      const name = member.name ?? say('somebody');
      const person = { id: this.ids.uuid(), email: null, name, passwordHash: null, createdAt: now };
      const email = member.email ?? noAddress(this.ids.uuid());
      const { role, campusId, user } = member;
      const place = {
        id: this.ids.uuid(),
        courseId,
        personId: person.id,
        name,
        email,
        role,
        campusId,
        campusUser: user,
      };
      return { person, place: { ...place, active: true, section: null, trait: null, source: 'campus' as const } };
    });
    await insertAll(
      manager,
      Person,
      rows.map(({ person }) => person),
    );
    await insertAll(
      manager,
      Enrolment,
      rows.map(({ place }) => place),
    );
    for (const { place, member, fields, tiedBy } of update) {
      const changed = Object.fromEntries(fields.map(({ field, to }) => [field, to]));
      // A place that came from elsewhere stays with its source: the campus is only tied to it.
      const tie = tiedBy === null ? {} : { campusUser: member.user };
      await manager.update(Enrolment, { id: place.id }, { ...changed, ...tie, active: true });
      if (changed['email'] !== undefined) await this.invitations.end(manager, [place.id]);
    }
    await takeIntoRunningExchanges(manager, courseId, now, this.ids);
    return { added: add.length, updated: update.length };
  }

  async #ask({ link, campus }: Linked): Promise<Named> {
    const { courseId, services } = link;
    if (services.membershipsUrl === null) {
      throw new ProblemError({
        code: 'campus-wrong',
        sentence: say('hasNotSaidWherePeople', { name: campus.name }),
        whatToDo: say('whoeverRunsCampusCanAllow'),
      });
    }
    try {
      const members: CampusMember[] = [];
      let unreadable = 0;
      for await (const body of this.client.pages(campus, [SCOPE.memberships], services.membershipsUrl, MEDIA.members)) {
        const page = readMembers(body);
        if (page === null) throw new CampusFault('odd', say('answeredWithSomethingThatIsNo', { name: campus.name }));
        members.push(...page.members);
        unreadable += page.unreadable;
        if (members.length > MOST_PEOPLE)
          throw new CampusFault('odd', say('namesMoreThanPeople', { name: campus.name, mostpeople: MOST_PEOPLE }));
      }
      await this.#note(courseId, { fetchedAt: this.clock.now(), fault: null });
      return { members, unreadable };
    } catch (error) {
      if (!(error instanceof CampusFault)) throw error;
      await this.#note(courseId, { fault: error.sentence });
      throw error;
    }
  }

  #note(courseId: string, change: Partial<Pick<CampusCourse, 'fetchedAt' | 'fault'>>): Promise<unknown> {
    return this.database.write((manager) => manager.update(CampusCourse, { courseId }, change));
  }

  async #mayManage(person: CurrentUser, courseId: string): Promise<void> {
    assertCan(await this.access.course(person, courseId), { kind: 'manage-course' });
  }

  async #linked(courseId: string): Promise<Linked | null> {
    const link = await this.database.read.findOneBy(CampusCourse, { courseId });
    if (link === null) return null;
    return { link, campus: await this.database.read.findOneByOrFail(Campus, { id: link.campusId }) };
  }

  async #mustBeLinked(courseId: string): Promise<Linked> {
    const linked = await this.#linked(courseId);
    if (linked?.campus.active === true) return linked;
    throw new ProblemError({
      code: 'campus-wrong',
      sentence: linked === null ? say('thisCourseIsNotLinked') : say('hasBeenPaused', { name: linked.campus.name }),
      whatToDo: linked === null ? say('pressLinkToSaltCircle') : say('askWhoeverRunsThisSalt'),
    });
  }
}
