import { MisuseError } from '../problem.js';

/** What one reviewer gave one draft, as a whole or for one item. */
export interface Rating {
  readonly reviewerId: string;
  readonly draftId: string;
  /** Named by all ratings, or by none. */
  readonly itemId?: string;
  /** On one scale, e.g. the share of the maximum. */
  readonly score: number;
}

/** Ratings as the estimation wants them: by index, those of one review side by side. */
export interface RatingDesign {
  readonly drafts: readonly string[];
  readonly reviewers: readonly string[];
  /** In the order in which they come first; one that is called '' where ratings name none. */
  readonly items: readonly string[];
  readonly hasItems: boolean;
  /** By review. */
  readonly draftOf: Int32Array;
  readonly reviewerOf: Int32Array;
  /** Its ratings are those from `start[review]` to before `start[review + 1]`. */
  readonly start: Int32Array;
  /** By rating. */
  readonly item: Int32Array;
  readonly score: Float64Array;
}

/**
 * @throws MisuseError `rating-not-finite`, `rating-twice` or `rating-items-mixed`, with the rating as fields
 */
export function ratingDesign(ratings: readonly Rating[]): RatingDesign {
  const hasItems = ratings[0]?.itemId !== undefined;
  const drafts = new Numbered();
  const reviewers = new Numbered();
  const items = new Numbered();
  const reviews = new Map<string, Array<{ readonly item: number; readonly score: number }>>();
  const pairs: Array<readonly [draft: number, reviewer: number]> = [];
  for (const { reviewerId, draftId, itemId, score } of ratings) {
    const fields = { reviewerId, draftId, itemId, score };
    if (!Number.isFinite(score)) throw new MisuseError('rating-not-finite', 'a score is not a number', fields);
    if ((itemId !== undefined) !== hasItems) {
      throw new MisuseError('rating-items-mixed', 'some ratings name an item, and others none', fields);
    }
    const pair = [drafts.of(draftId), reviewers.of(reviewerId)] as const;
    const key = pair.join(' ');
    let review = reviews.get(key);
    if (review === undefined) {
      review = [];
      reviews.set(key, review);
      pairs.push(pair);
    }
    const item = items.of(itemId ?? '');
    if (review.some((one) => one.item === item)) {
      throw new MisuseError('rating-twice', 'a reviewer rates the same twice', fields);
    }
    review.push({ item, score });
  }
  const lists = [...reviews.values()];
  const start = new Int32Array(lists.length + 1);
  lists.forEach((list, index) => (start[index + 1] = (start[index] as number) + list.length));
  const all = lists.flat();
  return {
    ...{ drafts: drafts.ids, reviewers: reviewers.ids, items: items.ids, hasItems, start },
    draftOf: Int32Array.from(pairs, ([draft]) => draft),
    reviewerOf: Int32Array.from(pairs, ([, reviewer]) => reviewer),
    item: Int32Array.from(all, (one) => one.item),
    score: Float64Array.from(all, (one) => one.score),
  };
}

/** Ids with their numbers, in the order in which they come first. */
class Numbered {
  readonly ids: string[] = [];
  readonly #numbers = new Map<string, number>();

  of(id: string): number {
    const known = this.#numbers.get(id);
    if (known !== undefined) return known;
    this.#numbers.set(id, this.ids.length);
    this.ids.push(id);
    return this.ids.length - 1;
  }
}

/** How many parts a class falls into that share no reviewers, and how many drafts are in each, the largest first. */
export function partsOf({ drafts, reviewers, draftOf, reviewerOf }: RatingDesign): number[] {
  const parent = Int32Array.from({ length: drafts.length + reviewers.length }, (_, index) => index);
  const root = (node: number): number => {
    let at = node;
    while (parent[at] !== at) {
      parent[at] = parent[parent[at] as number] as number;
      at = parent[at] as number;
    }
    return at;
  };
  draftOf.forEach((draft, review) => {
    parent[root(draft)] = root(drafts.length + (reviewerOf[review] as number));
  });
  const sizes = new Map<number, number>();
  for (let draft = 0; draft < drafts.length; draft += 1) sizes.set(root(draft), (sizes.get(root(draft)) ?? 0) + 1);
  return [...sizes.values()].sort((a, b) => b - a);
}
