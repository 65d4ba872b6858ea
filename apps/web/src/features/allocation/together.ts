import type { Pair } from '@salt-circle/core';
import type { Model } from './model.js';
import { say } from '../../words/allocation.js';

/** A way out for people of whose group nobody else has handed in, in one press. */
export interface WayOut {
  readonly words: string;
  readonly add: readonly Pair[];
}

/**
 * What an instructor would do, the likeliest first: two who are alone become partners; somebody joins two others, and gets
 * one review and gives one; somebody reviews their own draft.
 */
export function waysOut(model: Model): WayOut[] {
  const alone = model.view.alone;
  const name = ({ reviewerId }: Pair) => model.reviewerName(reviewerId);
  const joined = alone.flatMap((one, index) => {
    const other = alone[index + 1];
    if (index % 2 !== 0 || other === undefined) return [];
    const add = meeting(one, other);
    return allowed(model, add) ? [{ words: say('makeAndPartners', { name: name(one), name2: name(other) }), add }] : [];
  });
  const taken = new Set<string>();
  const threes = alone.flatMap((one) => {
    const pair = partnersFor(model, one, taken);
    if (pair === null) return [];
    const [first, second] = pair;
    taken.add(first.draftId);
    const add = [
      { reviewerId: one.reviewerId, draftId: first.draftId },
      { reviewerId: second.reviewerId, draftId: one.draftId },
    ];
    return [{ words: say('letJoinAnd', { name: name(one), name2: name(first), name3: name(second) }), add }];
  });
  const selves = alone.map((one) => ({ words: say('letReviewOwnDraft', { name: name(one) }), add: [one] }));
  return [...joined, ...threes, ...selves];
}

function meeting(a: Pair, b: Pair): Pair[] {
  return [
    { reviewerId: a.reviewerId, draftId: b.draftId },
    { reviewerId: b.reviewerId, draftId: a.draftId },
  ];
}

function allowed(model: Model, pairs: readonly Pair[]): boolean {
  return pairs.every((pair) => model.meeting(pair) === 'free');
}

/** Two who review each other and nobody else, whom nobody has joined yet; each with the own draft. */
function partnersFor(model: Model, one: Pair, taken: ReadonlySet<string>): [Pair, Pair] | null {
  for (const first of model.pairs) {
    const draftId = model.ownOf.get(first.reviewerId)?.id;
    const second = model.draftById.get(first.draftId)?.authorIds[0];
    if (draftId === undefined || second === undefined || taken.has(draftId) || taken.has(first.draftId)) continue;
    const isTwo =
      model.load(draftId) === 1 &&
      model.load(first.draftId) === 1 &&
      model.meeting({ reviewerId: second, draftId }) === 'given';
    if (!isTwo) continue;
    const pair: [Pair, Pair] = [
      { reviewerId: first.reviewerId, draftId },
      { reviewerId: second, draftId: first.draftId },
    ];
    const add = [
      { reviewerId: one.reviewerId, draftId },
      { reviewerId: second, draftId: one.draftId },
    ];
    if (allowed(model, add)) return pair;
  }
  return null;
}
