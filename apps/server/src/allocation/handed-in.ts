import type { EntityManager } from 'typeorm';
import { Authors } from '../drafts/authors.js';
import { LAST_NUMBER } from '../drafts/versions.js';
import type { Exchange } from '../exchanges/entities.js';

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
    .createQueryBuilder('draft', 'draft')
    .innerJoin('draft_version', 'version', `version.draftId = draft.id AND version.number = ${LAST_NUMBER}`)
    .select([
      'draft.id AS draftId',
      'draft.participantId AS participantId',
      'draft.groupId AS groupId',
      'draft.alias AS alias',
      'version.title AS title',
      '(SELECT MIN(first.handedInAt) FROM draft_version first WHERE first.draftId = draft.id) AS firstAt',
    ])
    .where('draft.exchangeId = :exchangeId', { exchangeId: exchange.id })
    .orderBy('draft.participantId', 'ASC')
    .getRawMany<Omit<HandedIn, 'authorIds'>>();
  return rows.map((row) => ({ ...row, authorIds: authors.of(row) }));
}
