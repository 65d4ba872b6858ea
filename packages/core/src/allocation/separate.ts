import type { AllocationProblem, Pair } from './problem.js';

/** A problem, what its pairs cost or are worth, and what is on the board already. */
export interface Start {
  readonly problem: AllocationProblem;
  readonly costs: ReadonlyArray<Pair & { readonly cost: number }>;
  readonly kept: readonly Pair[];
}

/**
 * The parts of a problem that have nothing to do with each other: groups, where people review within their group, those
 * together that fixed pairs or authors tie. What is best for each part is best for all of them: reviews, squares,
 * costs and mutual pairs are sums over the parts, and the weakest set of all is the weakest of one.
 *
 * @returns the problem itself for any other scope; parts in the order of the smallest id in each, none of them empty
 */
export function separate(start: Start): Start[] {
  const { problem } = start;
  if (problem.scope !== 'same-group') return [start];
  const places = new Places();
  const ofReviewer = new Map(problem.reviewers.map(({ id, groupId }) => [id, placeOf(groupId, `reviewer ${id}`)]));
  const ofDraft = new Map(problem.drafts.map(({ id, groupId }) => [id, placeOf(groupId, `draft ${id}`)]));
  const placed = ({ reviewerId, draftId }: Pair) =>
    [ofReviewer.get(reviewerId) as string, ofDraft.get(draftId) as string] as const;
  for (const pair of problem.fixed) places.join(...placed(pair));
  for (const { id, authorIds } of problem.drafts) {
    for (const author of authorIds) {
      const place = ofReviewer.get(author);
      if (place !== undefined) places.join(place, ofDraft.get(id) as string);
    }
  }
  const inside = <T>(list: readonly T[], placeIn: (one: T) => string): Map<string, T[]> => {
    const parts = new Map<string, T[]>();
    for (const one of list) {
      const at = places.find(placeIn(one));
      const part = parts.get(at);
      if (part === undefined) parts.set(at, [one]);
      else part.push(one);
    }
    return parts;
  };
  // Of a pair between two parts nothing can come: it is ruled out by the scope, so what it costs plays no part.
  const pairsInside = <T extends Pair>(list: readonly T[]) =>
    inside(
      list.filter((pair) => {
        const [reviewer, draft] = placed(pair);
        return places.find(reviewer) === places.find(draft);
      }),
      (pair) => placed(pair)[0],
    );
  const reviewers = inside(problem.reviewers, ({ id }) => ofReviewer.get(id) as string);
  const drafts = inside(problem.drafts, ({ id }) => ofDraft.get(id) as string);
  const [fixed, forbidden, earlier] = [problem.fixed, pairsInside(problem.forbidden), pairsInside(problem.earlier)];
  const fixedInside = inside(fixed, (pair) => placed(pair)[0]);
  const [costs, kept] = [pairsInside(start.costs), pairsInside(start.kept)];
  return [...new Set([...reviewers.keys(), ...drafts.keys()])].sort().map((at) => ({
    problem: {
      ...problem,
      reviewers: reviewers.get(at) ?? [],
      drafts: drafts.get(at) ?? [],
      fixed: fixedInside.get(at) ?? [],
      forbidden: forbidden.get(at) ?? [],
      earlier: earlier.get(at) ?? [],
    },
    costs: costs.get(at) ?? [],
    kept: kept.get(at) ?? [],
  }));
}

function placeOf(groupId: string | undefined, alone: string): string {
  return groupId === undefined ? alone : `group ${groupId}`;
}

/** Which places are one: a forest of names, each pointing towards the smallest of its part. */
class Places {
  readonly #parent = new Map<string, string>();

  find(place: string): string {
    let root = place;
    for (let next = this.#parent.get(root); next !== undefined; next = this.#parent.get(root)) root = next;
    // Whoever asks again goes straight there.
    for (let at = place; at !== root;) {
      const next = this.#parent.get(at) as string;
      this.#parent.set(at, root);
      at = next;
    }
    return root;
  }

  join(a: string, b: string): void {
    const [one, other] = [this.find(a), this.find(b)].sort() as [string, string];
    if (one !== other) this.#parent.set(other, one);
  }
}
