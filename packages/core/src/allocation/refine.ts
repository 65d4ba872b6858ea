import type { Board } from './board.js';
import { mutualBound, type Meetings } from './meetings.js';
import type { Random } from '../random/random.js';
import { Nodes } from './nodes.js';
import { follow } from './search.js';
import { weakestSet, type Strengths } from './strengths.js';
import type { TightWays } from './tightWays.js';

/** Exchanges of drafts that leave the number of reviews, the balance and the costs as they are. */
interface Exchange {
  readonly touched: ReadonlyArray<readonly [reviewer: number, draft: number]>;
  readonly go: () => void;
  readonly back: () => void;
}

/** Two reviewers change drafts. Null where the rules or the costs do not let them. */
function swap(board: Board, a: number, draftA: number, b: number, draftB: number): Exchange | null {
  if (a === b || draftA === draftB || !board.open(a, draftB) || !board.open(b, draftA)) return null;
  if (board.cost(a, draftB) + board.cost(b, draftA) > board.cost(a, draftA) + board.cost(b, draftB)) return null;
  return {
    touched: [
      [a, draftA],
      [b, draftB],
      [a, draftB],
      [b, draftA],
    ],
    go: () => exchange(board, a, draftA, b, draftB),
    back: () => exchange(board, a, draftB, b, draftA),
  };
}

function exchange(board: Board, a: number, draftA: number, b: number, draftB: number): void {
  board.remove(a, draftA);
  board.remove(b, draftB);
  board.add(a, draftB);
  board.add(b, draftA);
}

/** A reviewer takes, for one draft, another one that has just one review fewer. */
function shift(board: Board, reviewer: number, from: number, to: number): Exchange | null {
  if ((board.load[to] as number) !== (board.load[from] as number) - 1) return null;
  if ((board.load[to] as number) >= (board.room[to] as number) || !board.open(reviewer, to)) return null;
  if (board.cost(reviewer, to) > board.cost(reviewer, from)) return null;
  return moved(board, [reviewer, from], [reviewer, to]);
}

/** A reviewer who was given fewer than asked takes over a draft. */
function handOver(board: Board, reviewer: number, draft: number, to: number): Exchange | null {
  if (to === reviewer || board.spare(to) <= 0 || !board.open(to, draft)) return null;
  if (board.cost(to, draft) > board.cost(reviewer, draft)) return null;
  return moved(board, [reviewer, draft], [to, draft]);
}

function moved(board: Board, from: readonly [number, number], to: readonly [number, number]): Exchange {
  return {
    touched: [from, to],
    go: () => {
      board.remove(...from);
      board.add(...to);
    },
    back: () => {
      board.remove(...to);
      board.add(...from);
    },
  };
}

/** Reviews up to which every exchange is looked at, instead of some drawn at random. */
const ALL_UP_TO = 240;
const DRAWN = 60;

/** Exchanges that take this draft from this reviewer. */
function* exchanges(board: Board, reviewer: number, draft: number, all: boolean, random: Random): Generator<Exchange> {
  const offers = function* (other: number): Generator<Exchange | null> {
    for (const draftB of [...(board.given[other] as readonly number[])]) {
      yield swap(board, reviewer, draft, other, draftB);
    }
    yield handOver(board, reviewer, draft, other);
  };
  const turns = all ? board.reviewers : DRAWN;
  const first = Math.floor(random() * board.reviewers);
  for (let turn = 0; turn < turns; turn += 1) {
    const other = all ? (first + turn) % board.reviewers : Math.floor(random() * board.reviewers);
    for (const offer of offers(other)) if (offer !== null) yield offer;
  }
  const drafts = all ? board.drafts : Math.min(DRAWN, board.drafts);
  for (let turn = 0; turn < drafts; turn += 1) {
    const to = all ? turn : Math.floor(random() * board.drafts);
    const offer = shift(board, reviewer, draft, to);
    if (offer !== null) yield offer;
  }
}

export interface Refinement {
  readonly board: Board;
  readonly meetings: Meetings;
  readonly random: Random;
  readonly tell: (share: number) => void;
  /** Of all that is to be refined, above 0 to 1: of the steps that are bounded as a whole, this part gets no more. */
  readonly share: number;
}

/** Steps for each review placed, and the most of them for the whole of a problem; chosen so that 600 people take a second at most. */
const STEPS_PER_REVIEW = 40;
const MOST_STEPS = 60_000;
/** How often a longer way is tried instead of an exchange. */
const LONG_WAYS = 0.25;
/** How often a step may make things worse, so as not to be caught where no single step helps. */
const NOISE = 0.08;

/**
 * Fewer mutual pairs, by exchanges: one mutual pair at random is taken apart by the exchange that does best (minimal
 * conflicts; Minton and others, Artificial Intelligence 58, 1992). The best found is kept.
 *
 * @returns the bound below which no search could have come
 */
