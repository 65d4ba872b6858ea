import { Inject, Injectable } from '@nestjs/common';
import type { InvitationLinkRow, InvitationView, JoinRequest, OpenPlace } from '@salt-circle/contracts';
import { isAddress } from '@salt-circle/core';
import { In, LessThan, Not, type EntityManager } from 'typeorm';
import type { CurrentUser } from '../../auth/view-as.js';
import { Person } from '../../model/person.js';
import { hashPassword } from '../../platform/security/passwords.js';
import { assertGoodPassword } from '../../platform/security/password-rules.js';
import { SessionService } from '../../auth/session.service.js';
import { Clock } from '../../platform/clock/clock.js';
import type { Settings } from '../../platform/config/settings.js';
import { SETTINGS } from '../../platform/config/settings.token.js';
import { Course, Enrolment } from '../../model/course.js';
import { Mail } from '../../model/mail.js';
import { Database, type EmitEvent } from '../../platform/database/database.js';
import { insertAll } from '../../platform/database/insert-all.js';
import { Expiry } from '../../platform/expiry/expiry.js';
import { hashOf } from '../../platform/ids/hash-of.js';
import { Ids } from '../../platform/ids/ids.js';
import { portions } from '../../platform/database/portions.js';
import { LinkRenewal, type Renewed } from '../../platform/mail/link-renewal.js';
import { queueMail, type Letter } from '../../platform/mail/queue-mail.js';
import { ProblemError } from '../../platform/problems/problem-error.js';
import { enrolledOf } from '../../queries/course-people.js';
import { courseNames } from '../../queries/course-identities.js';
import { takePlace } from '../../queries/take-enrolment.js';
import { Invitation } from '../../model/invitation.js';
import { say } from '../../words/people.js';

/** How long an invitation can be used, in milliseconds. */
const LASTS = 60 * 24 * 3_600_000;
/** In the place of a link that leads nowhere any more. */
const linkEnded = () => say('thisLinkHasEnded');

/** An open place, with what is needed to take it. */
interface Offer {
  readonly invitation: Invitation;
  readonly enrolment: Enrolment;
}

/** Invites people by mail to take their places, and gives them the places. */
@Injectable()
export class Invitations {
  constructor(
    private readonly database: Database,
    private readonly clock: Clock,
    private readonly ids: Ids,
    private readonly sessions: SessionService,
    @Inject(SETTINGS) private readonly settings: Settings,
    expiry: Expiry,
    renewal: LinkRenewal,
  ) {
    expiry.add((manager) => manager.delete(Invitation, { createdAt: LessThan(clock.real() - LASTS) }));
    renewal.add('join', (manager, token) => this.#renewed(manager, token));
  }

  /**
   * Sends a link to each of these whose place is open; an earlier link to the same place ends.
   * @param enrolmentIds null for everybody in the course
   * @returns how many were sent
   */
  async send(
    manager: EntityManager,
    emit: EmitEvent,
    by: CurrentUser,
    courseId: string,
    enrolmentIds: readonly string[] | null,
  ): Promise<number> {
    const course = await manager.findOneByOrFail(Course, { id: courseId });
    const inviter = (await courseNames(manager, courseId, [by.id])).get(by.id) ?? by.name;
    const wanted = enrolmentIds === null ? null : new Set(enrolmentIds);
    const people = (await enrolledOf(manager, courseId)).filter(
      ({ id, active, taken, email }) => active && !taken && isAddress(email) && (wanted?.has(id) ?? true),
    );
    const known = await this.#knownElsewhere(
      manager,
      courseId,
      people.map(({ email }) => email),
    );
    await this.end(
      manager,
      people.map(({ id }) => id),
    );
    const now = this.clock.real();
    const rows: Array<Omit<Invitation, 'mailId'>> = [];
    const letters: Letter[] = [];
    for (const { id, name, email } of people) {
      const token = this.ids.token();
      // Without a mail server staff pass the link on; but not one to somebody who is known here by more than this place.
      const shown = !this.database.mail.sendsMail && !known.has(email);
      rows.push({ tokenHash: hashOf(token), enrolmentId: id, address: email, shown, inviterId: by.id, createdAt: now });
      letters.push({
        kind: 'invitation',
        address: email,
        courseId,
        sealed: !shown,
        ...this.#letter(name, inviter, course, token),
      });
    }
    const mailIds = await queueMail(manager, this.ids, this.database.mail, this.clock.now(), letters);
    await insertAll(
      manager,
      Invitation,
      rows.map((row, index) => ({ ...row, mailId: mailIds[index] ?? null })),
    );
    if (people.length > 0) emit({ action: 'invited', actorId: by.id, courseId, details: { people: people.length } });
    return people.length;
  }

