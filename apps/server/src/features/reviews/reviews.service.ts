import { Injectable } from '@nestjs/common';
import type {
  AnswerRequest,
  AnswerView,
  DeskView,
  ReopenRequest,
  ReviewCard,
  SpentRequest,
  SubmitView,
} from '@salt-circle/contracts';
import { completeness, OVERALL_ID, readerOf, type Act } from '@salt-circle/core';
import { IsNull, Not, type EntityManager } from 'typeorm';
import { Access, assertCan, can, ownParticipant, assertCanSee, canSee } from '../../permissions/access.js';
import { attachmentsOf } from '../../queries/attachments.js';
import { Authors } from '../../queries/authors.js';
import { formFor, formOf } from '../../queries/review-form.js';
import { PersonLabels } from '../../queries/person-labels.js';
import { ALLOCATED, isChanging, reviewState } from '../../permissions/review-state.js';
import type { CurrentUser } from '../../auth/view-as.js';
import { eventOrigin, writingState, reviewAccess, type ReviewAccess } from '../../permissions/review-access.js';
import { ownDraftAccess, draftRelation, draftAccess } from '../../permissions/draft-access.js';
import { countingVersion, reviewedVersion } from '../../queries/versions.js';
import { Draft } from '../../model/draft.js';
import { Participant } from '../../model/exchange.js';
import { AnswerRow, Review, SubmittedReview } from '../../model/review.js';
import { Database } from '../../platform/database/database.js';
import { ProblemError } from '../../platform/problems/problem-error.js';
import { conflict, invalid, missingProblem, refusal } from '../../platform/problems/sentences.js';
import { iso, isoOrNull } from '../../platform/wire/instants.js';
import { Readings } from '../reading/readings.service.js';
import { answerFrom, sameAnswer } from '../../queries/answers.js';
import { answerView, ReviewContents, saysSomething } from './contents.service.js';
import { exchangeOnDesk } from './exchange-on-desk.js';
import { OwnRemarks } from './own-remarks.service.js';
import { withheldViews } from './withheld-views.js';
import { shorthandOf } from './shorthand.js';
import { ReviewWriting } from './review-writing.service.js';
import { NO_REASON, PAST } from './reopen-problems.js';
import { say } from '../../words/reviews.js';

