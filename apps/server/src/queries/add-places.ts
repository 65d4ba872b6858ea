import type { PlaceSource } from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import { Enrolment } from '../model/course.js';
import { Person } from '../model/person.js';
import { insertAll } from '../platform/database/insert-all.js';
import type { Ids } from '../platform/ids/ids.js';

/** What a course says of somebody whom it gives a place. */
export type NewPlace = Pick<Enrolment, 'name' | 'email' | 'role' | 'campusId' | 'section' | 'trait'> &
  Partial<Pick<Enrolment, 'ltiUser'>>;

/**
 * Gives places in a course. Each waits for the person to take it, also where the address has an account or other places: the
 * course does not learn of those. @returns the ids of the enrolments, in the order given
 */
export async function addPlaces(
  manager: EntityManager,
  ids: Ids,
  now: number,
  courseId: string,
  places: readonly NewPlace[],
  source: PlaceSource = 'hand',
): Promise<string[]> {
  const rows = places.map(({ name, email, role, campusId, section, trait, ltiUser = null }) => ({
    person: { id: ids.uuid(), email: null, name, passwordHash: null, createdAt: now },
    place: { id: ids.uuid(), courseId, name, email, role, active: true, campusId, section, trait, ltiUser, source },
  }));
  await insertAll(
    manager,
    Person,
    rows.map(({ person }) => person),
  );
  await insertAll(
    manager,
    Enrolment,
    rows.map(({ person, place }) => ({ ...place, personId: person.id })),
  );
  return rows.map(({ place }) => place.id);
}
