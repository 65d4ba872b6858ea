import { createHash } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import type { AllocationPreviewView, AllocationView, PairView } from '@salt-circle/contracts';
import type { Person } from '../accounts/entities.js';
import { Database } from '../database/database.js';
import { insertAll } from '../database/insert-all.js';
import { Access, act, see } from '../exchanges/access.js';
import { Labels } from '../exchanges/labels.js';
import { activeParticipants } from '../exchanges/participants.js';
import { Ids } from '../ids/ids.js';
import { ProblemError } from '../problems/problem-error.js';
import { Review } from '../reviews/entities.js';
import { reviewState } from '../reviews/state.js';
import { handedInDrafts, loadQuestion, solve, type HandedIn, type Question } from './problem-of.js';

@Injectable()
export class AllocationService {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly ids: Ids,
  ) {}

  async one(person: Person, exchangeId: string): Promise<AllocationView> {
    const place = await this.access.exchange(person, exchangeId);
    see(place, { kind: 'workspace' });
    const manager = this.database.read;
    const labels = await Labels.ofExchange(manager, place);
    const handedIn = await handedInDrafts(manager, place.exchange);
    const byDraft = new Map(handedIn.map((one) => [one.draftId, one]));
    const reviews = await manager.find(Review, {
      where: { exchangeId },
      order: { reviewerId: 'ASC', position: 'ASC' },
    });
    const pairs = reviews.flatMap((review): PairView[] => {
      const draft = byDraft.get(review.draftId);
      if (draft === undefined) return [];
      return [
        {
          reviewer: labels.reviewer(review.reviewerId),
          author: labels.authorOf(draft),
          draftTitle: draft.title,
          reviewId: review.id,
          state: reviewState(review),
        },
      ];
    });
    return {
      applied: reviews.length > 0,
      begun: reviews.some(({ begunAt }) => begunAt !== null),
      pairs: pairs.sort(byReviewer),
      handedIn: handedIn.length,
      students: (await activeParticipants(manager, exchangeId)).length,
    };
  }

  async preview(person: Person, exchangeId: string, seed: number): Promise<AllocationPreviewView> {
    const place = await this.access.exchange(person, exchangeId);
    act(place, { kind: 'allocate' });
    const manager = this.database.read;
    const { question, leftOut } = await loadQuestion(manager, place.exchange);
    assertEnough(question.drafts);
    const { pairs, quality, shortfalls } = solve(question, seed);
    const labels = await Labels.ofExchange(manager, place);
    const byDraft = new Map(question.drafts.map((one) => [one.draftId, one]));
    return {
      seed,
      fingerprint: fingerprint(question, seed),
      pairs: pairs
        .map(({ reviewerId, draftId }): PairView => {
          const draft = byDraft.get(draftId) as HandedIn;
          return {
            reviewer: labels.reviewer(reviewerId),
            author: labels.authorOf(draft),
            draftTitle: draft.title,
            reviewId: null,
            state: 'not-begun',
          };
        })
        .sort(byReviewer),
      quality,
      shortfalls: shortfalls.map(({ reviewerId, asked, placed }) => ({
        reviewer: labels.reviewer(reviewerId),
        asked,
        placed,
      })),
      leftOut: leftOut.map((id) => labels.reviewer(id)),
    };
  }

  /** Puts the previewed allocation in the place of the current one, unless a review has begun. */
  apply(person: Person, exchangeId: string, seed: number, previewed: string): Promise<AllocationView> {
    const applied = this.database.write(async (manager, happened) => {
      const place = await this.access.exchange(person, exchangeId, manager);
      act(place, { kind: 'allocate' });
      const current = await manager.findBy(Review, { exchangeId });
      const begun = current.filter(({ begunAt }) => begunAt !== null).length;
      if (begun > 0) throw alreadyBegun(begun);
      const { question } = await loadQuestion(manager, place.exchange);
      assertEnough(question.drafts);
      if (fingerprint(question, seed) !== previewed) {
        throw new ProblemError({
          code: 'allocation-changed',
          sentence: 'Hand-ins or settings have changed since this preview was made, so it was not applied.',
          whatToDo: 'Look at a new preview, then apply that.',
        });
      }
      const { pairs, quality } = solve(question, seed);
      await manager.delete(Review, { exchangeId });
      await insertAll(manager, Review, this.#rows(exchangeId, [...selfPairs(question), ...pairs]));
      happened({
        action: 'allocation-applied',
        actorId: person.id,
        courseId: place.course.id,
        exchangeId,
        details: { pairs: pairs.length, seed, mutualPairs: quality.mutualPairs },
      });
    });
    return applied.then(() => this.one(person, exchangeId));
  }

  #rows(exchangeId: string, pairs: ReadonlyArray<{ reviewerId: string; draftId: string }>): Array<Partial<Review>> {
    const count = new Map<string, number>();
    return pairs.map(({ reviewerId, draftId }) => {
      const position = (count.get(reviewerId) ?? 0) + 1;
      count.set(reviewerId, position);
      return { id: this.ids.uuid(), exchangeId, reviewerId, draftId, position };
    });
  }
}

function alreadyBegun(begun: number): ProblemError {
  return new ProblemError({
    code: 'allocation-begun',
    sentence: `${begun === 1 ? 'One review has' : `${begun} reviews have`} been begun, so the allocation stays as it is: no work is thrown away.`,
    whatToDo: 'Reviewers can go on with what they have.',
  });
}

function assertEnough(handedIn: readonly HandedIn[]): void {
  if (handedIn.length >= 2) return;
  throw new ProblemError({
    code: 'too-few-drafts',
    sentence: `${handedIn.length === 0 ? 'Nothing has been' : 'Only one draft has been'} handed in, so there is nothing to allocate yet.`,
    whatToDo: 'Wait for more drafts, or move the date on which they are due.',
  });
}

/** Everybody reviews the own draft as well, and first, where the exchange asks for it. */
function selfPairs({ selfReview, drafts, reviewerIds }: Question): Array<{ reviewerId: string; draftId: string }> {
  if (!selfReview) return [];
  const reviewers = new Set(reviewerIds);
  return drafts.flatMap(({ authorIds, draftId }) =>
    authorIds.filter((id) => reviewers.has(id)).map((reviewerId) => ({ reviewerId, draftId })),
  );
}

function fingerprint(question: Question, seed: number): string {
  return createHash('sha256').update(JSON.stringify({ question, seed })).digest('base64url');
}

function byReviewer(a: PairView, b: PairView): number {
  return (a.reviewer.name ?? a.reviewer.alias ?? '').localeCompare(b.reviewer.name ?? b.reviewer.alias ?? '');
}
