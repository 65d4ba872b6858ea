import { pairKey, type Pair } from '@salt-circle/core';
import type { Model } from './model.js';
import type { Choice } from './views/Picker.js';
import { hindrance, type ManualChanges } from './useManualChanges.js';
import { say } from '../../words/allocation.js';

/** Drafts that a reviewer could get as well, those with the fewest reviews first. */
export function draftChoices(model: Model, manual: ManualChanges, reviewerId: string): Choice[] {
  return sorted(
    model.view.drafts
      .filter(({ closed }) => !closed)
      .map(({ id: draftId }) => {
        const pair = { reviewerId, draftId };
        const load = model.load(draftId);
        const reason = hindrance(model.meeting(pair));
        return {
          key: draftId,
          words: model.authorName(draftId),
          effect:
            reason ??
            say('nowThen', { reviews: load, then: load + 1, met: model.times.has(pairKey(pair)) ? 'yes' : 'no' }),
          disabled: reason !== null,
          rank: load,
          onPick: () => manual.add(pair),
        };
      }),
  );
}

/** Reviewers who could take over a draft, those with the fewest reviews first. */
export function reviewerChoices(model: Model, manual: ManualChanges, from: Pair): Choice[] {
  return sorted(
    model.view.reviewers
      .filter(({ leftOut }) => leftOut === null || leftOut === 'not-handed-in')
      .map(({ id: reviewerId, capacity, leftOut }) => {
        const to = { reviewerId, draftId: from.draftId };
        const given = model.given(reviewerId);
        const reason = hindrance(model.meeting(to));
        return {
          key: reviewerId,
          words: model.reviewerName(reviewerId),
          effect:
            reason ??
            say('writesOfNowThen', { given, capacity, then: given + 1, apart: leftOut === null ? 'no' : 'yes' }),
          disabled: reason !== null,
          rank: given - capacity + (leftOut === null ? 0 : 1000),
          onPick: () => manual.move(from, to),
        };
      }),
  );
}

/** Other pairs with which this one could change drafts. */
export function swapChoices(model: Model, manual: ManualChanges, pair: Pair): Choice[] {
  return sorted(
    model.pairs
      .filter(({ reviewerId, draftId }) => reviewerId !== pair.reviewerId && draftId !== pair.draftId)
      .map((other) => {
        const reason =
          hindrance(model.meeting({ reviewerId: pair.reviewerId, draftId: other.draftId })) ??
          hindrance(model.meeting({ reviewerId: other.reviewerId, draftId: pair.draftId }));
        return {
          key: pairKey(other),
          words: say('whoReviews', {
            reviewerName: model.reviewerName(other.reviewerId),
            authorName: model.authorName(other.draftId),
          }),
          effect: reason ?? say('numbersStayAsTheyAre'),
          disabled: reason !== null,
          rank: 0,
          onPick: () => manual.swap(pair, other),
        };
      }),
  );
}

function sorted(choices: ReadonlyArray<Choice & { readonly rank: number }>): Choice[] {
  return [...choices].sort(
    (a, b) => Number(a.disabled) - Number(b.disabled) || a.rank - b.rank || a.words.localeCompare(b.words),
  );
}
