import { Injectable } from '@nestjs/common';
import type { PlatformPeopleRequest, CoursePlatformView, RosterApplied, RosterPreview } from '@salt-circle/contracts';
import {
  compareMembers,
  MEDIA,
  noAddress,
  readMembers,
  SCOPE,
  type LtiMember,
  type MemberChanges,
  type PlacedPerson,
} from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import { Access, assertCan, assertCanSee } from '../../../permissions/access.js';
import { enrolledOf } from '../../../queries/course-people.js';
import { takeIntoRunningExchanges } from '../../../queries/running-exchanges.js';
import type { CurrentUser } from '../../../auth/view-as.js';
import { LtiPlatform, LtiLineItem, LtiCourse } from '../../../model/lti.js';
import { addPlaces } from '../../../queries/add-places.js';
import { Enrolment } from '../../../model/course.js';
import { Exchange } from '../../../model/exchange.js';
import { Clock } from '../../../platform/clock/clock.js';
import { Database } from '../../../platform/database/database.js';
import { Ids } from '../../../platform/ids/ids.js';
import { ProblemError } from '../../../platform/problems/problem-error.js';
import { isoOrNull } from '../../../platform/wire/instants.js';
import { Invitations } from '../../people/invitations.service.js';
import { LtiClient } from '../platforms/lti-client.service.js';
import { LtiFault } from '../platforms/lti-fault.js';
import { usersOf } from '../gradebook/gradebook-parts.js';
import { fingerprintOf, previewOf, type Named } from './people-preview.js';
import { say } from '../../../words/lti.js';

/** People of one course whom a platform may name: what is more is no course. */
const MOST_PEOPLE = 20_000;

interface Linked {
  readonly link: LtiCourse;
  readonly platform: LtiPlatform;
}

