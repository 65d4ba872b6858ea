import { makeAliases, seededRandom, takesPart } from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import { insertAll } from '../platform/database/insert-all.js';
import type { Ids } from '../platform/ids/ids.js';
import { studentsOf } from './students.js';
import { Enrolment } from '../model/course.js';
import { Exchange, Participant } from '../model/exchange.js';
import { takesPartRule } from './setup-of.js';

/**
 * Gives every active student who takes part a part in the exchange, unless there is one already.
 * Ids and aliases are drawn at random and handed out in enrolment order.
 */
export async function enrolParticipants(manager: EntityManager, exchange: Exchange, ids: Ids): Promise<void> {
  const already = await manager.findBy(Participant, { exchangeId: exchange.id });
  const known = new Set(already.map(({ personId }) => personId));
  const rule = { takesPart: takesPartRule(exchange.takesPart) };
  const fresh = (await studentsOf(manager, exchange.courseId)).filter(
    (student) => !known.has(student.personId) && takesPart(rule, student),
  );
  const aliases = makeAliases(fresh.length, new Set(already.map(({ alias }) => alias)), seededRandom(ids.seed()));
  const rows = fresh.map(({ personId }, index) => ({
    id: ids.uuid(),
    exchangeId: exchange.id,
    personId,
    alias: aliases[index] as string,
  }));
  await insertAll(manager, Participant, rows);
}

/** Students who are still in the course; a drop-out's work is kept, but nothing is asked or counted. */
export function activeParticipants(manager: EntityManager, exchangeId: string): Promise<Participant[]> {
  return manager
    .createQueryBuilder(Participant, 'participant')
    .innerJoin(Exchange, 'exchange', 'exchange.id = participant.exchangeId')
    .innerJoin(
      Enrolment,
      'enrolment',
      'enrolment.personId = participant.personId AND enrolment.courseId = exchange.courseId AND enrolment.active = 1',
    )
    .where('participant.exchangeId = :exchangeId AND participant.extraReviews IS NULL', { exchangeId })
    .orderBy('participant.id', 'ASC')
    .getMany();
}
