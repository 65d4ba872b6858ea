import { Injectable } from '@nestjs/common';
import type {
  CheckRequest,
  CheckView,
  FlaggingRulesRequest,
  FlagView,
  LookedView,
  QueueRow,
  QueueView,
} from '@salt-circle/contracts';
import { flagKey, flagRank, DEFAULT_FLAGGING_RULES, type Flag, type FlaggingRules } from '@salt-circle/core';
import { In, IsNull, Not, type EntityManager } from 'typeorm';
import { Access, assertCan, assertCanSee, type ExchangeContext } from '../../permissions/access.js';
import { Authors } from '../../queries/authors.js';
import { PersonLabels } from '../../queries/person-labels.js';
import { courseNames } from '../../queries/course-identities.js';
import { reviewAccess } from '../../permissions/review-access.js';
import { rowsOfReviews } from '../../queries/rows-of-reviews.js';
import type { CurrentUser } from '../../auth/view-as.js';
import { LookRequestRow, ReviewCheck, Withheld } from '../../model/moderation.js';
import { Draft } from '../../model/draft.js';
import { Exchange } from '../../model/exchange.js';
import { Review } from '../../model/review.js';
import { Database } from '../../platform/database/database.js';
import { groupedBy } from '../../platform/grouping/grouped-by.js';
import { refusal } from '../../platform/problems/sentences.js';
import { iso } from '../../platform/wire/instants.js';
import { ReviewFlags } from './review-flags.service.js';
import { ALLOCATED } from '../../permissions/review-state.js';
import { say } from '../../words/moderation.js';

/** Submitted reviews, those with flags first, and what staff have made of them. */
@Injectable()
export class ReviewQueue {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly flags: ReviewFlags,
  ) {}

  async queue(person: CurrentUser, exchangeId: string): Promise<QueueView> {
    const context = await this.access.exchange(person, exchangeId);
    assertCanSee(context, { kind: 'workspace' });
    const manager = this.database.read;
    const reviews = await manager.findBy(Review, { exchangeId, ...ALLOCATED, submittedAt: Not(IsNull()) });
    const found = await this.flags.of(manager, context);
    const around = await Around.load(manager, context, await manager.findBy(Draft, { exchangeId }), reviews);
    const marked = await rowsOfReviews(manager, ReviewCheck, exchangeId).getMany();
    const checks = new Map(marked.map((one) => [one.reviewId, one]));
    const kept = groupedBy(await rowsOfReviews(manager, Withheld, exchangeId).getMany(), ({ reviewId }) => reviewId);
    const waiting = await rowsOfReviews(manager, LookRequestRow, exchangeId)
      .andWhere('row.answeredAt IS NULL')
      .getMany();
    const requests = groupedBy(waiting, ({ reviewId }) => reviewId);
    const names = await staffNames(manager, context, [...checks.values()]);
    const rows = reviews.map((review): QueueRow => {
      const check = checks.get(review.id) ?? null;
      return {
        reviewId: review.id,
        ...around.labelsOf(review),
        words: review.words,
        notes: review.noteCount,
        submittedAt: iso(review.submittedAt as number),
        flags: around.views(
          [...askedFor(review, requests.get(review.id) ?? []), ...(found.get(review.id) ?? [])],
          check,
        ),
        looked: lookedView(review, check, names),
        withheld: review.withheldAt !== null ? 'all' : (kept.get(review.id)?.length ?? 0),
      };
    });
    const rank = ({ flags }: QueueRow) => flagRank(flags.flatMap(({ flag, dismissed }) => (dismissed ? [] : [flag])));
    rows.sort((a, b) => rank(b) - rank(a) || a.words - b.words || (a.reviewId < b.reviewId ? -1 : 1));
    return { bounds: context.exchange.flaggingRules ?? DEFAULT_FLAGGING_RULES, rows };
  }

  async saveBounds(person: CurrentUser, exchangeId: string, bounds: FlaggingRulesRequest): Promise<void> {
    await this.database.write(async (manager, emit) => {
      const context = await this.access.exchange(person, exchangeId, manager);
      assertCan(context, { kind: 'plan' });
      await manager.update(Exchange, { id: exchangeId }, { flaggingRules: boundsFrom(bounds) });
      emit.quietly({ topic: 'reviews', courseId: context.course.id, exchangeId });
    });
  }

  /** What staff know of one review. */
  async one(person: CurrentUser, reviewId: string): Promise<CheckView> {
    const manager = this.database.read;
    const { context, review } = await reviewAccess(this.access, manager, person, reviewId);
    assertCanSee(context, { kind: 'workspace' });
    if (review.submittedAt === null) return { flags: null, looked: null };
    const found = await this.flags.of(manager, context);
    const check = await manager.findOneBy(ReviewCheck, { reviewId });
    const requests = await manager.findBy(LookRequestRow, { reviewId, answeredAt: IsNull() });
    const flags = [...askedFor(review, requests), ...(found.get(reviewId) ?? [])];
    const others = flags.flatMap((flag) => (flag.code === 'same-text' ? [flag.reviewId] : []));
    const reviews = await manager.findBy(Review, { id: In(others) });
    const drafts = await manager.findBy(Draft, { id: In(reviews.map(({ draftId }) => draftId)) });
    const around = await Around.load(manager, context, drafts, reviews);
    const names = await staffNames(manager, context, check === null ? [] : [check]);
    return {
      flags: around.views(flags, check),
      looked: lookedView(review, check, names),
    };
  }

  async save(person: CurrentUser, reviewId: string, request: CheckRequest): Promise<CheckView> {
    await this.mark(person, reviewId, request);
    return this.one(person, reviewId);
  }

  /** Whoever looked first stays the one who has, until the review is submitted again. */
  mark(person: CurrentUser, reviewId: string, { looked, dismissed }: CheckRequest): Promise<void> {
    return this.database.write(async (manager, emit) => {
      const { context, review } = await reviewAccess(this.access, manager, person, reviewId);
      assertCan(context, { kind: 'check' });
      if (review.submittedAt === null) throw refusal('unknown');
      const known = await manager.findOneBy(ReviewCheck, { reviewId });
      const already = looked && known?.ofSubmission === review.submittedAt && known.lookedAt !== null;
      const mark = already
        ? {}
        : looked
          ? { lookedAt: context.now, lookedBy: person.id, ofSubmission: review.submittedAt }
          : { lookedAt: null, lookedBy: null, ofSubmission: null };
      await manager.save(ReviewCheck, { ...known, reviewId, ...mark, dismissed: [...new Set(dismissed)] });
      emit.quietly({ topic: 'reviews', courseId: context.course.id, exchangeId: context.exchange.id });
    });
  }
}

