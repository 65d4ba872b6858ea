import { createHash } from 'node:crypto';
import { In, IsNull, type EntityManager } from 'typeorm';
import { Draft, DraftPart, DraftVersion } from '../model/draft.js';
import type { Review } from '../model/review.js';
import { StoredFile } from '../model/stored-file.js';

/**
 * In SQL beside a table or alias `draft`: the number of the version that counts for reviewing, or NULL.
 * @param manager only for the names of table and columns
 */
export function countingNumber(manager: EntityManager): string {
  const query = manager
    .createQueryBuilder(DraftVersion, 'counting')
    .select('MAX(counting.number)')
    .where("counting.draftId = draft.id AND counting.withdrawnAt IS NULL AND counting.purpose = 'draft'");
  return `(${query.getQuery()})`;
}

/** In SQL beside a table or alias `draft`: whether it has been handed in. */
export function isHandedIn(manager: EntityManager): string {
  return `${countingNumber(manager)} IS NOT NULL`;
}

/**
 * The version that counts for reviewing: the last one handed in as a draft and not taken back. Whether it was late
 * follows from its time. What is handed in after feedback is a revision, and never counts here.
 */
export function countingVersion(manager: EntityManager, draftId: string): Promise<DraftVersion | null> {
  return manager.findOne(DraftVersion, {
    where: { draftId, withdrawnAt: IsNull(), purpose: 'draft' },
    order: { number: 'DESC' },
  });
}

/** Of all drafts of an exchange at once, when the version that counts was handed in, and how many words it has; by draft. */
export async function countingFigures(
  manager: EntityManager,
  exchangeId: string,
): Promise<Map<string, Pick<DraftVersion, 'handedInAt' | 'words'>>> {
  const rows = await manager
    .createQueryBuilder(Draft, 'draft')
    .innerJoin(DraftVersion, 'version', `version.draftId = draft.id AND version.number = ${countingNumber(manager)}`)
    .where('draft.exchangeId = :exchangeId', { exchangeId })
    .select(['draft.id AS id', 'version.handedInAt AS handedInAt', 'version.words AS words'])
    .getRawMany<{ id: string } & Pick<DraftVersion, 'handedInAt' | 'words'>>();
  return new Map(rows.map(({ id, ...figures }) => [id, figures]));
}

/** What was handed in last after feedback, and not taken back. */
export function lastRevision(manager: EntityManager, draftId: string): Promise<DraftVersion | null> {
  return manager.findOne(DraftVersion, {
    where: { draftId, withdrawnAt: IsNull(), purpose: 'revision' },
    order: { number: 'DESC' },
  });
}

/** The version that a review is of: the one on which it was begun, and until then the one that counts. */
export function reviewedVersion(
  manager: EntityManager,
  { versionId, draftId }: Pick<Review, 'versionId' | 'draftId'>,
): Promise<DraftVersion | null> {
  return versionId === null
    ? countingVersion(manager, draftId)
    : manager.findOneByOrFail(DraftVersion, { id: versionId });
}

/** The parts of a version, or, without one, of the draft as it is saved; in the order of the deliverables. */
export async function partsOf(
  manager: EntityManager,
  draftId: string,
  versionId: string | null,
  deliverables: ReadonlyArray<{ readonly id: string }>,
): Promise<DraftPart[]> {
  const rows = await manager.findBy(DraftPart, { draftId, versionId: versionId ?? IsNull() });
  const place = new Map(deliverables.map(({ id }, index) => [id, index]));
  return rows
    .filter(({ deliverableId }) => place.has(deliverableId))
    .sort((a, b) => (place.get(a.deliverableId) ?? 0) - (place.get(b.deliverableId) ?? 0) || a.position - b.position);
}

/** By digest: the files of parts, captions among them. */
export async function filesOfParts(
  manager: EntityManager,
  parts: readonly DraftPart[],
): Promise<ReadonlyMap<string, StoredFile>> {
  const digests = parts.flatMap(({ digest, captions }) => [digest, captions].filter((one) => one !== null));
  const stored = digests.length === 0 ? [] : await manager.findBy(StoredFile, { digest: In(digests) });
  return new Map(stored.map((file) => [file.digest, file]));
}

type Content = Pick<
  DraftPart,
  'deliverableId' | 'kind' | 'html' | 'digest' | 'url' | 'title' | 'about' | 'captions' | 'hidden'
>;

/** SHA-256 over all that is handed in, in hexadecimal; a line each, so that anybody can work it out again. */
export function contentDigest(draft: Pick<Draft, 'title' | 'context'>, parts: readonly Content[]): string {
  const lines = [
    draft.title.trim(),
    draft.context.trim(),
    ...parts
      .filter((part) => part.kind !== 'text' || part.html !== '')
      .map(({ deliverableId, kind, html, digest, url, title, about, captions, hidden }) =>
        JSON.stringify([
          deliverableId,
          kind,
          html,
          digest,
          url,
          title,
          about,
          captions,
          hidden.map(({ start, end }) => [start, end]),
        ]),
      ),
  ];
  return createHash('sha256').update(lines.join('\n')).digest('hex');
}

/** Whether what is saved differs from the version that counts. */
export async function changedSinceHandIn(
  manager: EntityManager,
  draft: Draft,
  last: DraftVersion | null,
  deliverables: ReadonlyArray<{ readonly id: string }>,
): Promise<boolean> {
  if (last === null) return false;
  const saved = contentDigest(draft, await partsOf(manager, draft.id, null, deliverables));
  // Worked out anew: a version from before there were parts has a digest of another kind.
  return saved !== contentDigest(last, await partsOf(manager, draft.id, last.id, deliverables));
}

/** Drafts with a version that counts, in the order of their random ids, which says nothing of whose they are. */
export function handedInDrafts(manager: EntityManager, exchangeId: string): Promise<Draft[]> {
  return manager
    .createQueryBuilder(Draft, 'draft')
    .where('draft.exchangeId = :exchangeId', { exchangeId })
    .andWhere(isHandedIn(manager))
    .orderBy('draft.id', 'ASC')
    .getMany();
}
