import type { PracticeCard, PracticeView } from '@salt-circle/contracts';
import { type Closeness, type ItemCloseness, type PracticeRule, type PracticeState } from '@salt-circle/core';
import { percent } from '../../app/percent.js';
import type { MarkState } from '../../kit/index.js';
import { say } from '../../words/practice.js';

export const PRACTICE_MARKS: Readonly<Record<PracticeState, MarkState>> = {
  'not-begun': 'not-begun',
  'in-progress': 'in-progress',
  again: 'in-progress',
  done: 'done',
  'used-up': 'done',
};

/** Where somebody stands with a practice draft, in words. */
export function stateWords({ state, shares }: NonNullable<PracticeCard['own']>, { closeEnough }: PracticeRule): string {
  const last = shares.at(-1) ?? null;
  const share = last === null ? null : percent(last);
  switch (state) {
    case 'not-begun':
      return say('notBegun');
    case 'in-progress':
      return shares.length === 0 ? say('begunNotSubmitted') : say('begunOnceMoreNotSubmitted');
    case 'again':
      return say('submittedAreAskedFor', { share: share ?? percent(0), closeEnough: percent(closeEnough ?? 0) });
    case 'done':
      return share === null ? say('submitted') : say('submittedNear', { share });
    case 'used-up':
      return share === null ? say('submittedAsOftenAsYou') : say('submittedAsOftenNear', { share });
  }
}

/** What practice is for, and what it opens. */
export function ruleWords({ rule }: Pick<PracticeView, 'rule'>): string {
  const what = say('reviewSampleDraftAsYou');
  const first = rule.when === 'first' ? say('draftsOfOthersOpenTo') : say('youMayLeaveItOut');
  return `${what} ${first}`;
}

export function triesWords({ tries }: PracticeRule, used: number): string {
  if (tries === null) return used === 0 ? say('asOftenAsYouLike') : say('triesSoFar', { used });
  return say('triesOf', { used, tries });
}

/** How one item stands to the key. */
export function itemWords({ unit, apart, gives }: ItemCloseness): string {
  if (apart === null) return say('youLeftItOpen');
  if (apart === 0) return unit === 'bands' ? say('sameBandAsKey') : say('sameAsKey');
  const side = gives ?? 'none';
  switch (unit) {
    case 'levels':
      return say('levels', { apart, side });
    case 'bands':
      return say('bands', { apart, side });
    case 'points':
      return say('points', { apart, side });
    case 'entries':
      return say('entriesAnsweredOtherwise', { apart });
    case 'choice':
      return say('anotherChoiceThanKey');
    case 'number':
      return gives === 'more' ? say('moreThanKey', { apart }) : say('lessThanKey', { apart });
  }
}

/** The whole try in one sentence. */
export function resultWords({ items, share }: Closeness): string {
  if (share === null) return say('thereIsNothingToCount');
  const near = items.filter((one) => one.near).length;
  return near === items.length
    ? say('allItemsThatCanBe', { near })
    : say('ofThatCanBeCompared', { near, items: items.length, share: percent(share) });
}
