import type { EntityManager } from 'typeorm';
import { courseExchanges } from './course-exchanges.js';
import { Exchange } from '../model/exchange.js';
import { factsOf } from '../permissions/exchange-facts.js';
import { enrolParticipants } from './participants.js';
import type { Ids } from '../platform/ids/ids.js';

/** Published exchanges of a course that are not over. */
export async function runningExchanges(manager: EntityManager, courseId: string, now: number): Promise<Exchange[]> {
  const all = await courseExchanges(manager, courseId);
  return all.filter((one) => one.publishedAt !== null && factsOf(one, null, now).stage !== 'closed');
}

/** Whoever joins a course, or comes back, takes part in what is running, as its settings have it. */
export async function takeIntoRunningExchanges(
  manager: EntityManager,
  courseId: string,
  now: number,
  ids: Ids,
): Promise<void> {
  for (const exchange of await runningExchanges(manager, courseId, now))
    await enrolParticipants(manager, exchange, ids);
}
