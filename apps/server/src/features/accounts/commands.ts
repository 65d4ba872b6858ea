import 'reflect-metadata';
import { isEmail } from 'class-validator';
import { IsNull, Not } from 'typeorm';
import { Enrolment } from '../../model/course.js';
import { Person } from '../../model/person.js';
import { Clock } from '../../platform/clock/clock.js';
import type { MailSettings } from '../../platform/config/settings.js';
import { Database } from '../../platform/database/database.js';
import { Ids } from '../../platform/ids/ids.js';
import { assertGoodPassword } from '../../platform/security/password-rules.js';
import { hashPassword } from '../../platform/security/passwords.js';
import { makePasswordLink } from './make-password-link.js';

/** What the one who runs the server does with accounts, at its own keyboard. Each works beside a server that is up. */

export interface NewInstructor {
  readonly name: string;
  readonly email: string;
  readonly password: string;
}

export interface AccountLine {
  readonly name: string;
  readonly email: string;
  readonly createsCourses: boolean;
  /** That mail to the address is known to arrive. */
  readonly confirmed: boolean;
  /** Active places in courses. */
  readonly places: number;
}

/**
 * Makes an account that may create courses: the first one has nobody to be invited by.
 * @throws Error with a sentence for the one at the keyboard
 */
export async function addInstructor(folder: string, { name, email, password }: NewInstructor): Promise<void> {
  const address = email.trim().toLowerCase();
  if (name.trim() === '') throw new Error('The name is empty.');
  if (!isEmail(address)) throw new Error(`“${email}” is not an email address.`);
  await assertGoodPassword(password, [name, address]);
  const clock = new Clock();
  await opened(folder, clock, undefined, async (database) => {
    if (await database.read.existsBy(Person, { email: address }))
      throw new Error(`There is an account for ${address} already.`);
    const passwordHash = await hashPassword(password);
    const row = { id: new Ids().uuid(), name: name.trim(), email: address, passwordHash, createsCourses: true };
    const createdAt = clock.now();
    await database.write((manager) => manager.insert(Person, { ...row, addressConfirmedAt: createdAt, createdAt }));
  });
}

/** All accounts, by address. */
export function listAccounts(folder: string): Promise<AccountLine[]> {
  return opened(folder, new Clock(), undefined, async ({ read }) => {
    const people = await read.find(Person, { where: { email: Not(IsNull()) }, order: { email: 'ASC' } });
    const lines: AccountLine[] = [];
    for (const { id, name, email, createsCourses, addressConfirmedAt } of people) {
      const places = await read.countBy(Enrolment, { personId: id, active: true });
      lines.push({ name, email: email ?? '', createsCourses, confirmed: addressConfirmedAt !== null, places });
    }
    return lines;
  });
}

/**
 * Makes a link for a new password, and the mail with it, which a server with a mail server sends.
 * @returns the link, to be passed on where no mail is sent
 * @throws Error with a sentence for the one at the keyboard
 */
export function sendReset(folder: string, email: string, mail: MailSettings): Promise<string> {
  const clock = new Clock();
  return opened(folder, clock, mail, async (database) => {
    const address = email.trim().toLowerCase();
    const person = await database.read.findOneBy(Person, { email: address });
    if (person === null) throw new Error(`There is no account for ${address}.`);
    const making = { ids: new Ids(), clock, mail };
    const link = await database.write((manager) => makePasswordLink(manager, making, person));
    if (link === null)
      throw new Error(`${address} has been sent three links within the hour. Wait, or use one of them.`);
    return link;
  });
}

async function opened<T>(
  folder: string,
  clock: Clock,
  mail: MailSettings | undefined,
  work: (database: Database) => Promise<T>,
): Promise<T> {
  const database = await Database.open(folder, clock, mail === undefined ? undefined : { mail, handlers: [] });
  try {
    return await work(database);
  } finally {
    await database.onApplicationShutdown();
  }
}
