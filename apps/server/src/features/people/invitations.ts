import { createHash } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import type { InvitationView } from '@salt-circle/contracts';
import type { EntityManager } from 'typeorm';
import type { Asker } from '../../access/seeing.js';
import { Person } from '../../model/person.js';
import { hashPassword } from '../../platform/security/passwords.js';
import { SessionService } from '../../access/session.service.js';
import { Clock } from '../../platform/clock/clock.js';
import type { Settings } from '../../platform/config/settings.js';
import { SETTINGS } from '../../platform/config/settings.token.js';
import { Course } from '../../model/course.js';
import { Database, type Report } from '../../platform/database/database.js';
import { insertAll } from '../../platform/database/insert-all.js';
import { Ids } from '../../platform/ids/ids.js';
import { queueMail, type Letter } from '../../platform/mail/queue-mail.js';
import { ProblemError } from '../../platform/problems/problem-error.js';
import { enrolledOf } from '../../access/enrolled.js';
import { Invitation } from '../../model/invitation.js';

/** How long an invitation can be used. */
const LASTS = 60 * 24 * 3_600_000;

function hashOf(token: string): string {
  return createHash('sha256').update(token).digest('base64url');
}

/** Invites people without an account by mail, and lets them in. */
@Injectable()
export class Invitations {
  constructor(
    private readonly database: Database,
    private readonly clock: Clock,
    private readonly ids: Ids,
    private readonly sessions: SessionService,
    @Inject(SETTINGS) private readonly settings: Settings,
  ) {}

  /**
   * Sends a link to each of these who has no account yet; an earlier link of the same course ends.
   * @param enrolmentIds null for everybody in the course
   * @returns how many were sent
   */
  async send(
    manager: EntityManager,
    happened: Report,
    by: Asker,
    courseId: string,
    enrolmentIds: readonly string[] | null,
  ): Promise<number> {
    const course = await manager.findOneByOrFail(Course, { id: courseId });
    const wanted = enrolmentIds === null ? null : new Set(enrolmentIds);
    const people = (await enrolledOf(manager, courseId)).filter(
      ({ id, active, ownsAccount }) => active && !ownsAccount && (wanted?.has(id) ?? true),
    );
    const now = this.clock.real();
    const rows: Array<Partial<Invitation>> = [];
    const letters: Letter[] = [];
    for (const { personId, name, email } of people) {
      const token = this.ids.token();
      await manager.delete(Invitation, { personId, courseId });
      rows.push({ tokenHash: hashOf(token), personId, courseId, inviterId: by.id, createdAt: now });
      letters.push({ address: email, courseId, ...this.#letter(name, by, course, token) });
    }
    await insertAll(manager, Invitation, rows);
    await queueMail(manager, this.ids, this.database.mail, this.clock.now(), letters);
    if (people.length > 0)
      happened({ action: 'invited', actorId: by.id, courseId, details: { people: people.length } });
    return people.length;
  }

  async one(token: string): Promise<InvitationView> {
    const manager = this.database.read;
    const { invitation, person } = await this.#valid(manager, token);
    const course = await manager.findOneByOrFail(Course, { id: invitation.courseId });
    const by = await manager.findOneBy(Person, { id: invitation.inviterId });
    return { course: course.title, name: person.name, email: person.email, by: by?.name ?? 'your instructor' };
  }

  /** Makes the account, and signs in. @returns the token for the cookie */
  async accept(token: string, password: string): Promise<string> {
    // Before the work of hashing, which nobody should be able to cause with a made-up link.
    await this.#valid(this.database.read, token);
    const passwordHash = await hashPassword(password);
    const person = await this.database.write(async (manager, happened) => {
      const found = await this.#valid(manager, token);
      await manager.update(Person, { id: found.person.id }, { passwordHash });
      await manager.update(Invitation, { tokenHash: hashOf(token) }, { usedAt: this.clock.real() });
      happened({ action: 'person-joined', actorId: found.person.id, courseId: found.invitation.courseId });
      return found.person;
    });
    return this.sessions.open(person, 'signed-in');
  }

  async #valid(manager: EntityManager, token: string): Promise<{ invitation: Invitation; person: Asker }> {
    const invitation = await manager.findOneBy(Invitation, { tokenHash: hashOf(token) });
    const person = invitation === null ? null : await manager.findOneBy(Person, { id: invitation.personId });
    const over = invitation === null || invitation.usedAt !== null || this.clock.real() - invitation.createdAt > LASTS;
    // Whoever has an account signs in with it; an old link must not replace a password.
    if (over || person === null || person.passwordHash !== null) {
      throw new ProblemError({
        code: 'link-over',
        sentence: 'This invitation has been used, replaced by a newer one, or has run out.',
        whatToDo: 'Sign in if you have an account, or ask your instructor for a new invitation.',
      });
    }
    return { invitation, person };
  }

  #letter(name: string, by: Asker, course: Course, token: string): Pick<Letter, 'subject' | 'text' | 'secret'> {
    const secret = `${this.settings.publicUrl}/join/${token}`;
    return {
      subject: `Your place in ${course.title}`,
      text:
        `${name},\n\n${by.name} has given you a place in “${course.title}” on Salt Circle, where drafts are reviewed by classmates.\n\n` +
        `Choose a password here:\n${secret}\n\nThe link is for you alone and can be used once, within 60 days.\n`,
      secret,
    };
  }
}