  /** A letter that leaves late gives as much time as one that leaves at once; the same link goes on. */
  async #renewed(manager: EntityManager, token: string): Promise<Renewed> {
    const tokenHash = hashOf(token);
    const { affected } = await manager.update(Invitation, { tokenHash }, { createdAt: this.clock.real() });
    return affected === 1 ? 'valid' : 'over';
  }

  /** All who are invited and have not joined, by name. */
  async links(courseId: string): Promise<InvitationLinkRow[]> {
    const rows = await this.database.read
      .createQueryBuilder(Invitation, 'invitation')
      .innerJoin(Enrolment, 'place', 'place.id = invitation.enrolmentId AND place.active = 1')
      .leftJoin(Mail, 'mail', "mail.id = invitation.mailId AND mail.state = 'kept' AND mail.sealed = 0")
      .where('place.courseId = :courseId', { courseId })
      .select(['place.name AS name', 'place.email AS email', 'mail.secret AS link'])
      .orderBy('place.name')
      .getRawMany<InvitationLinkRow>();
    return rows.map(({ name, email, link }) => ({ name, email, link }));
  }

  /** Links to these places lead nowhere from now on, and letters with them that have not left are not sent. */
  async end(manager: EntityManager, enrolmentIds: readonly string[]): Promise<void> {
    for (const ids of portions(enrolmentIds)) {
      const open = await manager.findBy(Invitation, { enrolmentId: In(ids) });
      for (const { mailId } of open) {
        const mail = mailId === null ? null : await manager.findOneBy(Mail, { id: mailId });
        if (mail?.secret == null) continue;
        const text = mail.text.replaceAll(mail.secret, linkEnded());
        const state = mail.state === 'waiting' ? 'ended' : mail.state;
        await manager.update(Mail, { id: mail.id }, { text, secret: null, state });
      }
      await manager.delete(Invitation, { enrolmentId: In(ids) });
    }
  }

  /** The places that a link gives: its own, and, if only the addressee can have it, all others given to the address. */
  async one(token: string): Promise<InvitationView> {
    const manager = this.database.read;
    const { invitation, offers } = await this.#valid(manager, token);
    return {
      places: await this.#shown(manager, offers),
      email: invitation.address,
      hasAccount: !invitation.shown && (await manager.existsBy(Person, { email: invitation.address })),
    };
  }

  /** The places given to an account's address, if mail to it is known to reach the person. */
  async openTo(person: CurrentUser): Promise<OpenPlace[]> {
    return this.#shown(this.database.read, await this.#offersTo(this.database.read, person));
  }

  /** Takes places by a link: with the account that is signed in, or with a new one. @returns the token for the cookie of a new account, or null */
  async accept(token: string, me: CurrentUser | null, request: JoinRequest, browser: string): Promise<string | null> {
    const { invitation, offers } = await this.#valid(this.database.read, token);
    if (me !== null) {
      await this.database.write(async (manager, emit) => {
        const found = await this.#valid(manager, token);
        await this.#take(manager, emit, found.offers, request.placeIds, me);
        // Whoever has a link that staff cannot read reads the mail of its address.
        const proven = !found.invitation.shown && found.invitation.address === me.email;
        if (proven) await manager.update(Person, { id: me.id }, { addressConfirmedAt: this.clock.real() });
      });
      return null;
    }
    const name = request.name?.trim() || (offers[0]?.enrolment.name ?? '');
    const email = invitation.address;
    await assertGoodPassword(request.password ?? '', [name, email, ...offers.map(({ enrolment }) => enrolment.name)]);
    const passwordHash = await hashPassword(request.password ?? '');
    return this.database.write(async (manager, emit) => {
      const found = await this.#valid(manager, token);
      if (await manager.existsBy(Person, { email })) throw hasAccount(found.invitation);
      const now = this.clock.real();
      const addressConfirmedAt = found.invitation.shown ? null : now;
      const person = { id: this.ids.uuid(), email, name, passwordHash, addressConfirmedAt, createsCourses: false };
      await manager.insert(Person, { ...person, createdAt: now });
      await this.#take(manager, emit, found.offers, request.placeIds, person);
      return this.sessions.openIn(manager, person.id, browser, true);
    });
  }

  /** Takes places that were given to an account's address. */
  takeOpen(me: CurrentUser, placeIds: readonly string[]): Promise<void> {
    return this.database.write(async (manager, emit) =>
      this.#take(manager, emit, await this.#offersTo(manager, me), placeIds, me),
    );
  }

  /** The person behind an open place is replaced by the one who takes it, with all that the place has. */
  async #take(
    manager: EntityManager,
    emit: EmitEvent,
    offers: readonly Offer[],
    placeIds: readonly string[],
    person: Pick<Person, 'id'>,
  ): Promise<void> {
    const wanted = new Set(placeIds);
    const taken = offers.filter(({ enrolment }) => wanted.has(enrolment.id));
    if (taken.length < wanted.size) throw linkOver();
    for (const { enrolment } of taken) {
      const { id, courseId } = enrolment;
      const there = await manager.findOneBy(Enrolment, { courseId, personId: person.id });
      if (there !== null) throw await thereAlready(manager, courseId);
      await takePlace(manager, enrolment, person.id);
      await this.end(manager, [id]);
      emit({ action: 'person-joined', actorId: person.id, courseId, details: {} });
    }
  }

  async #offersTo(manager: EntityManager, { email, addressConfirmedAt, viewAs }: CurrentUser): Promise<Offer[]> {
    if (email === null || addressConfirmedAt === null || viewAs !== undefined) return [];
    return this.#offers(manager, await manager.findBy(Invitation, { address: email }));
  }

  async #offers(manager: EntityManager, invitations: readonly Invitation[]): Promise<Offer[]> {
    const offers: Offer[] = [];
    for (const invitation of invitations) {
      const enrolment = await manager.findOneBy(Enrolment, { id: invitation.enrolmentId, active: true });
      if (enrolment === null || this.#isOver(invitation)) continue;
      offers.push({ invitation, enrolment });
    }
    return offers;
  }

  async #valid(
    manager: EntityManager,
    token: string,
  ): Promise<{ readonly invitation: Invitation; readonly offers: readonly Offer[] }> {
    const invitation = await manager.findOneBy(Invitation, { tokenHash: hashOf(token) });
    if (invitation === null || this.#isOver(invitation)) throw linkOver();
    const { address, tokenHash } = invitation;
    const others = invitation.shown ? [] : await manager.findBy(Invitation, { address, tokenHash: Not(tokenHash) });
    return { invitation, offers: await this.#offers(manager, [invitation, ...others]) };
  }

  #isOver({ createdAt }: Invitation): boolean {
    return this.clock.real() - createdAt > LASTS;
  }

  async #shown(manager: EntityManager, offers: readonly Offer[]): Promise<OpenPlace[]> {
    const places: OpenPlace[] = [];
    for (const { invitation, enrolment } of offers) {
      const { title } = await manager.findOneByOrFail(Course, { id: enrolment.courseId });
      const by = (await courseNames(manager, enrolment.courseId, [invitation.inviterId])).get(invitation.inviterId);
      const { id, name, role } = enrolment;
      places.push({ id, course: title, name, role, by: by ?? say('yourInstructor') });
    }
    return places;
  }

  /** Addresses that have an account, or a place in another course. */
  async #knownElsewhere(
    manager: EntityManager,
    courseId: string,
    emails: readonly string[],
  ): Promise<ReadonlySet<string>> {
    const known = new Set<string>();
    for (const portion of portions(emails)) {
      const some = In(portion);
      const accounts = await manager.find(Person, { select: { email: true }, where: { email: some } });
      const places = await manager.find(Enrolment, {
        select: { email: true },
        where: { email: some, courseId: Not(courseId) },
      });
      for (const { email } of [...accounts, ...places]) known.add(email as string);
    }
    return known;
  }

  #letter(name: string, inviter: string, course: Course, token: string): Pick<Letter, 'subject' | 'text' | 'secret'> {
    const secret = `${this.settings.publicUrl}/join/${token}`;
    return {
      subject: say('yourPlaceIn', { title: course.title }),
      text: say('hasGivenYouPlaceIn', { name, inviter, title: course.title, secret }),
      secret,
    };
  }
}

function linkOver(): ProblemError {
  return new ProblemError({
    code: 'link-over',
    sentence: say('thisInvitationHasBeenUsed'),
    whatToDo: say('signInIfYouHave'),
  });
}

/** By a link that staff can read, it is not told that there is an account. */
function hasAccount({ shown }: Invitation): ProblemError {
  return shown
    ? linkOver()
    : new ProblemError({
        code: 'address-taken',
        sentence: say('thereIsAccountWithThis'),
        whatToDo: say('signInWithItThen'),
      });
}

async function thereAlready(manager: EntityManager, courseId: string): Promise<ProblemError> {
  const { title } = await manager.findOneByOrFail(Course, { id: courseId });
  return new ProblemError({
    code: 'place-there-already',
    sentence: say('youHavePlaceInAlready', { title }),
    whatToDo: say('tellYourInstructorWhichOf'),
  });
}
