import { createHash } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import type { AllocationPreviewView, AllocationView, PairView } from '@salt-circle/contracts';
import { allocate, type AllocationProblem } from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import type { Person } from '../accounts/entities.js';
import { Database } from '../database/database.js';
import { insertAll } from '../database/insert-all.js';
import { Draft } from '../drafts/entities.js';
import { Access, act, see, type Place } from '../exchanges/access.js';
import { Participant } from '../exchanges/entities.js';
import { Labels } from '../exchanges/labels.js';
import { Ids } from '../ids/ids.js';
import { ProblemError } from '../problems/problem-error.js';
import { Review } from '../reviews/entities.js';
import { reviewState } from '../reviews/state.js';

interface HandedIn {
  readonly draftId: string;
  readonly participantId: string;
  readonly title: string;
}

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
    const handedIn = await handedInDrafts(manager, exchangeId);
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
          reviewer: labels.of(review.reviewerId),
          author: labels.of(draft.participantId),
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
      students: await manager.countBy(Participant, { exchangeId }),
    };
  }

  async preview(person: Person, exchangeId: string, seed: number): Promise<AllocationPreviewView> {
    const place = await this.access.exchange(person, exchangeId);
    act(place, { kind: 'allocate' });
    const manager = this.database.read;
    const handedIn = await handedInDrafts(manager, exchangeId);
    assertEnough(handedIn);
    const problem = problemOf(handedIn, place, seed);
    const { pairs, quality, shortfalls } = allocate(problem);
    const labels = await Labels.ofExchange(manager, place);
    const byDraft = new Map(handedIn.map((one) => [one.draftId, one]));
    const present = new Set(handedIn.map(({ participantId }) => participantId));
    const everybody = await manager.findBy(Participant, { exchangeId });
    return {
      seed,
      fingerprint: fingerprint(problem),
      pairs: pairs
        .map(({ reviewerId, draftId }): PairView => {
          const draft = byDraft.get(draftId) as HandedIn;
          return {
            reviewer: labels.of(reviewerId),
            author: labels.of(draft.participantId),
            draftTitle: draft.title,
            reviewId: null,
            state: 'not-begun',
          };
        })
        .sort(byReviewer),
      quality,
      shortfalls: shortfalls.map(({ reviewerId, asked, placed }) => ({
        reviewer: labels.of(reviewerId),
        asked,
        placed,
      })),
      leftOut: everybody.filter(({ id }) => !present.has(id)).map(({ id }) => labels.of(id)),
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
      const handedIn = await handedInDrafts(manager, exchangeId);
      assertEnough(handedIn);
      const problem = problemOf(handedIn, place, seed);
      if (fingerprint(problem) !== previewed) {
        throw new ProblemError({
          code: 'allocation-changed',
          sentence: 'Hand-ins or settings have changed since this preview was made, so it was not applied.',
          whatToDo: 'Look at a new preview, then apply that.',
        });
      }
      const { pairs, quality } = allocate(problem);
      await manager.delete(Review, { exchangeId });
      await insertAll(manager, Review, this.#rows(exchangeId, pairs));
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
    sentence: `${handedIn.length === 0 ? 'Nobody has' : 'Only one student has'} handed in, so there is nothing to allocate yet.`,
    whatToDo: 'Wait for more drafts, or move the date on which they are due.',
  });
}

/** In the order of the participants' random ids: nothing of the persons steers who reviews whom. */
async function handedInDrafts(manager: EntityManager, exchangeId: string): Promise<HandedIn[]> {
  return manager
    .createQueryBuilder(Draft, 'draft')
    .innerJoin(
      'draft_version',
      'version',
      'version.draftId = draft.id AND version.number = (SELECT MAX(last.number) FROM draft_version last WHERE last.draftId = draft.id)',
    )
    .select(['draft.id AS draftId', 'draft.participantId AS participantId', 'version.title AS title'])
    .where('draft.exchangeId = :exchangeId', { exchangeId })
    .orderBy('draft.participantId', 'ASC')
    .getRawMany<HandedIn>();
}

function problemOf(handedIn: readonly HandedIn[], { exchange }: Place, seed: number): AllocationProblem {
  return {
    reviewers: handedIn.map(({ participantId }) => ({ id: participantId, capacity: exchange.reviewsPerStudent })),
    drafts: handedIn.map(({ draftId, participantId }) => ({ id: draftId, authorIds: [participantId] })),
    seed,
  };
}

function fingerprint(problem: AllocationProblem): string {
  return createHash('sha256').update(JSON.stringify(problem)).digest('base64url');
}

function byReviewer(a: PairView, b: PairView): number {
  return (a.reviewer.name ?? a.reviewer.alias ?? '').localeCompare(b.reviewer.name ?? b.reviewer.alias ?? '');
}
