import type { PreviewView, ScheduleView, WishesView } from '@salt-circle/contracts';
import {
  counted,
  pairKey,
  type AllocationProgress,
  type AllocationQuality,
  type Measures,
  type Shortfall,
} from '@salt-circle/core';
import { listed } from '@salt-circle/core';
import type { Model } from './model.js';

export interface FigureWords {
  readonly words: string;
  readonly figure: string;
  readonly remark: string;
}

export function perDraft(fewest: number, most: number): string {
  return fewest === most ? `${most} for each` : `${fewest} to ${most}`;
}

const asShare = (value: number) => value.toFixed(2);

/** Of pairs that have met more than once before. */
function often(pairs: number, times: number): string {
  return times > pairs ? `, some more than once (${times} times in all)` : '';
}

/** How good a computed allocation is, beside the best there is. */
export function qualityFigures(quality: AllocationQuality, wishes: WishesView): FigureWords[] {
  const { placed, balance, repeats, mutual, mix } = quality;
  const mixed = wishes.mix;
  const missing = placed.asked - (placed.reached - placed.beyond);
  const figures: FigureWords[] = [
    {
      words: 'Placed',
      figure: `${placed.reached} of ${placed.asked}`,
      remark:
        (missing === 0 ? 'all that was asked' : `no more can be placed; ${missing} missing, see why below`) +
        (placed.beyond === 0 ? '' : `; ${placed.beyond} beyond, by hand`),
    },
    {
      words: 'Reviews per draft',
      figure: perDraft(balance.fewest, balance.most),
      remark: balance.most - balance.fewest <= 1 ? 'as even as can be' : 'as even as the rules allow',
    },
    {
      words: 'Repeats of earlier pairs',
      figure: String(repeats.pairs),
      remark: repeats.reached === 0 ? 'none' : `no fewer are possible${often(repeats.pairs, repeats.reached)}`,
    },
    {
      words: 'Pairs who review each other',
      figure: String(mutual.reached),
      remark:
        mutual.reached === 0
          ? 'none'
          : isMutualAsked(wishes, quality)
            ? 'as asked'
            : mutual.reached === mutual.bound
              ? `best possible ${mutual.bound}`
              : `best possible ${mutual.bound} to ${mutual.reached}`,
    },
  ];
  if (mixed) {
    figures.push({
      words: 'Weakest set of reviewers',
      figure: mix === null ? '–' : asShare(mix.weakest),
      remark:
        mix === null
          ? 'nobody has reviewed in this course before'
          : `of at most ${asShare(mix.bound)}, on a scale to 1`,
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
      words: 'Placed',
      figure: `${reviews} of ${asked}`,
      remark: listed([
        missing <= 0 ? 'all that is asked' : `${missing} missing`,
        ...(beyond > 0 ? [`${beyond} more than asked`] : []),
      ]),
    },
    {
      words: 'Reviews per draft',
      figure: perDraft(fewest, most),
      remark: most - fewest <= 1 ? 'as even as can be' : 'not even',
    },
    {
      words: 'Repeats of earlier pairs',
      figure: String(repeatedPairs),
      remark: repeats === 0 ? 'none' : `met before${often(repeatedPairs, repeats)}`,
    },
    {
      words: 'Pairs who review each other',
      figure: String(mutualPairs),
      remark: mutualPairs === 0 ? 'none' : 'each reviews the other',
    },
  ];
  if (mixed && weakest !== null) {
    figures.push({ words: 'Weakest set of reviewers', figure: asShare(weakest), remark: 'on a scale to 1' });
  }
  return figures;
}

const MOST_NAMES = 6;

export function named(names: readonly string[]): string {
  const shown = names.slice(0, MOST_NAMES);
  const more = names.length - shown.length;
  return more > 0 ? `${shown.join(', ')} and ${more} more` : listed(shown);
}

/** "These 4 reviewers may together only review these 2 drafts", by name. */
export function shortfallSentence(
  { reviewerIds, draftIds, asked, possible }: Shortfall,
  model: Model,
  { maxPerDraft, reviewsEach }: Pick<WishesView, 'maxPerDraft' | 'reviewsEach'>,
): string {
  const reviewers = named(reviewerIds.map((id) => model.reviewerName(id)));
  const drafts = named(draftIds.map((id) => model.authorName(id)));
  const who = reviewerIds.length === 1 ? reviewers : `These ${reviewerIds.length} reviewers together (${reviewers})`;
  if (draftIds.length === 0)
    return `${who} may review none of the drafts, and ${counted(asked, '1 review is', '# reviews are')} asked.`;
  if (maxPerDraft !== null && draftIds.length > 0 && possible >= maxPerDraft * draftIds.length) {
    const needed = Math.ceil(asked / draftIds.length);
    const whose = draftIds.length === model.view.drafts.filter(({ closed }) => !closed).length ? '' : `${who}: `;
    const wayOut = reviewsEach < draftIds.length ? `raise it to ${needed}` : 'raise it, or ask for fewer reviews each';
    return `${whose}${whose === '' ? 'At' : 'at'} most ${maxPerDraft} a draft leaves room for ${possible} of ${counted(asked, '1 review', '# reviews')} asked: ${wayOut}.`;
  }
  const what = draftIds.length === 1 ? `only the draft by ${drafts}` : `only ${draftIds.length} drafts (by ${drafts})`;
  return `${who} may review ${what}. That is room for ${possible} of the ${counted(asked, '1 review', '# reviews')} asked.`;
}

/** Two or three who review one another is what partners are for. */
const isMutualAsked = ({ whom }: WishesView, { mutual }: AllocationQuality) =>
  whom === 'partners' || (whom === 'own-group' && mutual.reached === mutual.bound);

/** What was wished and not reached, each with its reason. */
export function unmetWishes({ quality, shortfalls, pairs, wishes }: PreviewView, model: Model): string[] {
  const sentences = shortfalls.slice(0, MOST_NAMES).map((one) => shortfallSentence(one, model, wishes));
  const further = shortfalls.slice(MOST_NAMES).flatMap(({ reviewerIds }) => reviewerIds);
  if (further.length > 0) {
    sentences.push(`Stuck in the same way: ${named([...new Set(further)].map((id) => model.reviewerName(id)))}.`);
  }
  const { balance, repeats, mutual } = quality;
  const overfull = model.view.drafts.filter(
    ({ id }) => model.load(id) > balance.fewest + 1 && model.held(id) === model.load(id),
  );
  if (balance.most - balance.fewest > 1 && overfull.length > 0) {
    sentences.push(
      `By hand, ${named(overfull.map(({ id }) => `${model.authorName(id)} gets ${model.load(id)}`))}; other drafts get ${balance.fewest} because of it. Take some of these pairs away, or let them go, to even it out.`,
    );
  } else if (balance.most - balance.fewest > 1) {
    const least = model.view.drafts.filter(({ id, closed }) => !closed && model.load(id) === balance.fewest);
    sentences.push(
      `${counted(least.length, 'The draft', 'The drafts')} by ${named(least.map(({ id }) => model.authorName(id)))} ${counted(least.length, 'gets', 'get')} only ${balance.fewest}: nobody else may review ${counted(least.length, '1 it', '# them')} without leaving another draft shorter.`,
    );
  }
  if (repeats.reached > 0) {
    const again = pairs.filter((pair) => model.times.has(pairKey(pair)));
    sentences.push(
      `${counted(again.length, '1 pair has', '# pairs have')} met before (${named(again.map(({ reviewerId, draftId }) => `${model.reviewerName(reviewerId)} with ${model.authorName(draftId)}`))}): with everybody placed and the numbers even, fewer are not possible.`,
    );
  }
  if (mutual.reached > 0 && !isMutualAsked(wishes, quality)) {
    sentences.push(
      mutual.bound === mutual.reached
        ? `${counted(mutual.reached, '1 pair reviews', '# pairs review')} each other: with so many reviews among so few people, fewer are not possible.`
        : `${counted(mutual.reached, '1 pair reviews', '# pairs review')} each other: a bounded search found no fewer. Another try may.`,
    );
  }
  const alone = model.view.alone.filter(({ draftId }) => model.load(draftId) === 0);
  if (alone.length > 0) {
    sentences.push(
      `${named(alone.map(({ reviewerId }) => model.reviewerName(reviewerId)))} ${counted(alone.length, 'has', 'have')} nobody to review with: nobody else of the group has handed in. Applied, the board offers what can be done.`,
    );
  }
  if (wishes.mix && quality.mix === null) {
    sentences.push('Stronger and weaker reviewers cannot be mixed: nobody has reviewed in this course before.');
  }
  return sentences;
}

const REASONS: Readonly<Record<PreviewView['removed'][number]['reason'], string>> = {
  'reviewer-left': 'takes no part any more',
  'draft-withdrawn': 'that draft needs no reviews any more',
  forbidden: 'you keep the two apart',
  'not-allowed': 'the settings do not allow it any more',
  'makes-room': 'moved, so that every draft gets its share',
};
const ADDED: Readonly<Record<PreviewView['added'][number]['reason'], string>> = {
  'new-reviewer': 'new reviewer',
  'new-draft': 'new draft',
  replaces: 'instead of the one taken away',
  'evens-out': 'so that every draft gets its share',
};

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
  const parts = [`reviews per draft ${perDraft(after.fewest, after.most)}`];
  if (before.fewest !== after.fewest || before.most !== after.most) {
    parts[0] += ` (before: ${perDraft(before.fewest, before.most)})`;
  }
  if (before.mutualPairs !== after.mutualPairs)
    parts.push(counted(after.mutualPairs, '1 pair reviews each other', '# pairs review each other'));
  if (before.repeats !== after.repeats) parts.push(counted(after.repeats, '1 repeat', '# repeats'));
  return `${parts.join('; ')}.`;
}