/** Who is in a course, as the platform says it. */
@Injectable()
export class LtiPeople {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly clock: Clock,
    private readonly ids: Ids,
    private readonly client: LtiClient,
    private readonly invitations: Invitations,
  ) {}

  async one(person: CurrentUser, courseId: string): Promise<CoursePlatformView> {
    const context = await this.access.course(person, courseId);
    assertCanSee(context, { kind: 'people' });
    const linked = await this.#linked(courseId);
    if (linked === null) return { platform: null };
    const { link, platform } = linked;
    const { title, nightly, missing, services } = link;
    return {
      platform: {
        ...{ name: platform.name, title, nightly, missing },
        givesPeople: services.membershipsUrl !== null,
        takesGrades: services.columnsUrl !== null || services.scopes.includes(SCOPE.scores),
        fetchedAt: isoOrNull(link.fetchedAt),
        fault: link.fault ?? platform.fault,
      },
    };
  }

  async setNightly(person: CurrentUser, courseId: string, nightly: 'off' | 'add'): Promise<void> {
    await this.database.write(async (manager) => {
      await this.#mayManage(person, courseId);
      await manager.update(LtiCourse, { courseId }, { nightly });
    });
  }

  /** People and their work stay; whoever is known at the platform still comes in by it, once the course is linked again. */
  async unlink(person: CurrentUser, courseId: string): Promise<void> {
    await this.database.write(async (manager, emit) => {
      await this.#mayManage(person, courseId);
      const exchanges = await manager.find(Exchange, { select: { id: true }, where: { courseId } });
      for (const { id } of exchanges) await manager.delete(LtiLineItem, { exchangeId: id });
      await manager.delete(LtiCourse, { courseId });
      // Another course of the platform, or another platform, may know somebody else by such an id.
      await manager.update(Enrolment, { courseId }, { ltiUser: null });
      emit({ action: 'platform-unlinked', actorId: person.id, courseId });
    });
  }

  /** Asks the platform, and says what that would change. */
  async preview(person: CurrentUser, courseId: string): Promise<RosterPreview> {
    await this.#mayManage(person, courseId);
    const linked = await this.#mustBeLinked(courseId);
    const named = await this.#ask(linked);
    const changes = compareMembers(await this.#places(this.database.read, linked.link), named.members);
    return previewOf(changes, named, linked.platform.name);
  }

  /** What was seen, or nothing: the platform is asked again, and says perhaps something else by now. */
  async apply(
    person: CurrentUser,
    courseId: string,
    { fingerprint, dropMissing }: PlatformPeopleRequest,
  ): Promise<RosterApplied> {
    await this.#mayManage(person, courseId);
    const linked = await this.#mustBeLinked(courseId);
    const { members } = await this.#ask(linked);
    return this.database.write(async (manager, emit) => {
      // Once more: the platform takes its time to answer.
      await this.#mayManage(person, courseId);
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
      await manager.update(LtiCourse, { courseId }, { missing });
      emit({ action: 'platform-people-taken', actorId: person.id, courseId, details: counts });
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
        await manager.update(LtiCourse, { courseId }, { missing: found.missing.length });
        if (counts.added + counts.updated > 0) {
          emit({ action: 'platform-people-taken', actorId: null, courseId, details: { ...counts, dropped: 0 } });
        }
      });
    } catch (error) {
      if (!(error instanceof LtiFault)) throw error;
    }
  }

  /** Whoever has come by the platform once is known, whether the place is tied or not. */
  async #places(manager: EntityManager, link: LtiCourse): Promise<PlacedPerson[]> {
    const users = await usersOf(manager, link);
    const rows = await enrolledOf(manager, link.courseId);
    return rows.map((row) => ({ ...row, ltiUser: row.ltiUser ?? users.get(row.personId) ?? null }));
  }

  async #take(
    manager: EntityManager,
    courseId: string,
    { add, update }: Pick<MemberChanges, 'add' | 'update'>,
  ): Promise<{ added: number; updated: number }> {
    const now = this.clock.now();
    const places = add.map(({ name, email, role, campusId, user }) => ({
      ...{ name: name ?? say('somebody'), email: email ?? noAddress(this.ids.uuid()), role, campusId, ltiUser: user },
      ...{ section: null, trait: null },
    }));
    await addPlaces(manager, this.ids, now, courseId, places, 'platform');
    for (const { place, member, fields, tiedBy } of update) {
      const changed = Object.fromEntries(fields.map(({ field, to }) => [field, to]));
      // A place that came from elsewhere stays with its source: the platform is only tied to it.
      const tie = tiedBy === null ? {} : { ltiUser: member.user };
      await manager.update(Enrolment, { id: place.id }, { ...changed, ...tie, active: true });
      if (changed['email'] !== undefined) await this.invitations.end(manager, [place.id]);
    }
    await takeIntoRunningExchanges(manager, courseId, now, this.ids);
    return { added: add.length, updated: update.length };
  }

  async #ask({ link, platform }: Linked): Promise<Named> {
    const { courseId, services } = link;
    if (services.membershipsUrl === null) {
      throw new ProblemError({
        code: 'platform-wrong',
        sentence: say('hasNotSaidWherePeople', { name: platform.name }),
        whatToDo: say('whoeverRunsPlatformCanAllow'),
      });
    }
    try {
      const members: LtiMember[] = [];
      let unreadable = 0;
      for await (const body of this.client.pages(
        platform,
        [SCOPE.memberships],
        services.membershipsUrl,
        MEDIA.members,
      )) {
        const page = readMembers(body);
        if (page === null) throw new LtiFault('odd', say('answeredWithSomethingThatIsNo', { name: platform.name }));
        members.push(...page.members);
        unreadable += page.unreadable;
        if (members.length > MOST_PEOPLE)
          throw new LtiFault('odd', say('namesMoreThanPeople', { name: platform.name, mostpeople: MOST_PEOPLE }));
      }
      await this.#note(courseId, { fetchedAt: this.clock.now(), fault: null });
      return { members, unreadable };
    } catch (error) {
      if (!(error instanceof LtiFault)) throw error;
      await this.#note(courseId, { fault: error.sentence });
      throw error;
    }
  }

  #note(courseId: string, change: Partial<Pick<LtiCourse, 'fetchedAt' | 'fault'>>): Promise<unknown> {
    return this.database.write((manager) => manager.update(LtiCourse, { courseId }, change));
  }

  async #mayManage(person: CurrentUser, courseId: string): Promise<void> {
    assertCan(await this.access.course(person, courseId), { kind: 'manage-course' });
  }

  async #linked(courseId: string): Promise<Linked | null> {
    const link = await this.database.read.findOneBy(LtiCourse, { courseId });
    if (link === null) return null;
    return { link, platform: await this.database.read.findOneByOrFail(LtiPlatform, { id: link.platformId }) };
  }

  async #mustBeLinked(courseId: string): Promise<Linked> {
    const linked = await this.#linked(courseId);
    if (linked?.platform.active === true) return linked;
    throw new ProblemError({
      code: 'platform-wrong',
      sentence: linked === null ? say('thisCourseIsNotLinked') : say('hasBeenPaused', { name: linked.platform.name }),
      whatToDo: linked === null ? say('pressLinkToSaltCircle') : say('askWhoeverRunsThisSalt'),
    });
  }
}
