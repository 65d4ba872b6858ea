import type { EntityManager } from 'typeorm';
import { practiceDrafts } from '../../permissions/practice.js';
import { Draft, DraftPart, DraftPicture, DraftVersion } from '../../model/draft.js';
import { Exchange, Participant } from '../../model/exchange.js';
import { AnswerRow, NoteRow, Review } from '../../model/review.js';
import { insertAll } from '../../platform/database/insert-all.js';
import type { Ids } from '../../platform/ids/ids.js';
import { say } from '../../words/planning.js';

interface Into {
  readonly id: string;
  readonly courseId: string;
  readonly formId: string;
  /** Whose the copies are. */
  readonly personId: string;
  readonly now: number;
}

/** The practice drafts of an exchange with their keys, for another one with the same form; nothing of what was tried on them. */
export async function copyPractice(manager: EntityManager, ids: Ids, fromId: string, into: Into): Promise<void> {
  for (const { exchange, key } of await practiceDrafts(manager, fromId)) {
    const exchangeId = ids.uuid();
    const { id: practiceOf, courseId, formId } = into;
    await manager.insert(Exchange, { ...exchange, id: exchangeId, practiceOf, courseId, formId, createdAt: into.now });
    const authorId = ids.uuid();
    const author = { id: authorId, exchangeId, personId: into.personId, alias: say('practice'), extraReviews: 0 };
    await manager.insert(Participant, author);
    const draft = await manager.findOneByOrFail(Draft, { exchangeId: exchange.id });
    const draftId = ids.uuid();
    await manager.insert(Draft, { ...draft, id: draftId, exchangeId, participantId: authorId });
    const version = await manager.findOneByOrFail(DraftVersion, { draftId: draft.id });
    const versionId = ids.uuid();
    await manager.insert(DraftVersion, { ...version, id: versionId, draftId });
    const rows = await manager.findBy(DraftPart, { versionId: version.id });
    const partIds = new Map(rows.map(({ id }) => [id, ids.uuid()]));
    const parts = rows.map((row) => ({
      ...row,
      id: partIds.get(row.id) as string,
      draftId,
      versionId,
      uploadId: null,
    }));
    await insertAll(manager, DraftPart, parts);
    const pictures = await manager.findBy(DraftPicture, { draftId: draft.id });
    await insertAll(
      manager,
      DraftPicture,
      pictures.map(({ digest }) => ({ draftId, digest })),
    );
    const reviewId = ids.uuid();
    const keyOf = { reviewerId: authorId, draftId, exchangeId, versionId: key.versionId === null ? null : versionId };
    // Of a key that is being changed, what is written by now is what goes along.
    await manager.insert(Review, { ...key, ...keyOf, id: reviewId, reopenedAt: null, spentSeconds: 0, spentAt: null });
    const answers = await manager.findBy(AnswerRow, { reviewId: key.id });
    await insertAll(
      manager,
      AnswerRow,
      answers.map((row) => ({ ...row, reviewId })),
    );
    const notes = await manager.findBy(NoteRow, { reviewId: key.id });
    const placed = notes.map((row) => ({
      ...row,
      ...{ id: ids.uuid(), reviewId, versionId },
      partId: row.partId === null ? null : (partIds.get(row.partId) ?? null),
    }));
    await insertAll(manager, NoteRow, placed);
  }
}
