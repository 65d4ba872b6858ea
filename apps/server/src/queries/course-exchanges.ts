import { IsNull, type EntityManager, type FindOptionsWhere } from 'typeorm';
import { Exchange } from '../model/exchange.js';

/** The exchanges of a course, the oldest first; what practice drafts stand in is none of them. */
export function courseExchanges(
  manager: EntityManager,
  courseId: string,
  where: Omit<FindOptionsWhere<Exchange>, 'courseId' | 'practiceOf'> = {},
): Promise<Exchange[]> {
  return manager.find(Exchange, { where: { ...where, courseId, practiceOf: IsNull() }, order: { createdAt: 'ASC' } });
}
