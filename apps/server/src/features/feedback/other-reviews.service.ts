import { Injectable } from '@nestjs/common';
import type { FeedbackView } from '@salt-circle/contracts';
import { comparePlaces } from '@salt-circle/core';
import { Access, assertCanSee, canSee } from '../../permissions/access.js';
import { Authors } from '../../queries/authors.js';
import { formOf } from '../../queries/review-form.js';
import { PersonLabels } from '../../queries/person-labels.js';
import { reviewAccess } from '../../permissions/review-access.js';
import type { CurrentUser } from '../../auth/view-as.js';
import { countingVersion, reviewedVersion } from '../../queries/versions.js';
import { countingRows } from '../../queries/written-rows.js';
import { Review } from '../../model/review.js';
import { Database } from '../../platform/database/database.js';
import { refusal } from '../../platform/problems/sentences.js';
import { Readings } from '../reading/readings.service.js';
import { answerView, noteView, saysSomething } from '../reviews/contents.service.js';

/** For a reviewer, what others wrote about the same draft: the same version alone, so that all notes stand on one text. */
@Injectable()
export class OtherReviews {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly readings: Readings,
  ) {}

  /** Nothing that is withheld from the author, and no files: those are the author’s. Reviews in the order of their random ids. */
  async of(person: CurrentUser, reviewId: string): Promise<FeedbackView> {
    const manager = this.database.read;
    const { context, review: own, draft, byViewer } = await reviewAccess(this.access, manager, person, reviewId);
    if (!byViewer) throw refusal('unknown');
    const reviewed = own.submittedAt !== null;
    assertCanSee(context, { kind: 'other-review', reviewed, submitted: true, withheld: false });
    const version = await reviewedVersion(manager, own);
    if (version === null) throw refusal('unknown');
    const authors = (await Authors.load(manager, context.exchange)).of(draft);
    const labels = await PersonLabels.ofExchange(manager, context);
    const reading = await this.readings.of(manager, context, draft, version, 'reviewer');
    const byPlace = comparePlaces(reading.parts.map(({ id }) => id));
    const counting = await countingVersion(manager, draft.id);
    const all = await manager.find(Review, { where: { draftId: draft.id }, order: { id: 'ASC' } });
    const others = all.filter(
      (one) =>
        one.id !== own.id &&
        // What its author thinks of the own draft is that one's.
        !authors.includes(one.reviewerId) &&
        (one.versionId ?? counting?.id) === version.id &&
        canSee(context, {
          kind: 'other-review',
          reviewed,
          submitted: one.submittedAt !== null,
          withheld: one.withheldAt !== null,
        }),
    );
    const rowsOf = await countingRows(manager, others);
    const open = ({ withheldAt }: { readonly withheldAt: number | null }) => withheldAt === null;
    return {
      drafts: [reading],
      form: await formOf(manager, context),
      reviews: others.map((review) => {
        const { answers, notes } = rowsOf(review);
        return {
          id: review.id,
          reviewer: labels.reviewerOf(review),
          self: false,
          version: version.number,
          files: [],
          ...(review.ownForm === null ? {} : { form: review.ownForm }),
          answers: Object.fromEntries(answers.filter(open).map((row) => [row.itemId, answerView(row)])),
          notes: notes
            .filter((row) => open(row) && saysSomething(row))
            .sort((a, b) => byPlace(a, b) || (a.id < b.id ? -1 : 1))
            .map((row) => noteView(row, version.number)),
        };
      }),
      missing: 0,
    };
  }
}
