import 'reflect-metadata';
import { Campus } from '../../../model/campus.js';
import { Person } from '../../../model/person.js';
import { Clock } from '../../../platform/clock/clock.js';
import { Database } from '../../../platform/database/database.js';
import { ARRIVAL_FAULTS, isArrivalFault } from '../../../platform/problems/campus-sentences.js';
import { isoOrNull } from '../../../platform/wire/instants.js';

/** What the one who runs the server does with campuses, at its own keyboard. Each works beside a server that is up. */

export interface CampusLine {
  readonly id: string;
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
    return rows.map(({ id, name, issuer, active, answeredAt, fault, arrivalFault }) => ({
      ...{ id, name, issuer, active, answeredAt: isoOrNull(answeredAt) },
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

/**
 * Removes a platform, as the page does: people keep their places and work.
 *
 * @param which its id, or its name where only one has it
 * @returns its name
 * @throws Error with a sentence for the one at the keyboard
 */
export function removeCampus(folder: string, which: string): Promise<string> {
  return opened(folder, async (database) => {
    const wanted = which.trim();
    const rows = (await database.read.find(Campus)).filter(({ id, name }) => id === wanted || name === wanted);
    const [row] = rows;
    if (row === undefined) throw new Error(`There is no platform with the id or name “${wanted}”.`);
    if (rows.length > 1) throw new Error(`${rows.length} platforms are called “${wanted}”: give the id of one.`);
    await database.write(async (manager, emit) => {
      await manager.delete(Campus, { id: row.id });
      emit({ action: 'campus-removed', actorId: null, details: { campus: row.id } });
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
