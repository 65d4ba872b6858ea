import type { VersionMeta } from '@salt-circle/contracts';
import type { EntityManager } from 'typeorm';
import type { ExchangeContext } from '../permissions/access.js';
import { Participant } from '../model/exchange.js';
import { courseNames } from './course-identities.js';
import { personalDatesOf } from '../permissions/personal-dates.js';
import type { Draft, DraftVersion } from '../model/draft.js';
import { versionMeta } from './version-meta.js';
import { partsOf } from './versions.js';

/** What is told of versions to their authors and to staff. */
export async function versionMetas(
  manager: EntityManager,
  context: ExchangeContext,
  draft: Draft,
  versions: readonly DraftVersion[],
): Promise<VersionMeta[]> {
  const { exchange } = context;
  const author = await manager.findOneBy(Participant, { id: draft.participantId });
  const own = context.own ?? (author === null ? null : await personalDatesOf(manager, exchange, author));
  const names = await courseNames(
    manager,
    exchange.courseId,
    versions.flatMap(({ handedInBy }) => (handedInBy === null ? [] : [handedInBy])),
  );
  const told = (by: string | null) => (by === null || by === context.person.id ? null : (names.get(by) ?? null));
  const metas: VersionMeta[] = [];
  for (const version of versions) {
    const parts = await partsOf(manager, draft.id, version.id, exchange.deliverables);
    metas.push(versionMeta(exchange, own, version, parts, told(version.handedInBy)));
  }
  return metas;
}
