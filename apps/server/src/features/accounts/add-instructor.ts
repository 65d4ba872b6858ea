import 'reflect-metadata';
import { isEmail } from 'class-validator';
import { Clock } from '../../platform/clock/clock.js';
import { Database } from '../../platform/database/database.js';
import { Ids } from '../../platform/ids/ids.js';
import { Person } from '../../model/person.js';
import { hashPassword } from '../../platform/security/passwords.js';

/** NIST SP 800-63B asks for 8 at least; an account that creates courses is worth more. */
const MIN_PASSWORD = 12;

export interface NewInstructor {
  readonly name: string;
  readonly email: string;
  readonly password: string;
}

/**
 * Makes an account that may create courses, by the command line: the first one has nobody to be invited by.
 * @throws Error with a sentence for the one at the keyboard
 */
export async function addInstructor(folder: string, { name, email, password }: NewInstructor): Promise<void> {
  const address = email.trim().toLowerCase();
  if (name.trim() === '') throw new Error('The name is empty.');
  if (!isEmail(address)) throw new Error(`“${email}” is not an email address.`);
  if (password.length < MIN_PASSWORD)
    throw new Error(`The password has ${password.length} characters; it needs ${MIN_PASSWORD}.`);
  const clock = new Clock();
  const database = await Database.open(folder, clock);
  try {
    if (await database.read.existsBy(Person, { email: address }))
      throw new Error(`There is an account for ${address} already.`);
    const passwordHash = await hashPassword(password);
    const row = { id: new Ids().uuid(), name: name.trim(), email: address, passwordHash, createsCourses: true };
    await database.write((manager) => manager.insert(Person, { ...row, createdAt: clock.now() }));
  } finally {
    await database.onApplicationShutdown();
  }
}
