import 'reflect-metadata';
import { Campus } from '../../model/campus.js';
import { Person } from '../../model/person.js';
import { Clock } from '../../platform/clock/clock.js';
import { Database } from '../../platform/database/database.js';
import { ARRIVAL_FAULTS, isArrivalFault } from '../../platform/problems/campus-sentences.js';
import { isoOrNull } from '../../platform/wire/instants.js';

/** What the one who runs the server does with campuses, at its own keyboard. Each works beside a server that is up. */

export interface CampusLine {
  readonly name: string;
  readonly issuer: string;
  readonly active: boolean;
  readonly answeredAt: string | null;
  readonly fault: string | null;
}

/** All campuses, by name. */
export function listCampuses(folder: string): Promise<CampusLine[]> {
  return opened(folder, async ({ read }) => {
    const rows = await read.find(Campus, { order: { name: 'ASC', id: 'ASC' } });
    return rows.map(({ name, issuer, active, answeredAt, fault, arrivalFault }) => ({
      ...{ name, issuer, active, answeredAt: isoOrNull(answeredAt) },
      fault:
        fault ?? (arrivalFault !== null && isArrivalFault(arrivalFault) ? ARRIVAL_FAULTS[arrivalFault]()[0] : null),
    }));
  });
}

/**
 * Lets somebody see to campuses, or does so no more.
 * @returns the person's name
 * @throws Error with a sentence for the one at the keyboard
 */
export function letRunCampuses(folder: string, email: string, runsCampuses: boolean): Promise<string> {
  return opened(folder, async (database) => {
    const address = email.trim().toLowerCase();
    const person = await database.read.findOneBy(Person, { email: address });
    if (person === null) throw new Error(`There is no account for ${address}.`);
    await database.write((manager) => manager.update(Person, { id: person.id }, { runsCampuses }));
    return person.name;
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
