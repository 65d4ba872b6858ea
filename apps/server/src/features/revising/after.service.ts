import { Injectable } from '@nestjs/common';
import type { AfterRow } from '@salt-circle/contracts';
import { HELPED, planFigures, type Helped, type Remark } from '@salt-circle/core';
import { Not, IsNull } from 'typeorm';
import { Access, assertCanSee } from '../../permissions/access.js';
import { Authors } from '../../queries/authors.js';
import { PersonLabels } from '../../queries/person-labels.js';
import { rowsOfReviews } from '../../queries/rows-of-reviews.js';
import type { CurrentUser } from '../../auth/view-as.js';
import { handedInDrafts } from '../../queries/versions.js';
import { Draft, DraftVersion } from '../../model/draft.js';
import { Participant } from '../../model/exchange.js';
import { RatingRow, ReplyRow } from '../../model/reply.js';
import { AnswerRow, NoteRow, Review } from '../../model/review.js';
import { DecisionRow } from '../../model/revision.js';
import { Database } from '../../platform/database/database.js';
import { groupedBy } from '../../platform/grouping/grouped-by.js';
import { isoOrNull } from '../../platform/wire/instants.js';
import { handedInOf } from './reflections.service.js';

/** What has come after the release, draft by draft. A fixed number of queries. */
@Injectable()
export class AfterService {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
  ) {}

  async rows(person: CurrentUser, exchangeId: string): Promise<AfterRow[]> {
    const context = await this.access.exchange(person, exchangeId);
    assertCanSee(context, { kind: 'workspace' });
    const manager = this.database.read;
    const drafts = await handedInDrafts(manager, exchangeId);
    const labels = await PersonLabels.ofExchange(manager, context);
    const authors = await Authors.load(manager, context.exchange);
    const people = new Map((await manager.findBy(Participant, { exchangeId })).map((one) => [one.id, one]));
    const submitted = { exchangeId, submittedAt: Not(IsNull()), withheldAt: IsNull() };
    const reviews = groupedBy(await manager.findBy(Review, submitted), ({ draftId }) => draftId);
    const ofReview = ({ reviewId }: { readonly reviewId: string }) => reviewId;
    const notes = groupedBy(
      await rowsOfReviews(manager, NoteRow, exchangeId)
        .andWhere("row.withheldAt IS NULL AND row.kind != 'keep' AND (row.body != '' OR row.edit IS NOT NULL)")
        .select(['row.id', 'row.reviewId'])
        .getMany(),
      ofReview,
    );
    const steps = groupedBy(
      await rowsOfReviews(manager, AnswerRow, exchangeId)
        .andWhere("row.withheldAt IS NULL AND row.next != ''")
        .select(['row.reviewId', 'row.itemId'])
        .getMany(),
      ofReview,
    );
    const replies = groupedBy(await rowsOfReviews(manager, ReplyRow, exchangeId).getMany(), ofReview);
    const ratings = groupedBy(await rowsOfReviews(manager, RatingRow, exchangeId).getMany(), ofReview);
    const decided = groupedBy(
      await manager
        .createQueryBuilder(DecisionRow, 'decision')
        .innerJoin(Draft, 'draft', 'draft.id = decision.draftId')
        .where('draft.exchangeId = :exchangeId', { exchangeId })
        .getMany(),
      ({ draftId }) => draftId,
    );
    const revised = groupedBy(
      await manager
        .createQueryBuilder(DraftVersion, 'version')
        .innerJoin(Draft, 'draft', 'draft.id = version.draftId')
        .where("draft.exchangeId = :exchangeId AND version.purpose = 'revision' AND version.withdrawnAt IS NULL", {
          exchangeId,
        })
        .select(['version.id', 'version.draftId', 'version.handedInAt'])
        .getMany(),
      ({ draftId }) => draftId,
    );
    const asks = context.exchange.after.reflection !== null;
    const reflected = new Set((await handedInOf(manager, exchangeId)).map(({ participantId }) => participantId));
    const rows = drafts.map((draft): AfterRow => {
      const own = authors.of(draft);
      const received = (reviews.get(draft.id) ?? []).filter(({ reviewerId }) => !own.includes(reviewerId));
      const of = <T>(rows: ReadonlyMap<string, T[]>) => received.flatMap(({ id }) => rows.get(id) ?? []);
      const known = new Map((decided.get(draft.id) ?? []).map((one) => [one.key, one]));
      const keys = [
        ...of(notes).map(({ id }) => `note.${id}`),
        ...of(steps).map(({ reviewId, itemId }) => `next.${reviewId}.${itemId}`),
      ];
      const figures = planFigures(
        keys.map((key): Remark => {
          const one = known.get(key);
          return { key, decision: one?.decision ?? null, done: one?.doneAt != null };
        }),
      );
      const rated = of(ratings);
      const helped = Object.fromEntries(
        HELPED.map((step) => [step, rated.filter((one) => one.helped === step).length]),
      ) as Record<Helped, number>;
      const times = (revised.get(draft.id) ?? []).map(({ handedInAt }) => handedInAt);
      return {
        draftId: draft.id,
        author: labels.authorOf(draft),
        reviews: received.length,
        read: own.filter((id) => people.get(id)?.feedbackReadAt != null).length,
        authors: own.length,
        ...figures,
        replies: of(replies).length,
        helped,
        reflections: asks ? own.filter((id) => reflected.has(id)).length : null,
        revisionAt: isoOrNull(times.length === 0 ? null : Math.max(...times)),
      };
    });
    return rows.sort((a, b) => (a.author.name ?? '').localeCompare(b.author.name ?? ''));
  }
}
