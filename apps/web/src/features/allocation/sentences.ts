import type { PreviewView, ScheduleView, WishesView } from '@salt-circle/contracts';
import {
  listed,
  pairKey,
  type AllocationProgress,
  type AllocationQuality,
  type Measures,
  type Shortfall,
  wordsBy,
} from '@salt-circle/core';
import type { Model } from './model.js';
import { say } from '../../words/allocation.js';

export interface FigureWords {
  readonly words: string;
  readonly figure: string;
  readonly remark: string;
}

export function perDraft(fewest: number, most: number): string {
  return fewest === most ? say('forEach', { most }) : say('to', { fewest, most });
}

const asShare = (value: number) => value.toFixed(2);

/** Meetings, where pairs have met more than once before; else 0. */
function often(pairs: number, times: number): number {
  return times > pairs ? times : 0;
}

/** How good a computed allocation is, beside the best there is. */
export function qualityFigures(quality: AllocationQuality, wishes: WishesView): FigureWords[] {
  const { placed, balance, repeats, mutual, mix } = quality;
  const mixed = wishes.mix;
  const missing = placed.asked - (placed.reached - placed.beyond);
  const figures: FigureWords[] = [
    {
      words: say('placed'),
      figure: say('ofOf', { reached: placed.reached, asked: placed.asked }),
      remark: listed(
        [
          missing === 0 ? say('allThatWasAsked') : say('noMoreCanBePlaced', { missing }),
          ...(placed.beyond === 0 ? [] : [say('beyondByHand', { beyond: placed.beyond })]),
        ],
        'comma',
      ),
    },
    {
      words: say('reviewsPerDraft'),
      figure: perDraft(balance.fewest, balance.most),
      remark: balance.most - balance.fewest <= 1 ? say('asEvenAsCanBe') : say('asEvenAsRulesAllow'),
    },
    {
      words: say('repeatsOfEarlierPairs'),
      figure: String(repeats.pairs),
      remark:
        repeats.reached === 0
          ? say('none')
          : say('noFewerArePossible', { times: often(repeats.pairs, repeats.reached) }),
    },
    {
      words: say('pairsWhoReviewEachOther'),
      figure: String(mutual.reached),
      remark:
        mutual.reached === 0
          ? say('none')
          : isMutualAsked(wishes, quality)
            ? say('asAsked')
            : mutual.reached === mutual.bound
              ? say('bestPossible', { bound: mutual.bound })
              : say('bestPossibleTo', { bound: mutual.bound, reached: mutual.reached }),
    },
  ];
  if (mixed) {
    figures.push({
      words: say('weakestSetOfReviewers'),
      figure: mix === null ? '–' : asShare(mix.weakest),
      remark:
        mix === null ? say('nobodyHasReviewedInThisCourse') : say('ofAtMostOnScale', { asShare: asShare(mix.bound) }),
    });
  }
  return figures;
}

/** The same for what is applied, or made by hand: nothing is known of what would be possible. */
export function measuredFigures(measures: Measures, mixed: boolean): FigureWords[] {
  const { reviews, asked, beyond, fewest, most, repeats, repeatedPairs, mutualPairs, weakest } = measures;
  const missing = asked - (reviews - beyond);
  const figures: FigureWords[] = [
    {
      words: say('placed'),
      figure: say('ofOf2', { reviews, asked }),
      remark: listed([
        missing <= 0 ? say('allThatIsAsked') : say('missing', { missing }),
        ...(beyond > 0 ? [say('moreThanAsked', { beyond })] : []),
      ]),
    },
    {
      words: say('reviewsPerDraft'),
      figure: perDraft(fewest, most),
      remark: most - fewest <= 1 ? say('asEvenAsCanBe') : say('notEven'),
    },
    {
      words: say('repeatsOfEarlierPairs'),
      figure: String(repeatedPairs),
      remark: repeats === 0 ? say('none') : say('metBeforeOf', { times: often(repeatedPairs, repeats) }),
    },
    {
      words: say('pairsWhoReviewEachOther'),
      figure: String(mutualPairs),
      remark: mutualPairs === 0 ? say('none') : say('eachReviewsOther'),
    },
  ];
  if (mixed && weakest !== null) {
    figures.push({ words: say('weakestSetOfReviewers'), figure: asShare(weakest), remark: say('onScaleTo1') });
  }
  return figures;
}

const MOST_NAMES = 6;

