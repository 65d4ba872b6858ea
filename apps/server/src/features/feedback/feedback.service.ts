import { Injectable } from '@nestjs/common';
import type { DraftFeedbackView, FeedbackView } from '@salt-circle/contracts';
import type { Reader } from '@salt-circle/core';
import {
  Access,
  assertCan,
  can,
  ownParticipant,
  assertCanSee,
  canSee,
  type ExchangeContext,
} from '../../permissions/access.js';
import { Authors } from '../../queries/authors.js';
import { formOf } from '../../queries/review-form.js';
import { PersonLabels } from '../../queries/person-labels.js';
import type { CurrentUser } from '../../auth/view-as.js';
import { draftRelation, draftAccess } from '../../permissions/draft-access.js';
import { countingVersion, reviewedVersion } from '../../queries/versions.js';
import { In } from 'typeorm';
import { Withheld } from '../../model/moderation.js';
import { Draft, type DraftVersion } from '../../model/draft.js';
import { Participant } from '../../model/exchange.js';
import { Review } from '../../model/review.js';
import { Database } from '../../platform/database/database.js';
import { refusal } from '../../platform/problems/sentences.js';
import { Readings } from '../reading/readings.service.js';
import { ReviewContents, type Reading } from '../reviews/contents.service.js';

/** What is asked for once, however many drafts are read. */
export interface ReadAround {
  readonly context: ExchangeContext;
  readonly everyone: Authors;
  readonly labels: PersonLabels;
}

@Injectable()
export class FeedbackService {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly readings: Readings,
    private readonly contents: ReviewContents,
  ) {}

  /** Its author has looked at it: it is no news any more. */
  async read(person: CurrentUser, exchangeId: string): Promise<void> {
    await this.database.write(async (manager, emit) => {
      const context = await this.access.exchange(person, exchangeId, manager);
      assertCan(context, { kind: 'read-feedback' });
      const { id, feedbackReadAt } = ownParticipant(context);
      // Review by review, there is something new to read again and again.
      if (feedbackReadAt !== null && !context.exchange.feedbackEach) return;
      await manager.update(Participant, { id }, { feedbackReadAt: context.now });
      emit.quietly({ topic: 'own-draft', courseId: context.course.id, exchangeId, personIds: [person.id] });
    });
  }

  /** For staff: all that has been submitted about a draft, with what is kept from its author, and what that is. */
  async ofDraft(person: CurrentUser, exchangeId: string, draftId: string): Promise<DraftFeedbackView> {
    return this.ofDraftIn(await this.around(person, exchangeId), draftId);
  }

  /** For staff: what one draft after the other is read with. */
  async around(person: CurrentUser, exchangeId: string): Promise<ReadAround> {
    const context = await this.access.exchange(person, exchangeId);
    assertCanSee(context, { kind: 'workspace' });
    return { context, ...(await this.#people(context)) };
  }

  async ofDraftIn(around: ReadAround, draftId: string): Promise<DraftFeedbackView> {
    const { context, labels } = around;
    const manager = this.database.read;
    const draft = await manager.findOneBy(Draft, { id: draftId, exchangeId: context.exchange.id });
    const counting = draft === null ? null : await countingVersion(manager, draft.id);
    if (draft === null || counting === null) throw refusal('unknown');
    const all = await manager.find(Review, { where: { draftId }, order: { id: 'ASC' } });
    const submitted = all.filter(({ submittedAt }) => submittedAt !== null);
    const reading = { ...draftRelation(await draftAccess(manager, context, draft)), byViewer: false };
    const { authors, reviews, drafts } = await this.#contents(around, draft, counting, submitted, reading, 'staff');
    const kept = await manager.findBy(Withheld, { reviewId: In(submitted.map(({ id }) => id)) });
    return {
      ...{ drafts, form: await formOf(manager, context), reviews },
      missing: missingOf(all, authors),
      author: labels.authorOf(draft),
      ownId: all.find(({ voice, reviewerId }) => voice !== null && reviewerId === context.participant?.id)?.id ?? null,
      mayReview: can(context, { kind: 'review-as-staff' }),
      withheld: kept.map(({ reviewId, kind, targetId, reason }) => ({ reviewId, kind, targetId, reason })),
    };
  }

  /** All that an author gets about the own draft. Reviews in the order of their random ids. */
  async mine(person: CurrentUser, exchangeId: string): Promise<FeedbackView> {
    const context = await this.access.exchange(person, exchangeId);
    assertCanSee(context, { kind: 'feedback' });
    const manager = this.database.read;
    const form = await formOf(manager, context);
    const draft = await this.access.ownDraft(context);
    const counting = draft === null ? null : await countingVersion(manager, draft.id);
    if (draft === null || counting === null) return { drafts: [], form, reviews: [], missing: 0 };
    const all = await manager.find(Review, { where: { draftId: draft.id }, order: { id: 'ASC' } });
    // As the author, also of a review of one's own: it comes with the others, once it is submitted.
    const reading = { ...draftRelation(await draftAccess(manager, context, draft)), byViewer: false };
    const seen = all.filter(({ submittedAt, withheldAt }) =>
      canSee(context, { kind: 'review', ...reading, submitted: submittedAt !== null, withheld: withheldAt !== null }),
    );
    const around = { context, ...(await this.#people(context)) };
    const { authors, reviews, drafts } = await this.#contents(around, draft, counting, seen, reading, 'author');
    // Until all are released, what is not submitted yet is nobody's to know.
    return { drafts, form, reviews, missing: context.facts.may.released ? missingOf(all, authors) : 0 };
  }

  async #people(context: ExchangeContext): Promise<Omit<ReadAround, 'context'>> {
    const manager = this.database.read;
    return {
      everyone: await Authors.load(manager, context.exchange),
      labels: await PersonLabels.ofExchange(manager, context),
    };
  }

  /** What these reviews say, and the versions that they are of. */
  async #contents(
    { context, everyone, labels }: ReadAround,
    draft: Draft,
    counting: DraftVersion,
    seen: readonly Review[],
    reading: Reading,
    as: Reader,
  ) {
    const manager = this.database.read;
    const authors = everyone.of(draft);
    const versions = new Map<string, DraftVersion>();
    const reviews: Array<FeedbackView['reviews'][number]> = [];
    for (const review of seen) {
      const version = (await reviewedVersion(manager, review)) ?? counting;
      versions.set(version.id, version);
      reviews.push({
        id: review.id,
        reviewer: labels.reviewerOf(review),
        self: authors.includes(review.reviewerId),
        version: version.number,
        ...(await this.contents.load(manager, context, review, reading)),
      });
    }
    const read = versions.size === 0 ? [counting] : [...versions.values()].sort((a, b) => b.number - a.number);
    const drafts: Array<FeedbackView['drafts'][number]> = [];
    for (const version of read) drafts.push(await this.readings.of(manager, context, draft, version, as));
    return { authors, reviews, drafts };
  }
}

/** One that is withheld is not told of either. Of others: whether the own one is submitted, its author knows. */
function missingOf(all: readonly Review[], authors: readonly string[]): number {
  return all.filter(
    ({ submittedAt, reviewerId, voice }) => submittedAt === null && voice === null && !authors.includes(reviewerId),
  ).length;
}
