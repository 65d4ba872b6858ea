import type { Answers, FormItem, ReviewForm } from '../form/form.js';
import { rangeBounds } from '../form/range.js';
import { itemMaximum, itemPoints } from '../form/score.js';
import { nearestTexts } from './shingles.js';

/** Which flags a review gets; null turns a reason off. */
export interface FlaggingRules {
  /** Fewer words than this share of the median of all reviews, 0..1. */
  readonly fewWords: number | null;
  /** No note says what to do. */
  readonly nothingToDo: boolean;
  /** Levels so far from the other reviews of the draft, on average over the items: share of the scale, 0..1. */
  readonly farFromOthers: number | null;
  /** Everything at one end of the scale. */
  readonly oneEnd: boolean;
  /** So much of the text stands in another review: share of its sequences of words, 0..1. */
  readonly sameText: number | null;
  /** Submitted within so many seconds from the first word. */
  readonly hasty: number | null;
  /** Names of the author or the reviewer stand in it. */
  readonly names: boolean;
  /** Words that may hurt, whole and without regard to case. */
  readonly harshWords: readonly string[];
}

/** Ours, and common practice at most; an instructor changes them for the course. The words are a beginning in English. */
export const DEFAULT_FLAGGING_RULES: FlaggingRules = {
  fewWords: 0.5,
  nothingToDo: true,
  farFromOthers: 0.35,
  oneEnd: true,
  sameText: 0.4,
  hasty: 180,
  names: true,
  harshWords: [
    ...['stupid', 'idiot', 'idiotic', 'dumb', 'moron', 'pathetic', 'worthless', 'useless', 'rubbish', 'garbage'],
    ...['trash', 'crap', 'ridiculous', 'embarrassing', 'laughable', 'lazy', 'horrible', 'disgusting', 'shame'],
  ],
};

/** What is known of one submitted review. */
export interface ReviewEvidence {
  readonly id: string;
  readonly draftId: string;
  readonly reviewerId: string;
  /** Of the reviewer's own draft: it is no measure for the others. */
  readonly self: boolean;
  readonly words: number;
  /** Notes that say something, and those of them that say what to do. */
  readonly notes: number;
  readonly telling: number;
  /** By item: where on its scale the answer is, 0..1 (see {@link levelShares}). */
  readonly levels: Readonly<Record<string, number>>;
  /** From the first word to submitting; null where that is not known. */
  readonly seconds: number | null;
  /** All that is written in it. */
  readonly text: string;
  /** Names of its author or reviewer that stand in it. */
  readonly names: readonly string[];
}

/** A reason to look at a review, with its figures. */
export type Flag =
  /** Its author or its reviewer asks for it; told by whoever keeps such requests, not found here. */
  | { readonly code: 'asked'; readonly requestId: string; readonly by: 'author' | 'reviewer'; readonly words: string }
  | { readonly code: 'harsh' | 'name'; readonly exact: string }
  | { readonly code: 'same-text'; readonly share: number; readonly reviewId: string; readonly sameReviewer: boolean }
  | { readonly code: 'few-words'; readonly words: number; readonly usual: number }
  | { readonly code: 'nothing-to-do'; readonly notes: number }
  | {
      readonly code: 'far-from-others';
      /** Share of the scale, 0..1, and of how many other reviews. */
      readonly apart: number;
      readonly others: number;
      readonly gives: 'more' | 'less' | null;
    }
  | { readonly code: 'hasty'; readonly seconds: number }
  | { readonly code: 'one-end'; readonly end: 'top' | 'bottom'; readonly items: number };

/** How much a reason counts towards a place in the queue: what may harm somebody first. */
const WEIGHTS: Readonly<Record<Flag['code'], number>> = {
  asked: 20,
  harsh: 10,
  name: 8,
  'same-text': 6,
  'few-words': 4,
  'nothing-to-do': 3,
  'far-from-others': 3,
  hasty: 2,
  'one-end': 1,
};

/** By which a reason that was dismissed is known again: a new figure does not bring it back, a new word does. */
export function flagKey(flag: Flag): string {
  if ('exact' in flag) return `${flag.code}:${flag.exact.toLowerCase()}`;
  if (flag.code === 'asked') return `asked:${flag.requestId}`;
  return flag.code === 'same-text' ? `${flag.code}:${flag.reviewId}` : flag.code;
}

/** 0 for no flag; the more, the sooner a review is to be looked at. */
export function flagRank(flags: readonly Flag[]): number {
  return flags.reduce((sum, { code }) => sum + WEIGHTS[code], 0);
}

/** Too few to say what is usual among them. */
const LEAST_REVIEWS = 4;
/** One or two items can be at an end, or apart, by chance. */
const LEAST_ITEMS = 3;
const LEAST_COMMON_ITEMS = 2;

