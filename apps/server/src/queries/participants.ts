import { makeAliases, seededRandom, takesPart } from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import { insertAll } from '../platform/database/insert-all.js';
import type { Ids } from '../platform/ids/ids.js';
import { studentsOf } from './students.js';
import { Enrolment } from '../model/course.js';
import { Draft } from '../model/draft.js';
import { Exchange, Participant } from '../model/exchange.js';
import { takesPartRule } from './exchange-setup.js';

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

/**
 * Somebody of the staff as a participant, under an alias of the exchange.
 *
 * @param extraReviews how many reviews are asked of them; undefined to leave that as it is, or none for somebody new
 * @returns the id
 */
export async function staffParticipant(
  manager: EntityManager,
  ids: Ids,
  exchangeId: string,
  personId: string,
  extraReviews?: number,
): Promise<string> {
  const people = await manager.findBy(Participant, { exchangeId });
  const known = people.find((one) => one.personId === personId);
  // Who was a student here and is of the staff now has none of the marks of one.
  if (known !== undefined) {
    const next = extraReviews ?? known.extraReviews ?? 0;
    if (next !== known.extraReviews) await manager.update(Participant, { id: known.id }, { extraReviews: next });
    return known.id;
  }
  const drafts = await manager.findBy(Draft, { exchangeId });
  const taken = new Set([...people, ...drafts].flatMap(({ alias }) => (alias === null ? [] : [alias])));
  const alias = makeAliases(1, taken, seededRandom(ids.seed()))[0] as string;
  const id = ids.uuid();
  await manager.insert(Participant, { id, exchangeId, personId, alias, extraReviews: extraReviews ?? 0 });
  return id;
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
