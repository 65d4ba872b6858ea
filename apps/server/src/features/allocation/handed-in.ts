import type { EntityManager } from 'typeorm';
import { Authors } from '../../queries/authors.js';
import { countingNumber } from '../../queries/versions.js';
import { Draft, DraftVersion } from '../../model/draft.js';
import type { Exchange } from '../../model/exchange.js';

export interface HandedIn {
  readonly draftId: string;
  readonly participantId: string;
  readonly groupId: string | null;
  readonly alias: string | null;
  readonly title: string;
  /** When its first version was handed in. */
  readonly firstAt: number;
  /** Participants who wrote it: one, or all members of a group. */
  readonly authorIds: readonly string[];
}

/** The last version's title of every draft that was handed in. */
export async function handedInDrafts(manager: EntityManager, exchange: Exchange): Promise<HandedIn[]> {
  const authors = await Authors.load(manager, exchange);
  const rows = await manager
    .createQueryBuilder(Draft, 'draft')
    .innerJoin(DraftVersion, 'version', `version.draftId = draft.id AND version.number = ${countingNumber(manager)}`)
    .select([
      'draft.id AS draftId',
      'draft.participantId AS participantId',
      'draft.groupId AS groupId',
      'draft.alias AS alias',
      'version.title AS title',
    ])
    .addSelect(
      (first) => first.select('MIN(first.handedInAt)').from(DraftVersion, 'first').where('first.draftId = draft.id'),
      'firstAt',
    )
    .where('draft.exchangeId = :exchangeId', { exchangeId: exchange.id })
    .orderBy('draft.participantId', 'ASC')
    .getRawMany<Omit<HandedIn, 'authorIds'>>();
  return rows.map((row) => ({ ...row, authorIds: authors.of(row) }));
}
