import type { ReviewFileCard } from '@salt-circle/contracts';
import type { Reviewing } from '@salt-circle/core';
import { In, type EntityManager } from 'typeorm';
import { AnswerRow, NoteRow, SubmittedReview, type Review } from '../model/review.js';
import { ReviewFile } from '../model/review-file.js';
import { StoredFile } from '../model/stored-file.js';
import { endingOf } from '../platform/bytes/endings.js';
import { canSee, type ExchangeContext } from '../permissions/access.js';
import { isChanging } from '../permissions/review-state.js';
import { say } from '../words/access.js';

/** How the one who asks stands to the review. */
export interface FileReading extends Reviewing {
  readonly byViewer: boolean;
}

/**
 * The files of a review that somebody may see, in the order in which they were added. Its reviewer sees them as they are now;
 * everybody else as they were when the review was submitted, and none whose note or answer is kept from them.
 */
export async function filesOf(
  manager: EntityManager,
  context: ExchangeContext,
  review: Review,
  reading: FileReading,
): Promise<ReviewFile[]> {
  const rows = await manager.find(ReviewFile, { where: { reviewId: review.id }, order: { addedAt: 'ASC', id: 'ASC' } });
  if (rows.length === 0) return [];
  const { byViewer, viewerHandedIn, ofOwnDraft, selfReviewed, othersReviewed } = reading;
  const standing = { byViewer, viewerHandedIn, ofOwnDraft, selfReviewed, othersReviewed };
  const withheld = await withheldIds(manager, review.id);
  const at = !byViewer && isChanging(review) ? review.reopenedAt : null;
  return rows.filter((row) => {
    const there =
      at === null ? row.removedAt === null : row.addedAt <= at && (row.removedAt === null || row.removedAt > at);
    const kept = row.withheldAt !== null || withheld.has(row.noteId ?? row.itemId ?? '');
    const subject = { kind: 'attachment', ...standing, submitted: review.submittedAt !== null } as const;
    return there && canSee(context, { ...subject, withheld: kept || review.withheldAt !== null });
  });
}

async function withheldIds(manager: EntityManager, reviewId: string): Promise<Set<string>> {
  const submitted = await manager.findOneBy(SubmittedReview, { reviewId });
  // A note that its reviewer has removed since is still in what was submitted, and so are its files.
  const notes = [...(await manager.findBy(NoteRow, { reviewId })), ...(submitted?.notes ?? [])];
  const answers = [...(await manager.findBy(AnswerRow, { reviewId })), ...(submitted?.answers ?? [])];
  return new Set([
    ...notes.filter(({ withheldAt }) => withheldAt !== null).map(({ id }) => id),
    ...answers.filter(({ withheldAt }) => withheldAt !== null).map(({ itemId }) => itemId),
  ]);
}

/** As they are told: by the names that they came with to their reviewer and to staff, by neutral ones to the author. */
export async function fileCards(
  manager: EntityManager,
  rows: readonly ReviewFile[],
  full: boolean,
): Promise<ReviewFileCard[]> {
  if (rows.length === 0) return [];
  const stored = await manager.findBy(StoredFile, { digest: In(rows.map(({ digest }) => digest)) });
  const files = new Map(stored.map((file) => [file.digest, file]));
  return rows.map((row, index) => {
    const { id, itemId, noteId, digest } = row;
    const family = files.get(digest)?.family ?? 'document';
    return { id, itemId, noteId, name: fileName(row, files.get(digest), index, full), family };
  });
}

/** @param index among the files of the review */
export function fileName(
  { name }: Pick<ReviewFile, 'name'>,
  file: Pick<StoredFile, 'mime'> | undefined,
  index: number,
  full: boolean,
): string {
  return full ? name : say('attachment', { number: index + 1, ending: endingOf(file?.mime ?? '') });
}
