import type { AllocationActsRequest } from '@salt-circle/contracts';
import { pairKey, type Pair } from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import { insertAll } from '../../platform/database/insert-all.js';
import type { PersonLabels } from '../../queries/person-labels.js';
import { ProblemError } from '../../platform/problems/problem-error.js';
import { refusal } from '../../platform/problems/sentences.js';
import { Review } from '../../model/review.js';
import type { Change } from './change.js';
import { ForbiddenPair, type StepHands } from '../../model/allocation.js';
import type { HandedIn } from './handed-in.js';
import type { Question } from './question.js';
import { aloneIn } from './since.js';
import { say } from '../../words/allocation.js';

/** What an act by hand comes to, once all of it has been found possible. */
export interface ManualChanges {
  readonly change: Change;
  readonly held: readonly Pair[];
  readonly letGo: readonly Pair[];
  /** By people: whoever wrote the draft. */
  readonly apart: ReadonlyArray<Pick<ForbiddenPair, 'reviewerId' | 'authorId'>>;
  readonly together: ReadonlyArray<Pick<ForbiddenPair, 'reviewerId' | 'authorId'>>;
}

/** @throws ProblemError for anything that cannot be, or needs a second yes: then nothing of it is done */
export function manualChanges(question: Question, labels: PersonLabels, request: AllocationActsRequest): ManualChanges {
  const { add = [], remove = [], lock = [], unlock = [], forbid = [], allow = [] } = request;
  const board = new Hands(question, labels);
  const removed = remove.map((pair) => board.review(pair));
  if (request.confirmed !== true) board.assertNotBegun(removed);
  const leaving = new Set(removed.map(pairKey));
  const released = new Set(allow.map(pairKey));
  for (const pair of add) board.assertAddable(pair, leaving, released);
  if (new Set(add.map(pairKey)).size < add.length) throw alreadyThere(say('thisPair'));
  for (const pair of [...lock, ...unlock]) board.review(pair);
  return {
    change: { act: 'by-hand', add: add.map((pair) => ({ ...plain(pair), locked: true })), remove: removed },
    held: lock.map(plain),
    letGo: unlock.map(plain),
    apart: forbid.flatMap((pair) => board.people(pair)),
    together: allow.flatMap((pair) => board.people(pair)),
  };
}

/** Does the part of it that is no change of pairs. @returns what of it changed anything; undefined for nothing */
export async function lockAndSeparate(
  manager: EntityManager,
  exchangeId: string,
  { held, letGo, apart, together }: ManualChanges,
): Promise<StepHands | undefined> {
  const reviews = new Map((await manager.findBy(Review, { exchangeId })).map((one) => [pairKey(one), one.locked]));
  const holding = held.filter((pair) => reviews.get(pairKey(pair)) === false);
  const letting = letGo.filter((pair) => reviews.get(pairKey(pair)) === true);
  for (const pair of holding) await manager.update(Review, { ...pair }, { locked: true });
  for (const pair of letting) await manager.update(Review, { ...pair }, { locked: false });
  const before = await manager.findBy(ForbiddenPair, { exchangeId });
  const allowed = together.filter((one) =>
    before.some(({ reviewerId, authorId }) => reviewerId === one.reviewerId && authorId === one.authorId),
  );
  for (const people of allowed) await manager.delete(ForbiddenPair, { exchangeId, ...people });
  const rows = await manager.findBy(ForbiddenPair, { exchangeId });
  const known = new Set(rows.map(({ reviewerId, authorId }) => `${reviewerId} ${authorId}`));
  const fresh = apart.filter(({ reviewerId, authorId }) => !known.has(`${reviewerId} ${authorId}`));
  await insertAll(
    manager,
    ForbiddenPair,
    fresh.map((people) => ({ ...people, exchangeId })),
  );
  const changed = holding.length + letting.length + fresh.length + allowed.length > 0;
  return changed ? { held: holding, letGo: letting, apart: fresh, together: allowed } : undefined;
}

function plain({ reviewerId, draftId }: Pair): Pair {
  return { reviewerId, draftId };
}

class Hands {
  readonly #reviews: ReadonlyMap<string, Review>;
  readonly #drafts: ReadonlyMap<string, HandedIn>;
  readonly #people: ReadonlySet<string>;
  readonly #forbidden: ReadonlySet<string>;
  readonly #voiced: ReadonlySet<string>;
  /** Whoever has nobody to review with may review themselves, where an instructor says so. */
  readonly #alone: ReadonlySet<string>;

