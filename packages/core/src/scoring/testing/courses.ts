import { seededRandom, shuffled, type Random } from '../../random/random.js';
import type { Rating } from '../ratingDesign.js';

/** Two independent normal numbers from two uniform ones (Box and Muller 1958). */
function normal(random: Random): number {
  return Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
}

export interface CoursePlan {
  readonly people: number;
  readonly reviewsEach: number;
  /** 0 for scores of whole drafts. */
  readonly items: number;
  /** Standard deviations, on a scale of 0 to 1. */
  readonly draft: number;
  readonly reviewer: number;
  readonly review: number;
  readonly residual: number;
  /** Share of reviewers who give much less than others, and who give what they like. */
  readonly severe?: number;
  readonly careless?: number;
  /** Share of the ratings that are missing. */
  readonly missing?: number;
}

export interface Course {
  readonly ratings: readonly Rating[];
  /** What each draft is worth, by id. */
  readonly truth: ReadonlyMap<string, number>;
}

const MEAN = 0.65;
/** What a severe reviewer takes off, and how much the scores of a careless one have to do with nothing. */
const SEVERE = 0.15;
const CARELESS = 0.22;

/** By round and reviewer, the draft: everybody another one's, and each once. Without any order in it, as real allocations are. */
function allocation(people: number, rounds: number, random: Random): number[][] {
  const done: number[][] = [];
  const taken = (reviewer: number, draft: number) =>
    reviewer === draft || done.some((round) => round[reviewer] === draft);
  while (done.length < rounds) {
    const round = shuffled([...Array(people).keys()], random);
    for (let reviewer = 0; reviewer < people; reviewer += 1) {
      while (taken(reviewer, round[reviewer] as number)) {
        const other = Math.floor(random() * people);
        const [own, theirs] = [round[reviewer] as number, round[other] as number];
        if (taken(reviewer, theirs) || taken(other, own)) continue;
        round[reviewer] = theirs;
        round[other] = own;
      }
    }
    done.push(round);
  }
  return done;
}

/** A course of which all is known. The same seed gives the same one. */
export function course(plan: CoursePlan, seed: number): Course {
  const random = seededRandom(seed);
  const people = [...Array(plan.people).keys()];
  const rounds = allocation(plan.people, plan.reviewsEach, random);
  const worth = people.map(() => plan.draft * normal(random));
  const gives = people.map(() => plan.reviewer * normal(random) - (random() < (plan.severe ?? 0) ? SEVERE : 0));
  const careless = people.map(() => random() < (plan.careless ?? 0));
  const names = plan.items === 0 ? [undefined] : Array.from({ length: plan.items }, (_, index) => `item-${index}`);
  const ratings: Rating[] = [];
  people.forEach((reviewer) => {
    for (const round of rounds) {
      const draft = round[reviewer] as number;
      const review = plan.items === 0 ? 0 : plan.review * normal(random);
      const wild = careless[reviewer] === true ? CARELESS * normal(random) : 0;
      names.forEach((itemId, index) => {
        const score =
          MEAN +
          (index - (names.length - 1) / 2) * 0.04 +
          (worth[draft] as number) +
          (gives[reviewer] as number) +
          review +
          wild +
          plan.residual * normal(random);
        if (random() < (plan.missing ?? 0)) return;
        ratings.push({
          reviewerId: `r${reviewer}`,
          draftId: `d${draft}`,
          ...(itemId !== undefined && { itemId }),
          score,
        });
      });
    }
  });
  return { ratings, truth: new Map(worth.map((value, draft) => [`d${draft}`, MEAN + value])) };
}

const USUAL = { draft: 0.12, reviewer: 0.08, review: 0.06, residual: 0.15 };

/** Those that are compared with another program. */
export const COURSES: Readonly<Record<string, CoursePlan>> = {
  'scores of whole drafts': { ...USUAL, people: 40, reviewsEach: 3, items: 0 },
  'three items': { ...USUAL, people: 30, reviewsEach: 2, items: 3 },
  'a fifth missing': { ...USUAL, people: 50, reviewsEach: 4, items: 4, missing: 0.2 },
  'reviewers all alike': { ...USUAL, people: 40, reviewsEach: 3, items: 3, reviewer: 0 },
  'a large course': { ...USUAL, people: 2000, reviewsEach: 3, items: 5 },
};