const STEPS: Readonly<Record<AllocationProgress['step'], string>> = {
  deal: 'Dealing out drafts',
  place: 'Placing everybody',
  balance: 'Evening out',
  repeats: 'Avoiding repeats',
  mutual: 'Untangling pairs who review each other',
  mix: 'Mixing stronger and weaker reviewers',
};
const ORDER = Object.keys(STEPS) as Array<AllocationProgress['step']>;

export function progressWords({ step, share }: AllocationProgress): {
  readonly words: string;
  readonly percent: number;
} {
  return { words: STEPS[step], percent: Math.round(((ORDER.indexOf(step) + share) / ORDER.length) * 100) };
}

export const WHOM_WORDS: Readonly<Record<WishesView['whom'], string>> = {
  anyone: 'anyone, but not oneself',
  'own-group': 'only within the own group',
  'other-groups': 'only other groups',
  partners: 'standing partners',
};

const OUTCOMES: Readonly<Record<NonNullable<ScheduleView['last']>['outcome'], string>> = {
  applied: 'applied',
  around: 'applied around the pairs made by hand, which leave it uneven',
  'left-over': 'the last round; not everybody has the reviews asked for',
  partly: 'applied; some wait on for drafts that are still to come',
  kept: 'not applied: not everybody could be placed',
  'nothing-to-do': 'nothing to do',
  'too-few-drafts': 'not applied: fewer than two drafts',
};

export function scheduleWords({ kind, party, patience }: ScheduleView): string {
  switch (kind) {
    case 'command':
      return 'Only when you say so';
    case 'at-due':
      return 'When drafts are due';
    case 'at':
      return 'At a set time';
    case 'nightly':
      return `Every night among those who wait, ${party} or more; nobody waits more than ${counted(patience, '1 night', '# nights')}`;
  }
}

export function outcomeWords(outcome: NonNullable<ScheduleView['last']>['outcome']): string {
  return OUTCOMES[outcome];
}
