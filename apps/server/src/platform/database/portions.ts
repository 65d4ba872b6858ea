/** SQLite takes a bounded number of values in one statement: with all columns of a row, so many rows fit for certain. */
const PORTION = 500;

/** All of them in their order, so many at a time as go into one statement. */
export function* portions<T>(all: readonly T[]): Generator<T[]> {
  for (let from = 0; from < all.length; from += PORTION) yield all.slice(from, from + PORTION);
}
