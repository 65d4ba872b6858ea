import { Inject, Injectable } from '@nestjs/common';
import type { AccountView } from '@salt-circle/contracts';
import { shownAddress } from '@salt-circle/core';
import Bowser from 'bowser';
import type { EntityManager } from 'typeorm';
import { RecentPassword } from '../../auth/recent-password.service.js';
import { SessionService } from '../../auth/session.service.js';
import type { CurrentUser } from '../../auth/view-as.js';
import { Course, Enrolment } from '../../model/course.js';
import { AddressChange, PasswordLink, Person, Session } from '../../model/person.js';
import { Clock } from '../../platform/clock/clock.js';
import type { Settings } from '../../platform/config/settings.js';
import { SETTINGS } from '../../platform/config/settings.token.js';
import { Database } from '../../platform/database/database.js';
import { Ids } from '../../platform/ids/ids.js';
import { queueMail } from '../../platform/mail/queue-mail.js';
import { refusal } from '../../platform/problems/sentences.js';
import { assertGoodPassword } from '../../platform/security/password-rules.js';
import { hashPassword } from '../../platform/security/passwords.js';
import { iso } from '../../platform/wire/instants.js';
import { passwordChanged } from './letters.js';
import { say } from '../../words/accounts.js';

/** What somebody sees and changes of the own account. Nobody else does, whatever their role. */
@Injectable()
export class AccountService {
  constructor(
    private readonly database: Database,
    private readonly clock: Clock,
    private readonly ids: Ids,
    private readonly sessions: SessionService,
    private readonly recent: RecentPassword,
    @Inject(SETTINGS) private readonly settings: Settings,
  ) {}

  /** Without the places that wait to be taken, of which the invitations know. */
  async one(person: CurrentUser, cookie: string | undefined): Promise<Omit<AccountView, 'open'>> {
    assertOwn(person);
    const manager = this.database.read;
    const change = await manager.findOneBy(AddressChange, { personId: person.id });
    const { sessions, present } = await this.sessions.of(person.id, cookie);
    return {
      name: person.name,
      email: person.email ?? '',
      confirmed: person.addressConfirmedAt !== null,
      newAddress:
        change === null
          ? null
          : { email: change.email, fromOld: change.oldTokenHash === null, fromNew: change.newTokenHash === null },
      sessions: sessions.map((one) => sessionRow(one, present)),
      places: await placesOf(manager, person.id),
    };
  }

  async rename(person: CurrentUser, name: string): Promise<void> {
    assertOwn(person);
    await this.database.write((manager) => manager.update(Person, { id: person.id }, { name: name.trim() }));
  }

  /** Signs out all other browsers. */
  async changePassword(person: CurrentUser, old: string, password: string, cookie: string | undefined): Promise<void> {
    assertOwn(person);
    await this.recent.assertPassword(person, old, 'old');
    await assertGoodPassword(password, [person.name, person.email]);
    const passwordHash = await hashPassword(password);
    const { present } = await this.sessions.of(person.id, cookie);
    await this.database.write(async (manager, emit) => {
      await manager.update(Person, { id: person.id }, { passwordHash });
      await manager.delete(PasswordLink, { personId: person.id });
      await this.sessions.end(manager, person.id, { keep: present });
      emit({ action: 'password-changed', actorId: person.id });
      if (person.email !== null) {
        const letter = { address: person.email, ...passwordChanged(this.settings.publicUrl) };
        await queueMail(manager, this.ids, this.database.mail, this.clock.now(), [letter]);
      }
    });
  }

  /** Signs out one browser, or, without an id, all but the one that asks. */
  async endSessions(person: CurrentUser, cookie: string | undefined, id?: string): Promise<void> {
    assertOwn(person);
    const { sessions, present } = await this.sessions.of(person.id, cookie);
    if (id !== undefined && !sessions.some((one) => one.id === id)) throw refusal('unknown');
    await this.database.write((manager) =>
      this.sessions.end(manager, person.id, id === undefined ? { keep: present } : { id }),
    );
  }
}

/** With a student's eyes, the account is still nobody's but the student's. */
function assertOwn(person: CurrentUser): void {
  if (person.viewAs !== undefined) throw refusal('unknown');
}

function sessionRow(
  { id, browser, createdAt, lastSeenAt }: Session,
  present: string | null,
): AccountView['sessions'][number] {
  return {
    id,
    browser: browserWords(browser),
    since: iso(createdAt),
    lastSeen: iso(lastSeenAt),
    thisOne: id === present,
  };
}

function browserWords(given: string): string {
  if (given === '') return say('browser');
  const { browser, os } = Bowser.parse(given);
  const name = browser.name ?? say('browser');
  return os.name === undefined ? name : say('on', { browser: name, os: os.name });
}

async function placesOf(manager: EntityManager, personId: string): Promise<AccountView['places']> {
  const places: Array<AccountView['places'][number]> = [];
  for (const { courseId, name, email, role } of await manager.findBy(Enrolment, { personId, active: true })) {
    const { title } = await manager.findOneByOrFail(Course, { id: courseId });
    places.push({ course: title, name, email: shownAddress(email), role });
  }
  return places.sort((a, b) => a.course.localeCompare(b.course));
}