/** The reasons to look at each of the reviews of an exchange, the weightiest first; an empty list for a review without. */
export function flagsOf(
  reviews: readonly ReviewEvidence[],
  bounds: FlaggingRules,
): ReadonlyMap<string, readonly Flag[]> {
  const usual = median(reviews.map(({ words }) => words));
  const byDraft = new Map<string, ReviewEvidence[]>();
  for (const review of reviews) byDraft.set(review.draftId, [...(byDraft.get(review.draftId) ?? []), review]);
  const byId = new Map(reviews.map((review) => [review.id, review]));
  const nearest = bounds.sameText === null ? new Map<string, never>() : nearestTexts(reviews);
  const harsh = bounds.harshWords.length === 0 ? null : wholeWords(bounds.harshWords);
  return new Map(
    reviews.map((review): [string, readonly Flag[]] => {
      const others = (byDraft.get(review.draftId) ?? []).filter((one) => one !== review && !one.self);
      const near = nearest.get(review.id);
      const found: Array<Flag | null> = [
        ...[...new Set(harsh === null ? [] : (review.text.match(harsh) ?? []).map((word) => word.toLowerCase()))].map(
          (exact): Flag => ({ code: 'harsh', exact }),
        ),
        ...(bounds.names ? review.names.map((exact): Flag => ({ code: 'name', exact })) : []),
        near !== undefined && bounds.sameText !== null && near.share >= bounds.sameText
          ? {
              code: 'same-text',
              share: near.share,
              reviewId: near.id,
              sameReviewer: byId.get(near.id)?.reviewerId === review.reviewerId,
            }
          : null,
        reviews.length >= LEAST_REVIEWS && bounds.fewWords !== null && review.words < bounds.fewWords * usual
          ? { code: 'few-words', words: review.words, usual }
          : null,
        bounds.nothingToDo && review.telling === 0 ? { code: 'nothing-to-do', notes: review.notes } : null,
        review.self ? null : far(review, others, bounds.farFromOthers),
        bounds.hasty !== null && review.seconds !== null && review.seconds < bounds.hasty
          ? { code: 'hasty', seconds: review.seconds }
          : null,
        bounds.oneEnd ? oneEnd(review) : null,
      ];
      const flags = found.filter((one) => one !== null);
      return [review.id, flags.sort((a, b) => WEIGHTS[b.code] - WEIGHTS[a.code])];
    }),
  );
}

function far(review: ReviewEvidence, others: readonly ReviewEvidence[], bound: number | null): Flag | null {
  if (bound === null || others.length === 0) return null;
  const differences = Object.entries(review.levels).flatMap(([itemId, level]) => {
    const theirs = others.flatMap(({ levels }) => levels[itemId] ?? []);
    return theirs.length === 0 ? [] : [level - theirs.reduce((sum, one) => sum + one, 0) / theirs.length];
  });
  if (differences.length < LEAST_COMMON_ITEMS) return null;
  const mean = (values: readonly number[]) => values.reduce((sum, one) => sum + one, 0) / values.length;
  const apart = mean(differences.map(Math.abs));
  if (apart < bound) return null;
  const signed = mean(differences);
  // Higher here and lower there is neither generous nor strict.
  const gives = Math.abs(signed) < apart / 2 ? null : signed > 0 ? 'more' : 'less';
  return { code: 'far-from-others', apart, others: others.length, gives };
}

function oneEnd({ levels }: ReviewEvidence): Flag | null {
  const all = Object.values(levels);
  if (all.length < LEAST_ITEMS) return null;
  if (all.every((level) => level === 1)) return { code: 'one-end', end: 'top', items: all.length };
  return all.every((level) => level === 0) ? { code: 'one-end', end: 'bottom', items: all.length } : null;
}

/** Of an even number the mean of the two in the middle; 0 of none. */
function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  const [low, high] = [sorted[Math.floor((sorted.length - 1) / 2)], sorted[Math.floor(sorted.length / 2)]];
  return low === undefined || high === undefined ? 0 : (low + high) / 2;
}

function wholeWords(words: readonly string[]): RegExp {
  const escaped = words.map((word) => word.trim().replace(/[.*+?^${}()|[\]\\]/g, '\\$&')).filter((word) => word !== '');
  return new RegExp(`(?<![\\p{L}\\p{N}])(?:${escaped.join('|') || '(?!)'})(?![\\p{L}\\p{N}])`, 'giu');
}

/**
 * Where on their scales the answers of a review are, 0..1, by item: points between least and most, or, of levels without points, the
 * place in their order. Items without a scale, or that are not answered, are left out.
 */
export function levelShares({ items }: Pick<ReviewForm, 'items'>, answers: Answers): Record<string, number> {
  return Object.fromEntries(
    items.flatMap((item) => {
      const share = levelShare(item, answers);
      return share === null ? [] : [[item.id, share]];
    }),
  );
}

function levelShare(item: FormItem, answers: Answers): number | null {
  const answer = answers[item.id];
  if (item.kind === 'criterion' && itemMaximum(item) === null) {
    const index = item.levels.findIndex(({ id }) => id === answer?.levelId);
    return index < 0 || item.levels.length < 2 ? null : index / (item.levels.length - 1);
  }
  const points = itemPoints(item, answer);
  const most = itemMaximum(item);
  if (points === null || most === null) return null;
  const least =
    item.kind === 'criterion'
      ? Math.min(...item.levels.map((level) => level.points ?? 0))
      : item.kind === 'range'
        ? rangeBounds(item).least
        : 0;
  return most === least ? null : (points - least) / (most - least);
}
