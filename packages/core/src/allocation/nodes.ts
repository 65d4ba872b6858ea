/** What a node stands for that is neither a start nor reached: see {@link wayTo}. */
export const NOT_REACHED = -2;
/** The parent of a start. */
export const START = -1;

/**
 * The parties of an allocation as nodes of one graph, numbered without gaps: reviewers, then drafts, then the hand-over (by
 * which a reviewer leaves a review to somebody with fewer than asked), then one trade for each number of reviews (by
 * which a draft that takes one more leaves one to a draft that has as many now).
 */
export class Nodes {
  readonly handover: number;
  /** How many nodes there are. */
  readonly count: number;
  readonly #firstTrade: number;

  constructor(
    private readonly reviewers: number,
    drafts: number,
  ) {
    this.handover = reviewers + drafts;
    this.#firstTrade = this.handover + 1;
    // No draft gets more reviews than there are reviewers, fixed ones included, so this is room for all trades.
    this.count = this.#firstTrade + reviewers + 2;
  }

  ofDraft(draft: number): number {
    return this.reviewers + draft;
  }

  /** @param load number of reviews that both drafts of the trade end with or begin with */
  ofTrade(load: number): number {
    return this.#firstTrade + load;
  }

  isReviewer(node: number): boolean {
    return node < this.reviewers;
  }

  isDraft(node: number): boolean {
    return node >= this.reviewers && node < this.handover;
  }

  draftOf(node: number): number {
    return node - this.reviewers;
  }

  loadOf(trade: number): number {
    return trade - this.#firstTrade;
  }
}

/** The nodes from a start to this one. @param parents by node, the one from which it was reached */
export function wayTo(parents: Int32Array, node: number): number[] {
  const way: number[] = [];
  for (let at = node; at >= 0; at = parents[at] as number) way.push(at);
  return way.reverse();
}
