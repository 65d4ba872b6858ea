import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Clock } from '../../platform/clock/clock.js';
import { Database } from '../../platform/database/database.js';
import { addInstructor } from './commands.js';
import { Person } from '../../model/person.js';
import { passwordFits } from '../../platform/security/passwords.js';

describe('addInstructor', () => {
  let folder: string;
  beforeEach(() => {
    folder = mkdtempSync(join(tmpdir(), 'salt-circle-'));
  });
  afterEach(() => rmSync(folder, { recursive: true, force: true }));

  const given = { name: ' Ines Marchetti ', email: 'Ines@Example.org', password: 'glasswort and thrift' };

  it('makes an account that may create courses, and whose password fits', async () => {
    await addInstructor(folder, given);
    const database = await Database.open(folder, new Clock());
    const [person] = await database.read.find(Person);
    await database.onApplicationShutdown();
    expect(person).toMatchObject({ name: 'Ines Marchetti', email: 'ines@example.org', createsCourses: true });
    expect(await passwordFits(person?.passwordHash ?? null, given.password)).toBe(true);
    expect(await passwordFits(person?.passwordHash ?? null, `${given.password} `)).toBe(false);
  });

  it.each([
    ['an empty name', { name: ' ' }, 'The name is empty'],
    ['no address', { email: 'ines' }, 'is not an email address'],
    ['a short password', { password: 'short' }, 'it needs 10'],
  ])('refuses %s', async (_, part, sentence) => {
    await expect(addInstructor(folder, { ...given, ...part })).rejects.toThrow(sentence);
  });

  it('refuses an address that has an account', async () => {
    await addInstructor(folder, given);
    await expect(addInstructor(folder, { ...given, email: 'ines@example.org' })).rejects.toThrow(
      'account for ines@example.org already',
    );
  });
});
