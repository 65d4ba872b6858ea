import { createHash } from 'node:crypto';
import { Injectable, type OnApplicationShutdown } from '@nestjs/common';
import {
  countWords,
  hidesNames,
  levelShares,
  saysWhatToDo,
  DEFAULT_FLAGGING_RULES,
  type Flag,
  type Identity,
  type ReviewForm,
} from '@salt-circle/core';
import { IsNull, Not, type EntityManager } from 'typeorm';
import type { ExchangeContext } from '../../permissions/access.js';
import { Authors } from '../../queries/authors.js';
import { formOf } from '../../queries/review-form.js';
import { courseIdentities } from '../../queries/course-identities.js';
import { countingRows } from '../../queries/written-rows.js';
import { Enrolment } from '../../model/course.js';
import { Draft } from '../../model/draft.js';
import { GroupMemberRow } from '../../model/group.js';
import { Participant } from '../../model/exchange.js';
import { Review } from '../../model/review.js';
import { portions } from '../../platform/database/portions.js';
import { compiled, Threads } from '../../platform/jobs/threads.js';
import { answerView, saysSomething } from '../reviews/contents.service.js';
import type { LookedAt, LookTask } from './worker/look.js';
import { ALLOCATED } from '../../permissions/review-state.js';

/** Megabytes and milliseconds: far more than ten thousand reviews take, and an end all the same. */
const LIMITS = { memory: 2048, time: 5 * 60_000 };

/** Exchanges whose flags are kept in memory. */
const KEPT = 50;

interface Kept {
  readonly stamp: string;
  readonly flags: Promise<ReadonlyMap<string, readonly Flag[]>>;
}

/** Why submitted reviews are to be looked at. Worked out in a thread when something was submitted since, and kept. */
@Injectable()
export class ReviewFlags implements OnApplicationShutdown {
  readonly #threads = new Threads(compiled('features/moderation/worker/look.js'), LIMITS);
  readonly #kept = new Map<string, Kept>();

  /** By review, in the order of their weight; of each submitted review of the exchange. */
  async of(manager: EntityManager, context: ExchangeContext): Promise<ReadonlyMap<string, readonly Flag[]>> {
    const reviews = await this.#submitted(manager, context);
    const { id } = context.exchange;
    const stamp = stampOf(context, reviews, await namesIn(manager, context));
    const known = this.#kept.get(id);
    if (known?.stamp === stamp) return known.flags;
    const flags = this.#look(manager, context, reviews);
    this.#kept.delete(id);
    this.#kept.set(id, { stamp, flags });
    for (const [oldest] of this.#kept) if (this.#kept.size > KEPT) this.#kept.delete(oldest);
    try {
      return await flags;
    } catch (error) {
      // What failed is tried again the next time.
      this.#kept.delete(id);
      throw error;
    }
  }

  async onApplicationShutdown(): Promise<void> {
    await this.#threads.end();
  }

  #submitted(manager: EntityManager, { exchange }: ExchangeContext): Promise<Review[]> {
    const where = { exchangeId: exchange.id, ...ALLOCATED, submittedAt: Not(IsNull()) };
    return manager.find(Review, { where, order: { id: 'ASC' } });
  }

  async #look(manager: EntityManager, context: ExchangeContext, reviews: readonly Review[]) {
    const task: LookTask = {
      reviews: await evidenceOf(manager, context, reviews),
      bounds: context.exchange.flaggingRules ?? DEFAULT_FLAGGING_RULES,
    };
    const found = await this.#threads.run<Array<readonly [string, readonly Flag[]]>, never>('look', task, {
      time: LIMITS.time,
    });
    return new Map(found);
  }
}

/** Changes with everything that flags follow from. */
function stampOf({ exchange }: ExchangeContext, reviews: readonly Review[], people: string): string {
  const { flaggingRules, names } = exchange;
  return JSON.stringify([flaggingRules, names, people, reviews.map(({ id, submittedAt }) => [id, submittedAt])]);
}

