import { Injectable } from '@nestjs/common';
import type { AddPersonRequest, InvitationLinkRow, PeopleView, PersonRequest, PersonRow } from '@salt-circle/contracts';
import { isAddress, shownAddress } from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import type { CurrentUser } from '../../auth/view-as.js';
import { Clock } from '../../platform/clock/clock.js';
import { Enrolment } from '../../model/course.js';
import { Database } from '../../platform/database/database.js';
import { Access, assertCanSee, assertCan } from '../../permissions/access.js';
import { Ids } from '../../platform/ids/ids.js';
import { invalid, refusal } from '../../platform/problems/sentences.js';
import { enrolledOf, type CoursePerson } from '../../queries/course-people.js';
import { Invitation } from '../../model/invitation.js';
import { Invitations } from './invitations.service.js';
import { addPlaces } from '../../queries/add-places.js';
import { addressTaken } from './places.js';
import { partnersOf } from './partners.js';
import { PasswordLinks } from '../accounts/password-links.service.js';
import { takeIntoRunningExchanges } from '../../queries/running-exchanges.js';
import { say } from '../../words/people.js';

@Injectable()
export class PeopleService {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly clock: Clock,
    private readonly ids: Ids,
    private readonly invitations: Invitations,
    private readonly passwords: PasswordLinks,
  ) {}

  async list(person: CurrentUser, courseId: string): Promise<PeopleView> {
    const context = await this.access.course(person, courseId);
    assertCanSee(context, { kind: 'people' });
    const manager = this.database.read;
    const invited = await this.#invited(manager, courseId);
    const partners = await partnersOf(manager, courseId, this.clock.now());
    const people = (await enrolledOf(manager, courseId)).map(({ personId, taken, ltiUser: _, ...row }): PersonRow => ({
      ...row,
      email: shownAddress(row.email),
      place: taken ? 'taken' : invited.has(row.id) ? 'invited' : 'open',
      you: personId === person.id,
      partnerOf: partners.get(row.id) ?? [],
    }));
    const sections = people.flatMap(({ section, active }) => (section === null || !active ? [] : [section]));
    return { people, sections: [...new Set(sections)].sort() };
  }

  add(person: CurrentUser, courseId: string, request: AddPersonRequest): Promise<{ id: string }> {
    return this.#changing(person, courseId, async (manager, emit) => {
      const email = emailFrom(request, null);
      const already = await manager.findOneBy(Enrolment, { courseId, email });
      if (already !== null) {
        const sentence = say(already.active ? 'isInCourseAlready' : 'wasDroppedTakePersonBack', { name: already.name });
        throw invalid([{ path: 'email', code: 'there-already', sentence }]);
      }
      const place = { name: request.name.trim(), email, role: request.role, ...placeFrom(request) };
      const [id = ''] = await addPlaces(manager, this.ids, this.clock.now(), courseId, [{ ...place, trait: null }]);
      await assertCampusIdFree(manager, courseId, id, request.campusId ?? null);
      await takeIntoRunningExchanges(manager, courseId, this.clock.now(), this.ids);
      emit({ action: 'person-added', actorId: person.id, courseId, details: { role: request.role } });
      if (request.invite) await this.invitations.send(manager, emit, person, courseId, [id]);
      return { id };
    });
  }

  async change(person: CurrentUser, courseId: string, enrolmentId: string, request: PersonRequest): Promise<void> {
    await this.#changing(person, courseId, async (manager, emit) => {
      const one = await this.#enrolled(manager, courseId, enrolmentId);
      const name = request.name.trim();
      const email = emailFrom(request, one);
      if (email !== one.email) {
        if (await manager.existsBy(Enrolment, { courseId, email })) throw addressTaken(email);
        await this.invitations.end(manager, [enrolmentId]);
      }
      if (one.role === 'instructor' && request.role !== 'instructor')
        await this.#assertAnotherInstructor(manager, courseId, one);
      await assertCampusIdFree(manager, courseId, enrolmentId, request.campusId ?? null);
      const place = { name, email, role: request.role, ...placeFrom(request) };
      const isOther = name !== one.name || email !== one.email || place.campusId !== one.campusId;
      // What somebody has written here, no platform writes over.
      await manager.update(Enrolment, { id: enrolmentId }, { ...place, ...(isOther && { source: 'hand' as const }) });
      await takeIntoRunningExchanges(manager, courseId, this.clock.now(), this.ids);
      emit({ action: 'person-changed', actorId: person.id, courseId, details: { enrolment: enrolmentId } });
    });
  }

  /** Dropping hides a person from the course, and all work stays; taking back brings both together again. */
  async setActive(person: CurrentUser, courseId: string, enrolmentId: string, active: boolean): Promise<void> {
    await this.#changing(person, courseId, async (manager, emit) => {
      const one = await this.#enrolled(manager, courseId, enrolmentId);
      if (one.active === active) return;
      if (!active && one.role === 'instructor') await this.#assertAnotherInstructor(manager, courseId, one);
      await manager.update(Enrolment, { id: enrolmentId }, { active });
      if (!active) await this.invitations.end(manager, [enrolmentId]);
      if (active) await takeIntoRunningExchanges(manager, courseId, this.clock.now(), this.ids);
      const action = active ? 'person-taken-back' : 'person-dropped';
      emit({ action, actorId: person.id, courseId, details: { enrolment: enrolmentId } });
    });
  }

  invite(person: CurrentUser, courseId: string, enrolmentIds: readonly string[]): Promise<{ invited: number }> {
    return this.#changing(person, courseId, async (manager, emit) => {
      const whom = enrolmentIds.length === 0 ? null : enrolmentIds;
      return { invited: await this.invitations.send(manager, emit, person, courseId, whom) };
    });
  }

  /** Who is invited and has not joined, with links to pass on. */
  async invitationLinks(person: CurrentUser, courseId: string): Promise<InvitationLinkRow[]> {
    assertCan(await this.access.course(person, courseId), { kind: 'manage-course' });
    return this.invitations.links(courseId);
  }

  /** Sends a link for a new password to whoever has taken the place: to the account's own address, which nobody here learns. */
  async sendPasswordLink(person: CurrentUser, courseId: string, enrolmentId: string): Promise<void> {
    await this.#changing(person, courseId, async (manager, emit) => {
      const enrolment = await manager.findOneBy(Enrolment, { id: enrolmentId, courseId, active: true });
      if (enrolment === null) throw refusal('unknown');
      await this.passwords.sendTo(manager, enrolment);
      emit({
        action: 'password-link-sent',
        actorId: person.id,
        courseId,
        details: { enrolment: enrolmentId },
      });
    });
  }

  async #invited(manager: EntityManager, courseId: string): Promise<ReadonlySet<string>> {
    const open = await manager
      .createQueryBuilder(Invitation, 'invitation')
      .innerJoin(Enrolment, 'enrolment', 'enrolment.id = invitation.enrolmentId')
      .where('enrolment.courseId = :courseId', { courseId })
      .getMany();
    return new Set(open.map(({ enrolmentId }) => enrolmentId));
  }

  /** Whether somebody may is asked where it is done: another change may have waited before it. */
  #changing<T>(person: CurrentUser, courseId: string, work: Parameters<typeof this.database.write<T>>[0]): Promise<T> {
    return this.database.write(async (manager, emit) => {
      assertCan(await this.access.course(person, courseId, manager), { kind: 'manage-course' });
      return work(manager, emit);
    });
  }

  async #enrolled(manager: EntityManager, courseId: string, enrolmentId: string): Promise<CoursePerson> {
    const one = (await enrolledOf(manager, courseId)).find(({ id }) => id === enrolmentId);
    if (one === undefined) throw refusal('unknown');
    return one;
  }

  /** A course without an instructor could not be run by anybody any more. */
  async #assertAnotherInstructor(manager: EntityManager, courseId: string, one: CoursePerson): Promise<void> {
    const instructors = await manager.countBy(Enrolment, { courseId, role: 'instructor', active: true });
    if (instructors > 1) return;
    throw invalid([
      {
        path: 'role',
        code: 'last-instructor',
        sentence: say('isOnlyInstructorOfCourse', { name: one.name }),
      },
    ]);
  }
}

/** Who has no address may stay without one; nobody's is taken away. */
function emailFrom(request: PersonRequest, one: Pick<Enrolment, 'email'> | null): string {
  const email = request.email.trim().toLowerCase();
  if (email !== '') return email;
  if (one !== null && !isAddress(one.email)) return one.email;
  const sentence = say('enterEmailAddressSuchAs');
  throw invalid([{ path: 'email', code: 'email', sentence }]);
}

function placeFrom({ campusId, section }: PersonRequest): Pick<Enrolment, 'campusId' | 'section'> {
  return { campusId: campusId?.trim() || null, section: section?.trim() || null };
}

async function assertCampusIdFree(
  manager: EntityManager,
  courseId: string,
  enrolmentId: string,
  campusId: string | null,
): Promise<void> {
  const plain = campusId?.trim() || null;
  if (plain === null) return;
  const others = await manager.findBy(Enrolment, { courseId, campusId: plain });
  if (others.every(({ id }) => id === enrolmentId)) return;
  const sentence = say('campusIdBelongsToSomebody', { plain });
  throw invalid([{ path: 'campusId', code: 'campus-id-taken', sentence }]);
}
