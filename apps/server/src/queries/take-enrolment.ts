import type { EntityManager } from 'typeorm';
import { Enrolment } from '../model/course.js';
import { Participant } from '../model/exchange.js';
import { Person } from '../model/person.js';

/** The person behind an open place is replaced by the one who takes it, with all that the place has. */
export async function takePlace(
  manager: EntityManager,
  { id, personId: nobody }: Pick<Enrolment, 'id' | 'personId'>,
  personId: string,
): Promise<void> {
  await manager.update(Enrolment, { id }, { personId });
  await manager.update(Participant, { personId: nobody }, { personId });
  await manager.delete(Person, { id: nobody });
}
