import { Injectable } from '@nestjs/common';
import type { EarlierView } from '@salt-circle/contracts';
import { comparePlaces, EMPTY_FORM } from '@salt-circle/core';
import { IsNull, Not } from 'typeorm';
import { Access, assertCanSee, canSee } from '../../permissions/access.js';
import { Authors } from '../../queries/authors.js';
import { writingState, reviewAccess } from '../../permissions/review-access.js';
import type { CurrentUser } from '../../auth/view-as.js';
import { draftRelation } from '../../permissions/draft-access.js';
import { countingVersion } from '../../queries/versions.js';
import { countingRows } from '../../queries/written-rows.js';
import { courseNames } from '../../queries/course-identities.js';
import { Draft, DraftPart, DraftVersion } from '../../model/draft.js';
import { Exchange, Participant, ReviewFormRow } from '../../model/exchange.js';
import { Review } from '../../model/review.js';
import { Database } from '../../platform/database/database.js';
import { answerView, noteView, saysSomething } from '../reviews/contents.service.js';
import { say } from '../../words/rounds.js';

/** Beside the review of a revision, what was said of the draft in the round before. */
@Injectable()
export class EarlierReviews {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
  ) {}

  /** Others are numbered, in the order of their random ids: the aliases that they had were those of another exchange. */
  async of(person: CurrentUser, reviewId: string): Promise<EarlierView> {
    const manager = this.database.read;
    const access = await reviewAccess(this.access, manager, person, reviewId);
    const { context, review, draft, byViewer } = access;
    assertCanSee(context, {
      ...{ kind: 'review', ...writingState(access) },
      ...{ submitted: review.submittedAt !== null, withheld: review.withheldAt !== null },
    });
    const earlier = draft.followsId === null ? null : await manager.findOneBy(Draft, { id: draft.followsId });
    if (earlier === null) return { exchangeTitle: null, form: EMPTY_FORM, reviews: [] };
    const exchange = await manager.findOneByOrFail(Exchange, { id: earlier.exchangeId });
    const form = await manager.findOneByOrFail(ReviewFormRow, { id: exchange.formId });
    const personOf = new Map(
      (await manager.findBy(Participant, { exchangeId: exchange.id })).map((one) => [one.id, one.personId]),
    );
    const authors = (await Authors.load(manager, exchange)).of(earlier);
    const all = await manager.find(Review, {
      where: { draftId: earlier.id, submittedAt: Not(IsNull()) },
      order: { id: 'ASC' },
    });
    // What its author thinks of the own draft is that one's.
    const others = all.filter(({ reviewerId }) => !authors.includes(reviewerId));
    const isOwn = ({ reviewerId }: Review) => personOf.get(reviewerId) === person.id;
    const seen = others.filter((one) =>
      canSee(context, {
        ...{ kind: 'earlier-review', ...draftRelation(access), byViewer, own: isOwn(one) },
        ...{ submitted: true, withheld: one.withheldAt !== null },
      }),
    );
    const staff = context.viewer.role !== 'student';
    const voices = seen
      .filter(({ voice }) => voice !== null)
      .flatMap(({ reviewerId }) => personOf.get(reviewerId) ?? []);
    const names = await courseNames(manager, context.course.id, voices);
    const rowsOf = await countingRows(manager, seen);
    const version = await countingVersion(manager, earlier.id);
    const parts = await manager.findBy(DraftPart, { versionId: version?.id ?? '' });
    const byPlace = comparePlaces(parts.map(({ id }) => id));
    const numbers = new Map(
      (await manager.findBy(DraftVersion, { draftId: earlier.id })).map((one) => [one.id, one.number]),
    );
    const labelOf = (one: Review, index: number) => {
      if (isOwn(one)) return { you: true as const };
      if (one.voice === null) return { alias: say('reviewer', { index: index + 1 }) };
      return { name: names.get(personOf.get(one.reviewerId) ?? '') ?? '', role: one.voice };
    };
    const views = seen.map((one, index) => {
      const { answers, notes } = rowsOf(one);
      const open = ({ withheldAt }: { readonly withheldAt: number | null }) =>
        withheldAt === null || staff || isOwn(one);
      return {
        id: one.id,
        ...(one.ownForm === null ? {} : { form: one.ownForm }),
        reviewer: labelOf(one, index),
        answers: Object.fromEntries(answers.filter(open).map((row) => [row.itemId, answerView(row)])),
        notes: notes
          .filter((row) => open(row) && saysSomething(row))
          .sort((a, b) => byPlace(a, b) || (a.id < b.id ? -1 : 1))
          .map((row) => noteView(row, numbers.get(row.versionId) ?? 1)),
      };
    });
    return {
      exchangeTitle: exchange.title,
      form: { ...EMPTY_FORM, ...form, items: form.items },
      reviews: views.sort((a, b) => Number(b.reviewer.you === true) - Number(a.reviewer.you === true)),
    };
  }
}
