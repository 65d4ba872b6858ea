import { createHash } from 'node:crypto';
import type { WishesView } from '@salt-circle/contracts';
import { pairKey, type AllocationProblem, type Pair } from '@salt-circle/core';
import type { Participant } from '../../model/exchange.js';
import type { HandedIn } from './handed-in.js';

/** What a problem is put together from. */
export interface Parts {
  readonly wishes: WishesView;
  /** Those of whom reviews are asked; and others who have some, and get no more. */
  readonly taking: ReadonlyArray<Pick<Participant, 'id' | 'extraReviews'>>;
  readonly further: ReadonlyArray<Pick<Participant, 'id'>>;
  /** Drafts that take reviews. */
  readonly drafts: readonly HandedIn[];
  /** Group of each participant, where the exchange goes by groups. */
  readonly groups: ReadonlyMap<string, string>;
  readonly strengths: ReadonlyMap<string, number>;
  readonly fixed: readonly Pair[];
  readonly apart: readonly Pair[];
  readonly earlier: AllocationProblem['earlier'];
}

type Problem = Omit<AllocationProblem, 'seed'>;

/** What the core is asked, but for the seed. */
export function problemOf({ fixed, apart, earlier, ...parts }: Parts): Problem {
  const { wishes, taking, further, drafts, groups, strengths } = parts;
  const byGroups = wishes.whom !== 'anyone';
  const asReviewer = (id: string, capacity: number): Problem['reviewers'][number] => ({
    id,
    capacity,
    ...(byGroups && groups.has(id) ? { groupId: groups.get(id) } : {}),
    ...(wishes.mix && strengths.has(id) ? { strength: strengths.get(id) } : {}),
  });
  const isFixed = new Set(fixed.map(pairKey));
  return {
    reviewers: [
      ...taking.map((one) => asReviewer(one.id, capacityOf(one, parts))),
      ...further.map(({ id }) => asReviewer(id, 0)),
    ],
    drafts: drafts.map((one) => ({
      id: one.draftId,
      authorIds: one.authorIds,
      ...(byGroups || one.groupId !== null ? { groupId: groupOfDraft(one, groups) } : {}),
    })),
    scope: wishes.whom === 'own-group' || wishes.whom === 'partners' ? 'same-group' : wishes.whom,
    ...(wishes.maxPerDraft === null ? {} : { maxPerDraft: wishes.maxPerDraft }),
    fixed,
    // What has begun goes on, even if the two are to be kept apart from now on.
    forbidden: apart.filter((pair) => !isFixed.has(pairKey(pair))),
    earlier,
  };
}

/** The group that handed a draft in, or the group of its only author; undefined without groups. */
export function groupOfDraft(
  { groupId, authorIds }: Pick<HandedIn, 'groupId' | 'authorIds'>,
  groups: ReadonlyMap<string, string>,
): string | undefined {
  return groupId ?? groups.get(authorIds[0] ?? '');
}

function capacityOf(
  { id, extraReviews }: Parts['taking'][number],
  { wishes, drafts, groups }: Pick<Parts, 'wishes' | 'drafts' | 'groups'>,
): number {
  if (extraReviews !== null) return extraReviews;
  if (wishes.whom !== 'partners') return wishes.reviewsEach;
  // Partners review all the others, however many those are.
  const ofGroup = drafts.filter((one) => groupOfDraft(one, groups) === groups.get(id));
  return ofGroup.filter(({ authorIds }) => !authorIds.includes(id)).length;
}

/** Of people, hand-ins and settings; not of what has begun, which goes on while a preview is looked at. */
export function fingerprintOf(parts: Parts): string {
  const asked = new Set(parts.taking.map(({ id }) => id));
  const earlier = parts.earlier.filter(({ reviewerId }) => asked.has(reviewerId));
  // Without what has begun, all that are kept apart are forbidden.
  const stable = problemOf({ ...parts, further: [], fixed: [], earlier });
  return createHash('sha256').update(JSON.stringify(stable)).digest('base64url');
}
