import type { ShorthandEntry } from '@salt-circle/contracts';
import type { EntityManager } from 'typeorm';
import type { ExchangeContext } from '../../permissions/access.js';
import { LibraryItem } from '../../model/library.js';

/** The labels for Fix notes that the exchange offers; none when the set has been removed from the library. */
export async function shorthandOf(
  manager: EntityManager,
  { exchange, course }: ExchangeContext,
): Promise<readonly ShorthandEntry[]> {
  if (exchange.shorthandId === null) return [];
  const where = { id: exchange.shorthandId, courseId: course.id, kind: 'shorthand' as const };
  const item = (await manager.findOneBy(LibraryItem, where)) as LibraryItem<'shorthand'> | null;
  // What was stored before there were groups has none.
  const entries: ReadonlyArray<Omit<ShorthandEntry, 'group'> & { readonly group?: string }> =
    item?.content.entries ?? [];
  return entries.map(({ group = '', ...entry }) => ({ ...entry, group }));
}
