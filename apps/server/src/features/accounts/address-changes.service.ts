import { Inject, Injectable } from '@nestjs/common';
import type { AddressLinkView } from '@salt-circle/contracts';
import { LessThan, type EntityManager } from 'typeorm';
import type { CurrentUser } from '../../auth/view-as.js';
import { AddressChange, PasswordLink, Person } from '../../model/person.js';
import { Clock } from '../../platform/clock/clock.js';
import { mailArrives, type Settings } from '../../platform/config/settings.js';
import { SETTINGS } from '../../platform/config/settings.token.js';
import { Database } from '../../platform/database/database.js';
import { Expiry } from '../../platform/expiry/expiry.js';
import { hashOf } from '../../platform/ids/hash-of.js';
import { Ids } from '../../platform/ids/ids.js';
import { queueMail } from '../../platform/mail/queue-mail.js';
import { ProblemError } from '../../platform/problems/problem-error.js';
import { addressLetter } from './letters.js';
import { say } from '../../words/accounts.js';

/** How long the links can be used, in milliseconds. */
const LASTS = 24 * 3_600_000;

type Which = AddressLinkView['which'];

/** An account gets another address once that is confirmed from the old one and from the new one. */
@Injectable()
export class AddressChanges {
  constructor(
    private readonly database: Database,
    private readonly clock: Clock,
    private readonly ids: Ids,
    @Inject(SETTINGS) private readonly settings: Settings,
    expiry: Expiry,
  ) {
    expiry.add((manager) => this.#removeOver(manager));
  }

  /** Sends both links. Whether the new address has an account already is told to its own mailbox only, by there being no link. */
  async ask(person: CurrentUser, email: string): Promise<void> {
    const to = email.trim().toLowerCase();
    const from = person.email ?? '';
    if (to === from) throw taken(say('thisIsYourAddressAlready'));
    if (!mailArrives(this.settings)) {
      throw new ProblemError({
        code: 'no-mail',
        sentence: say('thisServerSendsNoMail'),
        whatToDo: say('goOnWithOneThat'),
      });
    }
    const tokens = { old: this.ids.token(), new: this.ids.token() };
    await this.database.write(async (manager) => {
      await manager.delete(AddressChange, { personId: person.id });
      await manager.insert(AddressChange, {
        personId: person.id,
        email: to,
        oldTokenHash: hashOf(tokens.old),
        newTokenHash: hashOf(tokens.new),
        createdAt: this.clock.real(),
      });
      const known = await manager.existsBy(Person, { email: to });
      const letters = (['old', 'new'] as const)
        .filter((which) => which === 'old' || !known)
        .map((which) => ({
          address: which === 'old' ? from : to,
          ...addressLetter(`${this.settings.publicUrl}/address/${tokens[which]}`, { from, to }),
        }));
      await queueMail(manager, this.ids, this.database.mail, this.clock.now(), letters);
    });
  }

  async callOff(person: CurrentUser): Promise<void> {
    await this.database.write((manager) => manager.delete(AddressChange, { personId: person.id }));
  }

  async one(token: string): Promise<AddressLinkView> {
    const { change, which, person } = await this.#valid(this.database.read, token);
    return { from: person.email ?? '', to: change.email, which, last: isLast(change, which) };
  }

  /** @returns whether the change is made by it, or waits for the other link */
  confirm(token: string): Promise<{ readonly made: boolean }> {
    return this.database.write(async (manager, emit) => {
      const { change, which, person } = await this.#valid(manager, token);
      if (!isLast(change, which)) {
        await manager.update(
          AddressChange,
          { personId: person.id },
          which === 'old' ? { oldTokenHash: null } : { newTokenHash: null },
        );
        return { made: false };
      }
      if (await manager.existsBy(Person, { email: change.email })) throw taken(say('thisAddressHasAccountBy'));
      await manager.update(Person, { id: person.id }, { email: change.email, addressConfirmedAt: this.clock.real() });
      await manager.delete(AddressChange, { personId: person.id });
      // Links that went to the old address let nobody in any more.
      await manager.delete(PasswordLink, { personId: person.id });
      emit({ action: 'address-changed', actorId: person.id });
      return { made: true };
    });
  }

  async #removeOver(manager: EntityManager): Promise<void> {
    await manager.delete(AddressChange, { createdAt: LessThan(this.clock.real() - LASTS) });
  }

  async #valid(
    manager: EntityManager,
    token: string,
  ): Promise<{ readonly change: AddressChange; readonly which: Which; readonly person: Person }> {
    const hash = hashOf(token);
    const change = await manager.findOne(AddressChange, { where: [{ oldTokenHash: hash }, { newTokenHash: hash }] });
    const person = change === null ? null : await manager.findOneBy(Person, { id: change.personId });
    if (change !== null && person !== null && this.clock.real() - change.createdAt <= LASTS) {
      return { change, which: change.oldTokenHash === hash ? 'old' : 'new', person };
    }
    throw new ProblemError({
      code: 'link-over',
      sentence: say('thisLinkHasBeenUsed'),
      whatToDo: say('askForChangeAgainUnder'),
    });
  }
}

function isLast({ oldTokenHash, newTokenHash }: AddressChange, which: Which): boolean {
  return (which === 'old' ? newTokenHash : oldTokenHash) === null;
}

function taken(sentence: string): ProblemError {
  return new ProblemError({
    code: 'address-taken',
    sentence,
    whatToDo: say('giveAnotherOne'),
    fields: [{ path: 'email', code: 'address-taken', sentence }],
  });
}
