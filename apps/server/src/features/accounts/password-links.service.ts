import { Inject, Injectable, Logger, type OnApplicationShutdown } from '@nestjs/common';
import type { PasswordLinkView } from '@salt-circle/contracts';
import { In, LessThan, Like, Not, type EntityManager } from 'typeorm';
import { SessionService } from '../../auth/session.service.js';
import { Enrolment } from '../../model/course.js';
import { Mail } from '../../model/mail.js';
import { PasswordLink, Person } from '../../model/person.js';
import { Clock } from '../../platform/clock/clock.js';
import { mailArrives, type Settings } from '../../platform/config/settings.js';
import { SETTINGS } from '../../platform/config/settings.token.js';
import { Database } from '../../platform/database/database.js';
import { Expiry } from '../../platform/expiry/expiry.js';
import { hashOf } from '../../platform/ids/hash-of.js';
import { Ids } from '../../platform/ids/ids.js';
import { LinkRenewal, type Renewed } from '../../platform/mail/link-renewal.js';
import { queueMail } from '../../platform/mail/queue-mail.js';
import { ProblemError } from '../../platform/problems/problem-error.js';
import { assertGoodPassword } from '../../platform/security/password-rules.js';
import { hashPassword } from '../../platform/security/passwords.js';
import { Tries } from '../../platform/security/tries.js';
import { passwordChanged } from './letters.js';
import { makePasswordLink, PASSWORD_LINK_LASTS } from './make-password-link.js';
import { say } from '../../words/accounts.js';

/** Links by which whoever reads the mail of an account chooses a new password. */
@Injectable()
export class PasswordLinks implements OnApplicationShutdown {
  readonly #logger = new Logger('password-links');
  #busy: Promise<unknown> = Promise.resolve();

  constructor(
    private readonly database: Database,
    private readonly clock: Clock,
    private readonly ids: Ids,
    private readonly sessions: SessionService,
    private readonly tries: Tries,
    @Inject(SETTINGS) private readonly settings: Settings,
    expiry: Expiry,
    renewal: LinkRenewal,
  ) {
    expiry.add((manager) => this.#removeOver(manager));
    renewal.add('password', (manager, token) => this.#renewed(manager, token));
  }

  async onApplicationShutdown(): Promise<void> {
    await this.#busy;
  }

  /** Answers the same, and as quickly, whether there is an account or not: the rest is done afterwards. */
  async ask(email: string, network: string): Promise<void> {
    this.#assertMailArrives();
    const account = email.trim().toLowerCase();
    // Of links nobody can have so many that a person could miss one: these are counted apart from tries to sign in.
    await this.tries.take({ network: `link ${network}`, account: `link ${account}` });
    this.#busy = this.#busy
      .then(async () => {
        const person = await this.database.read.findOneBy(Person, { email: account });
        if (person !== null) await this.database.write((manager) => this.#send(manager, person));
      })
      .catch((error: Error) => this.#logger.error(error.stack ?? 'a link could not be sent'));
  }

  /** For somebody whose place in a course is taken: to the account's own address, which the course does not learn. */
  async sendTo(manager: EntityManager, enrolment: Enrolment): Promise<void> {
    this.#assertMailArrives();
    const person = await manager.findOneByOrFail(Person, { id: enrolment.personId });
    if (person.email === null) {
      throw new ProblemError({
        code: 'link-over',
        sentence: say('nobodyHasTakenThisPlace'),
        whatToDo: say('invitePersonInstead'),
      });
    }
    await this.#send(manager, person);
  }

  #send(manager: EntityManager, person: Person): Promise<string | null> {
    return makePasswordLink(manager, { ids: this.ids, clock: this.clock, mail: this.database.mail }, person);
  }

  async one(token: string): Promise<PasswordLinkView> {
    const { person } = await this.#valid(this.database.read, token);
    return { email: person.email as string };
  }

  /** Signs in, and ends all sessions and links that there were. @returns the token for the cookie */
  async use(token: string, password: string, browser: string): Promise<string> {
    // Before the work of hashing, which nobody should be able to cause with a made-up link.
    const { person } = await this.#valid(this.database.read, token);
    await assertGoodPassword(password, [person.name, person.email]);
    const passwordHash = await hashPassword(password);
    const session = await this.database.write(async (manager, emit) => {
      const found = await this.#valid(manager, token);
      const { id, email } = found.person;
      // Whoever has the link reads the mail of the address.
      await manager.update(Person, { id }, { passwordHash, addressConfirmedAt: this.clock.real() });
      await manager.delete(PasswordLink, { personId: id });
      await this.sessions.end(manager, id, {});
      emit({ action: 'password-changed', actorId: id });
      await queueMail(manager, this.ids, this.database.mail, this.clock.now(), [
        { address: email as string, ...passwordChanged(this.settings.publicUrl) },
      ]);
      return this.sessions.openIn(manager, id, browser, true);
    });
    await this.tries.forgive(person.email as string);
    return session;
  }

  /** Made anew in the second half of its time, so that whoever reads the letter has half an hour at least. */
  async #renewed(manager: EntityManager, token: string): Promise<Renewed> {
    const link = await manager.findOneBy(PasswordLink, { tokenHash: hashOf(token) });
    if (link === null) return 'over';
    const now = this.clock.real();
    if (now - link.createdAt <= PASSWORD_LINK_LASTS / 2) return 'valid';
    const fresh = this.ids.token();
    await manager.delete(PasswordLink, { tokenHash: link.tokenHash });
    await manager.insert(PasswordLink, { tokenHash: hashOf(fresh), personId: link.personId, createdAt: now });
    return { token: fresh };
  }

  async #removeOver(manager: EntityManager): Promise<void> {
    // Of one whose letter still waits, a new one is made when the letter goes.
    const waiting = await manager.findBy(Mail, { state: 'waiting', text: Like('%/password/%') });
    const kept = waiting.flatMap(({ secret }) => (secret === null ? [] : [hashOf(secret.split('/').at(-1) ?? '')]));
    const over = { createdAt: LessThan(this.clock.real() - PASSWORD_LINK_LASTS) };
    await manager.delete(PasswordLink, { ...over, ...(kept.length > 0 && { tokenHash: Not(In(kept)) }) });
  }

  #assertMailArrives(): void {
    if (mailArrives(this.settings)) return;
    throw new ProblemError({
      code: 'no-mail',
      sentence: say('thisServerSendsNoMailSo'),
      whatToDo: say('askOneWhoRunsIt'),
    });
  }

  async #valid(manager: EntityManager, token: string): Promise<{ readonly person: Person }> {
    const link = await manager.findOneBy(PasswordLink, { tokenHash: hashOf(token) });
    const person = link === null ? null : await manager.findOneBy(Person, { id: link.personId });
    if (link !== null && person?.email != null && this.clock.real() - link.createdAt <= PASSWORD_LINK_LASTS) {
      return { person };
    }
    throw new ProblemError({
      code: 'link-over',
      sentence: say('thisLinkHasBeenUsedOr'),
      whatToDo: say('haveNewOneSentTo'),
    });
  }
}
