import type { EntityManager } from 'typeorm';
import { Authors } from '../../queries/authors.js';
import { allPersonalDates } from '../../permissions/personal-dates.js';
import { lateView } from '../../queries/version-meta.js';
import { countingNumber } from '../../queries/versions.js';
import { Draft, DraftVersion } from '../../model/draft.js';
import { Participant, type Exchange } from '../../model/exchange.js';

/** How many drafts that count were handed in late, by everybody's own due time. */
export async function countLate(manager: EntityManager, exchange: Exchange): Promise<number> {
  const authors = await Authors.load(manager, exchange);
  const own = await allPersonalDates(manager, exchange);
  const people = new Map((await manager.findBy(Participant, { exchangeId: exchange.id })).map((one) => [one.id, one]));
  const handedIn = await manager
    .createQueryBuilder(Draft, 'draft')
    .innerJoin(DraftVersion, 'version', `version.draftId = draft.id AND version.number = ${countingNumber(manager)}`)
    .select(['draft.id AS id', 'draft.participantId AS participantId', 'draft.groupId AS groupId'])
    .addSelect('version.handedInAt', 'handedInAt')
    .where('draft.exchangeId = :id', { id: exchange.id })
    .getRawMany<{ id: string; participantId: string; groupId: string | null; handedInAt: number }>();
  return handedIn.filter((one) => {
    const [author = one.participantId] = authors.of(one);
    return lateView(exchange, own.get(people.get(author)?.personId ?? '') ?? null, one.handedInAt) !== null;
  }).length;
}