  constructor(
    question: Question,
    private readonly labels: PersonLabels,
  ) {
    this.#reviews = new Map([...question.current, ...question.own].map((one) => [pairKey(one), one]));
    this.#drafts = new Map(question.drafts.map((one) => [one.draftId, one]));
    this.#people = new Set([...question.students, ...question.extras].map(({ id }) => id));
    this.#forbidden = new Set(question.problem.forbidden.map(pairKey));
    this.#voiced = new Set(question.voiced.map(pairKey));
    this.#alone = new Set(aloneIn(question).map(pairKey));
  }

  review(pair: Pair): Review {
    const review = this.#reviews.get(pairKey(pair));
    if (review !== undefined) return review;
    this.draft(pair.draftId);
    throw new ProblemError({
      code: 'allocation-changed',
      sentence: say('thisPairIsNotAllocated'),
      whatToDo: say('lookAtBoardAsItIsNow'),
    });
  }

  draft(id: string): HandedIn {
    const draft = this.#drafts.get(id);
    if (draft === undefined) throw refusal('unknown');
    return draft;
  }

  assertReviewer(id: string): void {
    if (!this.#people.has(id)) throw refusal('unknown');
  }

  /** The reviewer, beside each author of the draft. */
  people({ reviewerId, draftId }: Pair): Array<{ reviewerId: string; authorId: string }> {
    this.assertReviewer(reviewerId);
    return this.draft(draftId).authorIds.map((authorId) => ({ reviewerId, authorId }));
  }

  assertAddable(pair: Pair, leaving: ReadonlySet<string>, released: ReadonlySet<string>): void {
    this.assertReviewer(pair.reviewerId);
    const draft = this.draft(pair.draftId);
    const names = say('andDraftBy', { reviewer: this.#reviewer(pair), author: this.#author(draft) });
    if (draft.authorIds.includes(pair.reviewerId) && !this.#alone.has(pairKey(pair))) {
      throw new ProblemError({
        code: 'invalid',
        sentence: say('wroteThatDraftSoIt', { reviewer: this.#reviewer(pair) }),
        whatToDo: say('chooseAnotherDraftReviewsOf'),
      });
    }
    if (this.#reviews.has(pairKey(pair)) && !leaving.has(pairKey(pair))) throw alreadyThere(names);
    if (this.#voiced.has(pairKey(pair))) {
      throw new ProblemError({
        code: 'invalid',
        sentence: say('reviewsThatDraftUnderOwn', { reviewer: this.#reviewer(pair) }),
        whatToDo: say('chooseAnotherDraftOrAnother'),
      });
    }
    if (this.#forbidden.has(pairKey(pair)) && !released.has(pairKey(pair))) {
      throw new ProblemError({
        code: 'invalid',
        sentence: say('youHaveKeptApart', { names }),
        whatToDo: say('allowPairFirstThenAdd'),
      });
    }
  }

  /** Taking away what has begun needs a second yes, that names what it concerns. */
  assertNotBegun(removed: readonly Review[]): void {
    const begun = removed.filter(({ begunAt }) => begunAt !== null);
    if (begun.length === 0) return;
    const each = begun.map((review) => {
      const done = review.submittedAt === null ? 'begun' : 'submitted';
      const draft = this.draft(review.draftId);
      return say('sReviewOfDraftBy', {
        reviewer: this.#reviewer(review),
        author: this.#author(draft),
        done,
        answered: review.answered,
        required: review.required,
        notes: review.noteCount,
      });
    });
    throw new ProblemError({
      code: 'needs-confirming',
      sentence: each.join(' '),
      whatToDo: say('takenAwayNeitherReviewerNor'),
    });
  }

  #reviewer({ reviewerId }: Pair): string {
    return this.labels.reviewer(reviewerId).name ?? 'somebody';
  }

  #author(draft: HandedIn): string {
    return this.labels.authorOf(draft).name ?? 'somebody';
  }
}

function alreadyThere(names: string): ProblemError {
  return new ProblemError({
    code: 'invalid',
    sentence: say('areAllocatedAlready', { names }),
    whatToDo: say('chooseAnotherPair'),
  });
}
