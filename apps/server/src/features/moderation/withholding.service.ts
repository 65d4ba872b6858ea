import { Injectable } from '@nestjs/common';
import type { WithholdableRequest, WithholdRequest } from '@salt-circle/contracts';
import { OVERALL_ID } from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import { Access, assertCan } from '../../permissions/access.js';
import { formFor } from '../../queries/review-form.js';
import { eventOrigin, reviewAccess, type ReviewAccess } from '../../permissions/review-access.js';
import type { CurrentUser } from '../../auth/view-as.js';
import { Withheld } from '../../model/moderation.js';
import { AnswerRow, NoteRow, Review, SubmittedReview } from '../../model/review.js';
import { ReviewFile } from '../../model/review-file.js';
import { Database } from '../../platform/database/database.js';
import { Ids } from '../../platform/ids/ids.js';
import { refusal } from '../../platform/problems/sentences.js';

/** Keeps things of a review from its author, and gives them back. */
@Injectable()
export class Withholding {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly ids: Ids,
  ) {}

  /** Again for the same thing: the reason is changed. */
  async withhold(person: CurrentUser, reviewId: string, request: WithholdRequest): Promise<void> {
    await this.database.write(async (manager, emit) => {
      const access = await this.#standing(person, reviewId, manager);
      const { kind, targetId, told, counts } = request;
      const { context } = access;
      await mark(manager, access, request, context.now);
      const known = await manager.findOneBy(Withheld, { reviewId, kind, targetId });
      await manager.save(Withheld, {
        ...{ id: known?.id ?? this.ids.uuid(), reviewId, kind, targetId, reason: request.reason.trim() },
        ...{ byId: person.id, at: context.now, told, counts },
      });
      emit({ action: 'withheld', ...eventOrigin(access), details: { review: reviewId, kind } });
      this.#tell(emit.quietly, access);
    });
  }

  /** What is not withheld stays so. */
  async giveBack(person: CurrentUser, reviewId: string, { kind, targetId }: WithholdableRequest): Promise<void> {
    await this.database.write(async (manager, emit) => {
      const access = await this.#standing(person, reviewId, manager);
      if (!(await manager.existsBy(Withheld, { reviewId, kind, targetId }))) return;
      await mark(manager, access, { kind, targetId }, null);
      await manager.delete(Withheld, { reviewId, kind, targetId });
      emit({ action: 'given-back', ...eventOrigin(access), details: { review: reviewId, kind } });
      this.#tell(emit.quietly, access);
    });
  }

  async #standing(person: CurrentUser, reviewId: string, manager: EntityManager): Promise<ReviewAccess> {
    const access = await reviewAccess(this.access, manager, person, reviewId);
    assertCan(access.context, { kind: 'check' });
    if (access.review.submittedAt === null) throw refusal('unknown');
    return access;
  }

  /** The reviewer's page and those of staff. The author's is told nothing: that something changed at this moment would tell. */
  #tell(
    quietly: (change: { topic: 'reviews'; courseId: string; exchangeId: string }) => void,
    { context }: ReviewAccess,
  ) {
    quietly({ topic: 'reviews', courseId: context.course.id, exchangeId: context.exchange.id });
  }
}

/**
 * Sets when something is withheld, in what is written and in what was submitted while that is being changed.
 *
 * @throws ProblemError `unknown` for what the review does not have
 */
async function mark(
  manager: EntityManager,
  { context, review }: ReviewAccess,
  { kind, targetId }: WithholdableRequest,
  withheldAt: number | null,
): Promise<void> {
  const reviewId = review.id;
  if (kind === 'review') {
    if (targetId !== '') throw refusal('unknown');
    await manager.update(Review, { id: reviewId }, { withheldAt });
    return;
  }
  if (kind === 'file') {
    const where = { id: targetId, reviewId };
    if (!(await manager.existsBy(ReviewFile, where))) throw refusal('unknown');
    await manager.update(ReviewFile, where, { withheldAt });
    return;
  }
  const kept = await manager.findOneBy(SubmittedReview, { reviewId });
  const inKept = (kept === null ? [] : kind === 'note' ? kept.notes : kept.answers).filter((row) =>
    'id' in row ? row.id === targetId : row.itemId === targetId,
  );
  if (kept !== null && inKept.length > 0) {
    for (const row of inKept) row.withheldAt = withheldAt;
    await manager.save(SubmittedReview, kept);
  }
  if (kind === 'note') {
    const where = { id: targetId, reviewId };
    if (inKept.length === 0 && !(await manager.existsBy(NoteRow, where))) throw refusal('unknown');
    await manager.update(NoteRow, where, { withheldAt });
    return;
  }
  const { items, overall } = await formFor(manager, context, review);
  const asked = items.some(({ id }) => id === targetId) || (targetId === OVERALL_ID && overall !== 'none');
  if (!asked) throw refusal('unknown');
  // An answer that was left out has nothing to be kept from anybody; one that comes later is another.
  const where = { reviewId, itemId: targetId };
  if (inKept.length === 0 && !(await manager.existsBy(AnswerRow, where))) throw refusal('unknown');
  await manager.update(AnswerRow, where, { withheldAt });
}