/** A digest of whom names can tell: of everybody in the course, and of groups, whose members are authors together. */
async function namesIn(manager: EntityManager, { exchange, course }: ExchangeContext): Promise<string> {
  if (exchange.names === 'open') return '';
  const people = await manager
    .createQueryBuilder(Enrolment, 'one')
    .leftJoin(GroupMemberRow, 'member', 'member.enrolmentId = one.id')
    .where('one.courseId = :id', { id: course.id })
    .select(['one.id', 'one.name', 'one.email', 'one.campusId', 'member.groupId'])
    .orderBy('one.id')
    .addOrderBy('member.groupId')
    .getRawMany<object>();
  return createHash('sha256').update(JSON.stringify(people)).digest('base64url');
}

async function evidenceOf(
  manager: EntityManager,
  context: ExchangeContext,
  reviews: readonly Review[],
): Promise<LookedAt[]> {
  const form = await formOf(manager, context);
  const people = await peopleOf(manager, context);
  const evidence: LookedAt[] = [];
  for (const some of portions(reviews)) {
    evidence.push(...(await lookedAt(manager, form, people, some)));
    // Between two portions others are answered.
    await new Promise(setImmediate);
  }
  return evidence;
}

interface People {
  readonly authorsOf: (draftId: string) => readonly string[];
  readonly hidden: (review: Review) => readonly Identity[];
}

/** Whose names are not to stand in a review: whoever of author and reviewer the exchange hides. */
async function peopleOf(manager: EntityManager, { exchange, course }: ExchangeContext): Promise<People> {
  const participants = await manager.findBy(Participant, { exchangeId: exchange.id });
  const persons = new Map(participants.map(({ id, personId }) => [id, personId]));
  const listed = await courseIdentities(manager, course.id, [...persons.values()]);
  const authors = await Authors.load(manager, exchange);
  const drafts = new Map((await manager.findBy(Draft, { exchangeId: exchange.id })).map((draft) => [draft.id, draft]));
  const authorsOf = (draftId: string) => {
    const draft = drafts.get(draftId);
    return draft === undefined ? [] : authors.of(draft);
  };
  return {
    authorsOf,
    hidden: ({ draftId, reviewerId }) => {
      const { names } = exchange;
      const ids = [
        ...(hidesNames(names, 'author') ? authorsOf(draftId) : []),
        ...(hidesNames(names, 'reviewer') ? [reviewerId] : []),
      ];
      return ids.flatMap((id) => listed.get(persons.get(id) ?? '') ?? []);
    },
  };
}

async function lookedAt(
  manager: EntityManager,
  form: ReviewForm,
  people: People,
  reviews: readonly Review[],
): Promise<LookedAt[]> {
  const select = { id: true, reviewId: true, kind: true, body: true, edit: true } as const;
  const rowsOf = await countingRows(manager, reviews, select);
  return reviews.map((review): LookedAt => {
    const { answers: given, notes } = rowsOf(review);
    const said = notes.filter(saysSomething);
    const text = [...given.flatMap(({ text: one, next }) => [one, next]), ...said.map(({ body }) => body)]
      .filter((one) => one.trim() !== '')
      .join('\n');
    return {
      id: review.id,
      draftId: review.draftId,
      reviewerId: review.reviewerId,
      self: people.authorsOf(review.draftId).includes(review.reviewerId),
      words: countWords(text),
      notes: said.length,
      telling: said.filter(({ kind, body, edit = null }) => saysWhatToDo({ kind, body, edit })).length,
      levels: levelShares(form, Object.fromEntries(given.map((row) => [row.itemId, answerView(row)]))),
      seconds: review.begunAt === null ? null : Math.round(((review.submittedAt ?? 0) - review.begunAt) / 1_000),
      text,
      people: people.hidden(review),
    };
  });
}
