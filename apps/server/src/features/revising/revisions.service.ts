import { Injectable } from '@nestjs/common';
import type { DraftReading, RemarkView, RevisionView } from '@salt-circle/contracts';
import { decisionKey, readerOf, type DecisionTarget } from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import { Access, assertCanSee, canSee } from '../../permissions/access.js';
import { formOf } from '../../queries/review-form.js';
import { PersonLabels } from '../../queries/person-labels.js';
import type { CurrentUser } from '../../auth/view-as.js';
import { draftRelation, draftAccess, type DraftAccess } from '../../permissions/draft-access.js';
import { countingVersion, lastRevision, partsOf, reviewedVersion } from '../../queries/versions.js';
import { Draft } from '../../model/draft.js';
import { Review } from '../../model/review.js';
import { DecisionRow } from '../../model/revision.js';
import { Database } from '../../platform/database/database.js';
import { refusal } from '../../platform/problems/sentences.js';
import { isoOrNull } from '../../platform/wire/instants.js';
import { Readings } from '../reading/readings.service.js';
import { ReviewContents } from '../reviews/contents.service.js';
import { decisionView } from './decision-view.js';

/** The draft as it was reviewed, and as it was handed in after that. */
@Injectable()
export class Revisions {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly readings: Readings,
    private readonly contents: ReviewContents,
  ) {}

  /** For its author, as long as no revision is handed in, beside what is saved. */
  async of(person: CurrentUser, exchangeId: string, draftId: string): Promise<RevisionView> {
    const context = await this.access.exchange(person, exchangeId);
    const manager = this.database.read;
    const draft = await manager.findOneBy(Draft, { id: draftId, exchangeId });
    if (draft === null) throw refusal('unknown');
    const access = await draftAccess(manager, context, draft);
    assertCanSee(context, { kind: 'revision', ...draftRelation(access) });
    const author = access.ofOwnDraft && context.viewer.role === 'student';
    if (author && !canSee(context, { kind: 'feedback' })) throw refusal('not-released');
    const reader = readerOf(context.viewer, access);
    const counting = author || access.review === null ? null : await reviewedVersion(manager, access.review);
    const reviewed = counting ?? (await countingVersion(manager, draft.id));
    if (reviewed === null) throw refusal('unknown');
    const revision = await lastRevision(manager, draft.id);
    const saved = author && revision === null ? await this.#saved(manager, access) : null;
    return {
      author: (await PersonLabels.ofExchange(manager, context)).authorOf(draft),
      reviewed: await this.readings.of(manager, context, draft, reviewed, reader),
      revision: revision === null ? saved : await this.readings.of(manager, context, draft, revision, reader),
      // When others work is not told to students.
      handedInAt: reader === 'reviewer' ? null : isoOrNull(revision?.handedInAt ?? null),
      changes: reader === 'reviewer' ? null : (revision?.changes ?? null),
      savedOnly: saved !== null,
      remarks: await this.#remarks(manager, access),
    };
  }

  /** For a reviewer those of the own review. */
  async #remarks(manager: EntityManager, access: DraftAccess): Promise<RemarkView[]> {
    const { context, draft } = access;
    const student = context.viewer.role === 'student';
    const author = access.ofOwnDraft && student;
    const form = await formOf(manager, context);
    const labels = await PersonLabels.ofExchange(manager, context);
    const decided = author || !student ? await manager.findBy(DecisionRow, { draftId: draft.id }) : [];
    const decisions = new Map(decided.map((row) => [row.key, decisionView(row)]));
    const remarks: RemarkView[] = [];
    for (const review of await manager.find(Review, { where: { draftId: draft.id }, order: { id: 'ASC' } })) {
      const byViewer = student && !author && review.reviewerId === context.participant?.id;
      const written = { submitted: review.submittedAt !== null, withheld: review.withheldAt !== null };
      const reading = { ...draftRelation(access), byViewer };
      if (!written.submitted || !canSee(context, { kind: 'review', ...reading, ...written })) continue;
      const { answers, notes } = await this.contents.load(manager, context, review, reading);
      const titles = new Map((review.ownForm ?? form).items.map(({ id, title }) => [id, title]));
      const common = { reviewId: review.id, by: labels.reviewerOf(review) };
      const remark = (target: DecisionTarget, part: Pick<RemarkView, 'note' | 'itemTitle' | 'words'>) => {
        const key = decisionKey(target);
        remarks.push({ key, ...common, ...part, decision: decisions.get(key) ?? null });
      };
      for (const note of notes)
        remark(
          { kind: 'note', noteId: note.id },
          { note, itemTitle: titles.get(note.itemId ?? '') ?? '', words: note.body },
        );
      for (const [itemId, { next }] of Object.entries(answers))
        if (next.trim() !== '')
          remark(
            { kind: 'next', reviewId: review.id, itemId },
            { note: null, itemTitle: titles.get(itemId) ?? '', words: next },
          );
    }
    return remarks;
  }

  async #saved(manager: EntityManager, { context, draft }: DraftAccess): Promise<DraftReading> {
    const rows = await partsOf(manager, draft.id, null, context.exchange.deliverables);
    const parts = await this.readings.parts(manager, context, draft, rows, 'author');
    const words = parts.reduce((sum, part) => sum + part.words, 0);
    return { draftId: draft.id, title: draft.title, context: draft.context, version: 0, words, parts };
  }
}
