import 'reflect-metadata';
import { LtiPlatform } from '../../../model/lti.js';
import { Person } from '../../../model/person.js';
import { Clock } from '../../../platform/clock/clock.js';
import { Database } from '../../../platform/database/database.js';
import { ARRIVAL_FAULTS, isArrivalFault } from '../../../platform/problems/lti-sentences.js';
import { isoOrNull } from '../../../platform/wire/instants.js';

/** What the one who runs the server does with platforms, at its own keyboard. Each works beside a server that is up. */

export interface PlatformLine {
  readonly id: string;
  readonly name: string;
  readonly issuer: string;
  readonly active: boolean;
  readonly answeredAt: string | null;
  readonly fault: string | null;
}

/** All platforms, by name. */
export function listPlatforms(folder: string): Promise<PlatformLine[]> {
  return opened(folder, async ({ read }) => {
    const rows = await read.find(LtiPlatform, { order: { name: 'ASC', id: 'ASC' } });
    return rows.map(({ id, name, issuer, active, answeredAt, fault, arrivalFault }) => ({
      ...{ id, name, issuer, active, answeredAt: isoOrNull(answeredAt) },
      fault:
        fault ?? (arrivalFault !== null && isArrivalFault(arrivalFault) ? ARRIVAL_FAULTS[arrivalFault]()[0] : null),
    }));
  });
}

/**
 * Lets somebody see to platforms, or does so no more.
 * @returns the person's name
 * @throws Error with a sentence for the one at the keyboard
 */
export function letRunPlatforms(folder: string, email: string, runsPlatforms: boolean): Promise<string> {
  return opened(folder, async (database) => {
    const address = email.trim().toLowerCase();
    const person = await database.read.findOneBy(Person, { email: address });
    if (person === null) throw new Error(`There is no account for ${address}.`);
    await database.write((manager) => manager.update(Person, { id: person.id }, { runsPlatforms }));
    return person.name;
  });
}

/**
 * Removes a platform, as the page does: people keep their places and work.
 *
 * @param which its id, or its name where only one has it
 * @returns its name
 * @throws Error with a sentence for the one at the keyboard
 */
export function removePlatform(folder: string, which: string): Promise<string> {
  return opened(folder, async (database) => {
    const wanted = which.trim();
    const rows = (await database.read.find(LtiPlatform)).filter(({ id, name }) => id === wanted || name === wanted);
    const [row] = rows;
    if (row === undefined) throw new Error(`There is no platform with the id or name “${wanted}”.`);
    if (rows.length > 1) throw new Error(`${rows.length} platforms are called “${wanted}”: give the id of one.`);
    await database.write(async (manager, emit) => {
      await manager.delete(LtiPlatform, { id: row.id });
      emit({ action: 'platform-removed', actorId: null, details: { platform: row.id } });
    });
    return row.name;
  });
}

async function opened<T>(folder: string, work: (database: Database) => Promise<T>): Promise<T> {
  const database = await Database.open(folder, new Clock());
  try {
    return await work(database);
  } finally {
    await database.onApplicationShutdown();
  }
}