export function named(names: readonly string[]): string {
  const shown = names.slice(0, MOST_NAMES);
  const more = names.length - shown.length;
  return more > 0 ? say('andMore', { shown: shown.join(', '), more }) : listed(shown);
}

/** "These 4 reviewers may together only review these 2 drafts", by name. */
export function shortfallSentence(
  { reviewerIds, draftIds, asked, possible }: Shortfall,
  model: Model,
  { maxPerDraft, reviewsEach }: Pick<WishesView, 'maxPerDraft' | 'reviewsEach'>,
): string {
  const who = {
    reviewers: named(reviewerIds.map((id) => model.reviewerName(id))),
    count: reviewerIds.length,
    several: reviewerIds.length === 1 ? 'no' : 'yes',
  };
  if (draftIds.length === 0)
    return say(who.count === 1 ? 'mayReviewNoneOfDrafts' : 'noneForSeveral', { ...who, asked });
  if (maxPerDraft !== null && possible >= maxPerDraft * draftIds.length) {
    const room = {
      ...{ most: maxPerDraft, possible, asked },
      wayOut: reviewsEach < draftIds.length ? 'raise' : 'fewer',
      needed: Math.ceil(asked / draftIds.length),
    };
    const all = model.view.drafts.filter(({ closed }) => !closed).length;
    return draftIds.length === all
      ? say('atMostDraftLeavesRoom', room)
      : say('atMostDraftLeavesRoomFor', { ...who, ...room });
  }
  const authors = named(draftIds.map((id) => model.authorName(id)));
  return say('mayReviewThatIsRoom', { ...who, drafts: draftIds.length, authors, possible, asked });
}

/** Two or three who review one another is what partners are for. */
const isMutualAsked = ({ whom }: WishesView, { mutual }: AllocationQuality) =>
  whom === 'partners' || (whom === 'own-group' && mutual.reached === mutual.bound);

/** What was wished and not reached, each with its reason. */
export function unmetWishes({ quality, shortfalls, pairs, wishes }: PreviewView, model: Model): string[] {
  const sentences = shortfalls.slice(0, MOST_NAMES).map((one) => shortfallSentence(one, model, wishes));
  const further = shortfalls.slice(MOST_NAMES).flatMap(({ reviewerIds }) => reviewerIds);
  if (further.length > 0) {
    sentences.push(say('stuckInSameWay', { named: named([...new Set(further)].map((id) => model.reviewerName(id))) }));
  }
  const { balance, repeats, mutual } = quality;
  const overfull = model.view.drafts.filter(
    ({ id }) => model.load(id) > balance.fewest + 1 && model.held(id) === model.load(id),
  );
  if (balance.most - balance.fewest > 1 && overfull.length > 0) {
    sentences.push(
      say('byHandOtherDraftsGet', {
        named: named(
          overfull.map(({ id }) => say('getsOf', { authorName: model.authorName(id), load: model.load(id) })),
        ),
        fewest: balance.fewest,
      }),
    );
  } else if (balance.most - balance.fewest > 1) {
    const least = model.view.drafts.filter(({ id, closed }) => !closed && model.load(id) === balance.fewest);
    sentences.push(
      say('draftsByGetOnlyNobody', {
        least: least.length,
        named: named(least.map(({ id }) => model.authorName(id))),
        fewest: balance.fewest,
      }),
    );
  }
  if (repeats.reached > 0) {
    const again = pairs.filter((pair) => model.times.has(pairKey(pair)));
    sentences.push(
      say('pairsHaveMetBeforeWith', {
        again: again.length,
        named: named(
          again.map(({ reviewerId, draftId }) =>
            say('with', { reviewerName: model.reviewerName(reviewerId), authorName: model.authorName(draftId) }),
          ),
        ),
      }),
    );
  }
  if (mutual.reached > 0 && !isMutualAsked(wishes, quality)) {
    sentences.push(
      mutual.bound === mutual.reached
        ? say('pairsReviewEachOtherWith', { reached: mutual.reached })
        : say('pairsReviewEachOtherBounded', { reached: mutual.reached }),
    );
  }
  const alone = model.view.alone.filter(({ draftId }) => model.load(draftId) === 0);
  if (alone.length > 0) {
    sentences.push(
      say('haveNobodyToReviewWithNobody', {
        named: named(alone.map(({ reviewerId }) => model.reviewerName(reviewerId))),
        alone: alone.length,
      }),
    );
  }
  if (wishes.mix && quality.mix === null) {
    sentences.push(say('strongerAndWeakerReviewersCannot'));
  }
  return sentences;
}

