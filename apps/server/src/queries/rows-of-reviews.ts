import type { EntityManager, EntityTarget, SelectQueryBuilder } from 'typeorm';
import { Review } from '../model/review.js';

/** Rows on all reviews of an exchange, as `row`. Asked for by the exchange: a query of SQLite takes 32,766 ids and no more. */
export function rowsOfReviews<Row extends { readonly reviewId: string }>(
  manager: EntityManager,
  of: EntityTarget<Row>,
  exchangeId: string,
): SelectQueryBuilder<Row> {
  const reviews = manager
    .createQueryBuilder(Review, 'review')
    .select('review.id')
    .where('review.exchangeId = :exchangeId');
  return manager.createQueryBuilder(of, 'row').where(`row.reviewId IN (${reviews.getQuery()})`, { exchangeId });
}