export function untangle({ board, meetings, random, tell, share }: Refinement, ways: TightWays): number {
  const reviews = board.given.reduce((sum, { length }) => sum + length, 0);
  const placed = board.count.reduce((sum, count) => sum + count, 0);
  if (meetings.count === 0) return 0;
  const bound = mutualBound(board, placed);
  const all = reviews <= ALL_UP_TO;
  const steps = Math.min(Math.ceil(MOST_STEPS * share), STEPS_PER_REVIEW * reviews);
  let best = meetings.count;
  /** What has been done since the best, to be taken back if nothing better comes. */
  let since: Exchange[] = [];
  const make = (step: Exchange) => {
    meetings.change(step.touched, step.go);
    since.push(step);
    if (meetings.count < best) {
      best = meetings.count;
      since = [];
    }
  };
  for (let step = 0; step < steps && meetings.count > bound; step += 1) {
    if (step % 256 === 0) tell(step / steps);
    const [first, second] = meetings.at(Math.floor(random() * meetings.count));
    const [reviewer, author] = random() < 0.5 ? [first, second] : [second, first];
    const movable = (board.ownDrafts[author] as readonly number[]).filter((draft) =>
      (board.given[reviewer] as readonly number[]).includes(draft),
    );
    const draft = movable[0];
    if (draft === undefined) continue;
    const short = random() < LONG_WAYS ? null : pick(meetings, random, exchanges(board, reviewer, draft, all, random));
    const chosen = short ?? longWay(board, meetings, ways, reviewer, draft, random);
    if (chosen !== null) make(chosen);
  }
  for (const step of since.reverse()) meetings.change(step.touched, step.back);
  return Math.min(bound, meetings.count);
}

/** A longer rearrangement, where the costs leave no room for a plain exchange. Makes no pair that is mutual by now. */
function longWay(
  board: Board,
  meetings: Meetings,
  ways: TightWays,
  reviewer: number,
  draft: number,
  random: Random,
): Exchange | null {
  if (ways.exhausted) return null;
  const way = ways.find(reviewer, draft, (one, other) => meetings.isMutual(one, other), random);
  if (way === null) return null;
  const nodes = new Nodes(board.reviewers, board.drafts);
  // Of a step between a reviewer and a draft, whichever way it goes, the pair; of other steps nothing.
  const touched = way.slice(1).flatMap((to, at): Array<readonly [number, number]> => {
    const from = way[at] as number;
    if (nodes.isReviewer(from) && nodes.isDraft(to)) return [[from, nodes.draftOf(to)]];
    return nodes.isDraft(from) && nodes.isReviewer(to) ? [[to, nodes.draftOf(from)]] : [];
  });
  const offer: Exchange = {
    touched: [[reviewer, draft], ...touched],
    go: () => {
      board.remove(reviewer, draft);
      follow(board, way);
    },
    back: () => {
      follow(board, [...way].reverse());
      board.add(reviewer, draft);
    },
  };
  const change = meetings.change(offer.touched, offer.go);
  meetings.change(offer.touched, offer.back);
  return change <= 0 ? offer : null;
}

function pick(meetings: Meetings, random: Random, offers: Iterable<Exchange>): Exchange | null {
  const noisy = random() < NOISE;
  let chosen: Exchange | null = null;
  let least = Infinity;
  let ties = 0;
  for (const offer of offers) {
    const change = meetings.change(offer.touched, offer.go);
    meetings.change(offer.touched, offer.back);
    if (change < least) {
      least = change;
      chosen = offer;
      ties = 1;
    } else if (change === least) {
      ties += 1;
      if (random() * ties < 1) chosen = offer;
    }
    if (least <= -2) break;
  }
  return least <= 0 || noisy ? chosen : null;
}

/** Rounds, the weakest drafts that each of them goes over, and exchanges looked at for the weakest one after that. */
const ROUNDS = 8;
const ROUND_OF = 2_000;
const MOST_LOOKS = 300_000;

/**
 * Stronger weakest sets of reviewers, by exchanges that make no mutual pair more. In rounds over the weaker drafts, the
 * weakest first, a set gets somebody stronger for somebody weaker, as long as the set that gives remains stronger than the one
 * that gets was; then the weakest set of all for as long as that works. Bounded by rounds and by exchanges looked at.
 */
export function mix(refinement: Refinement, strengths: Strengths): void {
  const { board, tell } = refinement;
  const goal = strengths.bound(board) - 1e-9;
  for (let round = 0; round < ROUNDS; round += 1) {
    tell(round / (ROUNDS + 1));
    const means = board.draftIds.map((_, draft) => strengths.mean(board, draft));
    const weakFirst = [...means.keys()]
      .filter((draft) => (means[draft] as number) < goal)
      .sort((a, b) => (means[a] as number) - (means[b] as number));
    const helped = weakFirst
      .slice(0, ROUND_OF)
      .filter((draft) => strengthen(refinement, strengths, draft, DRAWN) !== null);
    if (helped.length === 0) break;
  }
  tell(ROUNDS / (ROUNDS + 1));
  for (let looks = 0; looks < MOST_LOOKS;) {
    const weakest = weakestSet(board, strengths);
    if (weakest === null || weakest.mean >= goal) return;
    const looked = strengthen(refinement, strengths, weakest.draft, board.reviewers);
    if (looked === null) return;
    looks += looked + board.drafts;
  }
}

/** @returns how many exchanges were looked at until one helped; null if none did */
function strengthen(
  { board, meetings, random }: Refinement,
  strengths: Strengths,
  draft: number,
  most: number,
): number | null {
  const before = strengths.mean(board, draft);
  const weakFirst = [...(board.received[draft] as readonly number[])].sort((a, b) => strengths.of(a) - strengths.of(b));
  let looked = 0;
  for (const reviewer of weakFirst) {
    for (const offer of exchanges(board, reviewer, draft, board.reviewers <= most, random)) {
      looked += 1;
      offer.go();
      const stronger = offer.touched.every(([, touched]) => strengths.mean(board, touched) > before + 1e-12);
      offer.back();
      if (!stronger) continue;
      if (meetings.change(offer.touched, offer.go) <= 0) return looked;
      meetings.change(offer.touched, offer.back);
    }
  }
  return null;
}