const REASONS: Readonly<Record<PreviewView['removed'][number]['reason'], string>> = wordsBy(say, {
  'reviewer-left': 'takesNoPartAnyMore',
  'draft-withdrawn': 'thatDraftNeedsNoReviews',
  forbidden: 'youKeepTwoApart',
  'not-allowed': 'settingsDoNotAllowIt',
  'makes-room': 'movedSoThatEveryDraft',
});
const ADDED: Readonly<Record<PreviewView['added'][number]['reason'], string>> = wordsBy(say, {
  'new-reviewer': 'newReviewer',
  'new-draft': 'newDraft',
  replaces: 'insteadOfOneTakenAway',
  'evens-out': 'soThatEveryDraftGets',
});

export interface ChangeWords {
  readonly key: string;
  readonly reviewer: string;
  readonly author: string;
  readonly reason: string;
  readonly sign: 'added' | 'removed';
}

/** What a repair changes, one line each. */
export function repairChanges({ removed, added }: PreviewView, model: Model): ChangeWords[] {
  const line = (sign: ChangeWords['sign'], reason: string, one: { reviewerId: string; draftId: string }) => ({
    key: `${sign} ${pairKey(one)}`,
    reviewer: model.reviewerName(one.reviewerId),
    author: model.authorName(one.draftId),
    reason,
    sign,
  });
  return [
    ...removed.map((one) => line('removed', REASONS[one.reason], one)),
    ...added.map((one) => line('added', ADDED[one.reason], one)),
  ].sort((a, b) => a.reviewer.localeCompare(b.reviewer) || b.sign.localeCompare(a.sign));
}

/** What something done by hand did to the balance. */
export function effectSentence(before: Measures, after: Measures): string {
  const now = perDraft(after.fewest, after.most);
  const earlier = perDraft(before.fewest, before.most);
  const parts = [
    now === earlier ? say('reviewsPerDraftOf', { perDraft: now }) : say('before', { perDraft: now, earlier }),
  ];
  if (before.mutualPairs !== after.mutualPairs)
    parts.push(say('pairsReviewEachOther', { mutualPairs: after.mutualPairs }));
  if (before.repeats !== after.repeats) parts.push(say('repeats', { repeats: after.repeats }));
  return say('asSentence', { parts: listed(parts, 'comma') });
}

const STEPS: Readonly<Record<AllocationProgress['step'], string>> = wordsBy(say, {
  deal: 'dealingOutDrafts',
  place: 'placingEverybody',
  balance: 'eveningOut',
  repeats: 'avoidingRepeats',
  mutual: 'untanglingPairsWhoReviewEach',
  mix: 'mixingStrongerAndWeakerReviewers',
});
const ORDER = Object.keys(STEPS) as Array<AllocationProgress['step']>;

export function progressWords({ step, share }: AllocationProgress): {
  readonly words: string;
  readonly percent: number;
} {
  return { words: STEPS[step], percent: Math.round(((ORDER.indexOf(step) + share) / ORDER.length) * 100) };
}

export const WHOM_WORDS: Readonly<Record<WishesView['whom'], string>> = wordsBy(say, {
  anyone: 'anyoneButNotOneself',
  'own-group': 'onlyWithinOwnGroup',
  'other-groups': 'onlyOtherGroups',
  partners: 'standingPartners',
});

const OUTCOMES: Readonly<Record<NonNullable<ScheduleView['last']>['outcome'], string>> = wordsBy(say, {
  applied: 'appliedWord',
  around: 'appliedAroundPairsMadeBy',
  'left-over': 'lastRoundNotEverybodyHas',
  partly: 'appliedSomeWaitOnFor',
  kept: 'notAppliedNotEverybodyCould',
  'nothing-to-do': 'nothingToDo',
  'too-few-drafts': 'notAppliedFewerThanTwo',
});

export function scheduleWords({ kind, party, patience }: ScheduleView): string {
  switch (kind) {
    case 'command':
      return say('onlyWhenYouSaySo');
    case 'at-due':
      return say('whenDraftsAreDue');
    case 'at':
      return say('atSetTime');
    case 'nightly':
      return say('everyNightAmongThoseWho', { party, patience });
  }
}

export function outcomeWords(outcome: NonNullable<ScheduleView['last']>['outcome']): string {
  return OUTCOMES[outcome];
}