@Injectable()
export class ReviewsService {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly readings: Readings,
    private readonly contents: ReviewContents,
    private readonly remarks: OwnRemarks,
    private readonly writing: ReviewWriting,
  ) {}

  /** The reviews that a student is to write. */
  async mine(person: CurrentUser, exchangeId: string): Promise<ReviewCard[]> {
    const context = await this.access.exchange(person, exchangeId);
    const participant = ownParticipant(context);
    // Staff who review under their own names alone have nothing that they were given.
    if (context.viewer.role !== 'student' && participant.extraReviews === 0) throw refusal('not-yours');
    const manager = this.database.read;
    const own = await ownDraftAccess(manager, context);
    assertCanSee(context, { kind: 'own-reviews', viewerHandedIn: own.viewerHandedIn });
    const reviews = await manager.find(Review, {
      where: { reviewerId: participant.id, ...ALLOCATED },
      order: { position: 'ASC' },
    });
    const labels = await PersonLabels.ofExchange(manager, context);
    const form = await formOf(manager, context);
    const cards: ReviewCard[] = [];
    for (const review of reviews) {
      const draft = await manager.findOneByOrFail(Draft, { id: review.draftId });
      const version = await reviewedVersion(manager, review);
      const access = await draftAccess(manager, context, draft, own);
      const subject = { kind: 'review', byViewer: true, submitted: false, withheld: false } as const;
      cards.push({
        id: review.id,
        author: labels.authorOf(draft),
        draftTitle: version?.title ?? '',
        draftId: draft.id,
        revision: canSee(context, { kind: 'revision', ...draftRelation(access) }) && !access.ofOwnDraft,
        others: canSee(context, {
          ...{ kind: 'other-review', reviewed: review.submittedAt !== null, submitted: true, withheld: false },
        }),
        self: access.ofOwnDraft,
        waits: !canSee(context, { ...subject, ...draftRelation(access) }),
        state: reviewState(review),
        changing: isChanging(review),
        answered: review.answered,
        required: review.begunAt === null ? completeness(form, {}, 0).required : review.required,
        notes: review.noteCount,
      });
    }
    return cards;
  }

  async desk(person: CurrentUser, reviewId: string): Promise<DeskView> {
    const manager = this.database.read;
    const access = await this.#standing(person, reviewId, manager);
    const { context, review, draft } = access;
    const submitted = review.submittedAt !== null;
    assertCanSee(context, { kind: 'review', ...writingState(access), submitted, withheld: review.withheldAt !== null });
    const version = await reviewedVersion(manager, review);
    if (version === null) throw refusal('unknown');
    const involved = await manager.findBy(Participant, [{ id: review.reviewerId }, { id: draft.participantId }]);
    const labels = await PersonLabels.load(manager, context, involved);
    const life = canSee(context, { kind: 'reviewing-life', byViewer: access.byViewer });
    return {
      id: review.id,
      ...(await this.contents.load(manager, context, review, access)),
      exchange: {
        ...exchangeOnDesk(context, access.ofOwnDraft),
        attachments: await attachmentsOf(manager, context.exchange.practiceOf ?? context.exchange.id),
      },
      author: labels.authorOf(draft),
      // All instructors write the one key.
      reviewer: context.facts.practice && access.byViewer ? { you: true, alias: '' } : labels.reviewerOf(review),
      self: (await Authors.load(manager, context.exchange)).of(draft).includes(review.reviewerId),
      shorthand: await shorthandOf(manager, context),
      // An author who looks at a review reads what the reviewer read.
      draft: await this.readings.of(manager, context, draft, version, readerOf(context.viewer, { ofOwnDraft: false })),
      overtaken: life && version.id !== (await countingVersion(manager, draft.id))?.id,
      form: await formFor(manager, context, review),
      submittedAt: isoOrNull(life ? review.submittedAt : null),
      changing: life && isChanging(review),
      editable: can(context, { kind: 'write-review', ...writingState(access) }),
      submittable: can(context, { kind: 'submit-review', ...writingState(access) }),
      reopenable: submitted && !isChanging(review) && can(context, reopening(access)),
      spentSeconds: life && context.course.measuresTime ? review.spentSeconds : null,
      voice: review.voice,
      earlier: draft.followsId !== null,
      reopenReason: access.byViewer && isChanging(review) ? review.reopenReason : null,
      reopenUntil: isoOrNull(access.byViewer && isChanging(review) ? review.reopenUntil : null),
      checkable: submitted && !context.facts.practice && can(context, { kind: 'check' }),
      withheld: await withheldViews(manager, access),
      practice: practiceOnDesk(access),
      ...(life ? await this.#neighbours(manager, access) : { position: 1, total: 1, nextId: null }),
    };
  }

  saveAnswer(person: CurrentUser, reviewId: string, itemId: string, request: AnswerRequest): Promise<AnswerView> {
    return this.writing.in(person, reviewId, request.version, async (manager, { context, review }) => {
      const form = await formFor(manager, context, review);
      const item = form.items.find(({ id }) => id === itemId);
      const overall = itemId === OVERALL_ID && form.overall !== 'none';
      if (item === undefined && !overall) throw refusal('unknown');
      const next = answerFrom(request, item);
      const current = await manager.findOneBy(AnswerRow, { reviewId, itemId });
      if (current !== null && sameAnswer(current, next)) return answerView(current);
      const revision = current?.revision ?? 0;
      if (revision !== request.revision) {
        throw conflict(
          say('answerTo', { title: item?.title ?? say('overallComment') }),
          current === null ? null : answerView(current),
        );
      }
      const row = { reviewId, itemId, ...next, revision: revision + 1, withheldAt: current?.withheldAt ?? null };
      await manager.save(AnswerRow, row);
      await this.contents.recount(manager, context, review, form);
      return answerView(row);
    });
  }

  /** Submitting twice answers with the first time. */
  submit(person: CurrentUser, reviewId: string): Promise<SubmitView> {
    return this.database.write(async (manager, emit) => {
      const access = await this.#standing(person, reviewId, manager);
      const { context, review } = access;
      if (access.byViewer && review.submittedAt !== null && !isChanging(review))
        return { submittedAt: iso(review.submittedAt) };
      assertCan(context, { kind: 'submit-review', ...writingState(access) });
      const form = await formFor(manager, context, review);
      const content = await this.contents.load(manager, context, review, access);
      const state = completeness(form, content.answers, content.notes.filter(saysSomething).length);
      if (!state.complete || !state.begun) {
        throw new ProblemError({
          code: 'review-incomplete',
          sentence: state.complete
            ? say('reviewIsEmptySoThere')
            : say('thingsAreMissingBeforeThis', { missing: state.missing.length }),
          whatToDo: say('fillInWhatIsListed'),
          fields: state.missing.map((one) => missingProblem(one, form)),
        });
      }
      const submittedAt = context.now;
      await this.contents.recount(manager, context, review, form);
      await manager.update(
        Review,
        { id: reviewId },
        {
          ...{ submittedAt, reopenedAt: null },
          ...{ reopenReason: null, reopenUntil: null },
        },
      );
      await manager.delete(SubmittedReview, { reviewId });
      await this.contents.settleFiles(manager, reviewId);
      await this.remarks.keep(manager, context, { notes: content.notes, again: review.submittedAt !== null });
      emit({ action: 'review-submitted', ...eventOrigin(access), details: { review: reviewId } });
      return { submittedAt: iso(submittedAt) };
    });
  }

  /** What was submitted stays so, and is what its author gets, until it is submitted again. */
  async reopen(person: CurrentUser, reviewId: string, { reason = '', until }: ReopenRequest): Promise<void> {
    await this.database.write(async (manager, emit) => {
      const access = await this.#standing(person, reviewId, manager);
      assertCan(access.context, reopening(access));
      if (access.review.submittedAt === null || isChanging(access.review)) return;
      const reopenReason = access.byViewer ? null : reason.trim();
      if (reopenReason === '') throw invalid([NO_REASON]);
      await this.contents.keep(manager, access.review);
      const reopenUntil = access.byViewer || until === undefined ? null : Date.parse(until);
      if (reopenUntil !== null && reopenUntil <= access.context.now) throw invalid([PAST]);
      const reopened = { reopenedAt: access.context.now, reopenReason, reopenUntil };
      await manager.update(Review, { id: reviewId }, reopened);
      const said = reopenReason === null ? {} : { reason: reopenReason };
      emit({ action: 'review-reopened', ...eventOrigin(access), details: { review: reviewId, ...said } });
    });
  }

  /** Time at work, as the page measures it; never more than has passed since it was last told, in however many tabs. */
  async spend(person: CurrentUser, reviewId: string, { seconds }: SpentRequest): Promise<void> {
    await this.database.write(async (manager) => {
      const access = await this.#standing(person, reviewId, manager);
      const { context, review } = access;
      assertCan(context, { kind: 'write-review', ...writingState(access) });
      if (!context.course.measuresTime) return;
      const passed =
        review.spentAt === null ? seconds : Math.max(0, Math.round((context.now - review.spentAt) / 1_000));
      const spentSeconds = review.spentSeconds + Math.min(seconds, passed);
      await manager.update(Review, { id: reviewId }, { spentSeconds, spentAt: context.now });
    });
  }

  #standing(person: CurrentUser, reviewId: string, manager: EntityManager): Promise<ReviewAccess> {
    return reviewAccess(this.access, manager, person, reviewId);
  }

  async #neighbours(
    manager: EntityManager,
    { review, byViewer }: ReviewAccess,
  ): Promise<Pick<DeskView, 'position' | 'total' | 'nextId'>> {
    const { reviewerId } = review;
    const voice = review.voice === null ? IsNull() : Not(IsNull());
    const all = await manager.find(Review, { where: { reviewerId, voice }, order: { position: 'ASC', id: 'ASC' } });
    const index = all.findIndex(({ id }) => id === review.id);
    const around = [...all.slice(index + 1), ...all.slice(0, index)];
    const next = byViewer ? around.find((one) => one.submittedAt === null || isChanging(one)) : around[0];
    return { position: index + 1, total: all.length, nextId: next?.id ?? null };
  }
}

function reopening({ byViewer, review, ofOwnDraft }: ReviewAccess): Act {
  const written = { submitted: review.submittedAt !== null, voice: review.voice !== null };
  return { kind: 'reopen-review', byViewer, ofOwnDraft, ...written };
}

/** The key is the review by whoever the practice draft stands for, whoever looks at it. */
function practiceOnDesk({ context, draft, review }: ReviewAccess): DeskView['practice'] {
  const { id, practiceOf } = context.exchange;
  return practiceOf === null ? null : { id, forId: practiceOf, key: draft.participantId === review.reviewerId };
}