/** Field by field in one order, so that equal bounds are equal texts. */
function boundsFrom(request: FlaggingRulesRequest): FlaggingRules {
  const { fewWords, nothingToDo, farFromOthers, oneEnd, sameText, hasty, names } = request;
  const harshWords = [...new Set(request.harshWords.map((word) => word.trim().toLowerCase()))].filter(Boolean);
  return { fewWords, nothingToDo, farFromOthers, oneEnd, sameText, hasty, names, harshWords };
}

/** Who reviewed whose draft, as staff may know it. */
class Around {
  private constructor(
    private readonly labels: PersonLabels,
    private readonly authors: Authors,
    private readonly drafts: ReadonlyMap<string, Draft>,
    private readonly reviews: ReadonlyMap<string, Review>,
  ) {}

  static async load(
    manager: EntityManager,
    context: ExchangeContext,
    drafts: readonly Draft[],
    reviews: readonly Review[],
  ): Promise<Around> {
    return new Around(
      await PersonLabels.ofExchange(manager, context),
      await Authors.load(manager, context.exchange),
      new Map(drafts.map((draft) => [draft.id, draft])),
      new Map(reviews.map((review) => [review.id, review])),
    );
  }

  labelsOf(review: Review): Pick<QueueRow, 'reviewer' | 'author' | 'draftTitle' | 'self'> {
    const draft = this.drafts.get(review.draftId) as Draft;
    return {
      reviewer: this.labels.reviewer(review.reviewerId),
      author: this.labels.authorOf(draft),
      draftTitle: draft.title,
      self: this.authors.of(draft).includes(review.reviewerId),
    };
  }

  views(flags: readonly Flag[], check: ReviewCheck | null): FlagView[] {
    return flags.map((flag) => {
      const key = flagKey(flag);
      const that = flag.code === 'same-text' ? this.reviews.get(flag.reviewId) : undefined;
      const { reviewer, author } = that === undefined ? { reviewer: null, author: null } : this.labelsOf(that);
      return {
        key,
        flag,
        // What somebody asks for is answered, not dismissed.
        dismissed: flag.code !== 'asked' && check?.dismissed.includes(key) === true,
        other: reviewer === null || author === null ? null : { reviewer, author },
      };
    });
  }
}

function staffNames(
  manager: EntityManager,
  { course }: ExchangeContext,
  checks: readonly ReviewCheck[],
): Promise<ReadonlyMap<string, string>> {
  const ids = checks.flatMap(({ lookedBy }) => (lookedBy === null ? [] : [lookedBy]));
  return courseNames(manager, course.id, [...new Set(ids)]);
}

/** What was asked and is not answered yet. */
function askedFor(review: Review, requests: readonly LookRequestRow[]): Flag[] {
  return requests.map(({ id, participantId, words }) => ({
    ...{ code: 'asked', requestId: id, words },
    by: participantId === review.reviewerId ? 'reviewer' : 'author',
  }));
}

function lookedView(
  { submittedAt }: Review,
  check: ReviewCheck | null,
  names: ReadonlyMap<string, string>,
): LookedView | null {
  if (check?.lookedAt == null || check.ofSubmission !== submittedAt) return null;
  return { by: names.get(check.lookedBy ?? '') ?? say('someoneWhoHasLeft'), at: iso(check.lookedAt) };
}
