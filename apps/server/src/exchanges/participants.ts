import { makeAliases, seededRandom } from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import { Enrolment } from '../courses/entities.js';
import { insertAll } from '../database/insert-all.js';
import type { Ids } from '../ids/ids.js';
import { Participant } from './entities.js';

/**
 * Gives every active student of the course a part in the exchange who has none yet.
 * Ids and aliases are drawn at random and handed out in enrolment order.
 */
export async function enrolParticipants(
  manager: EntityManager,
  exchange: { readonly id: string; readonly courseId: string },
  ids: Ids,
): Promise<void> {
  const already = await manager.findBy(Participant, { exchangeId: exchange.id });
  const known = new Set(already.map(({ personId }) => personId));
  const enrolments = await manager.find(Enrolment, {
    where: { courseId: exchange.courseId, role: 'student', active: true },
    order: { id: 'ASC' },
  });
  const fresh = enrolments.filter(({ personId }) => !known.has(personId));
  const aliases = makeAliases(fresh.length, new Set(already.map(({ alias }) => alias)), seededRandom(ids.seed()));
  const rows = fresh.map(({ personId }, index) => ({
    id: ids.uuid(),
    exchangeId: exchange.id,
    personId,
    alias: aliases[index] as string,
  }));
  await insertAll(manager, Participant, rows);
}
