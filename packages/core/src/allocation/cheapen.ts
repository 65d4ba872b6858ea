import type { Board, Stretches } from './board.js';
import { Nodes } from './nodes.js';
import { indexes } from './place.js';
import { follow, type Search, type Way } from './search.js';

const FREE: Way = { free: true, handing: true, trading: true };

/**
 * Lowers the cost of what is given as far as can be, without touching how many reviews are placed or how even they are.
 *
 * First the plain cases: a pair that costs something is given up where a way of free moves makes up for it. That is
 * nearly always enough. Then, to be exact, cycles of negative cost are looked for and gone until there is none, which
 * is the condition for a flow of least cost (Klein, Management Science 14, 1967).
 *
 * @returns potentials by node of `Search`, by which no move costs less than nothing
 */
export function cheapen(board: Board, search: Search, tell: (share: number) => void): Float64Array {
  for (let improved = true; improved;) {
    improved = false;
    const dear = costlyPairs(board);
    dear.forEach(([reviewer, draft], at) => {
      if (at % 64 === 0) tell(at / dear.length);
      if ((board.given[reviewer] as number[]).includes(draft) && replace(board, search, reviewer, draft)) {
        improved = true;
      }
    });
  }
  for (;;) {
    const labels = new Labels(board);
    const cycle = labels.find();
    if (cycle === null) return labels.values;
    follow(board, cycle);
  }
}

/** Those given that cost something, the dearest first. */
function costlyPairs(board: Board): Array<[reviewer: number, draft: number]> {
  return indexes(board.reviewers)
    .flatMap((reviewer) =>
      (board.given[reviewer] as readonly number[]).map((draft) => ({
        reviewer,
        draft,
        cost: board.cost(reviewer, draft),
      })),
    )
    .filter(({ cost }) => cost > 0)
    .sort((a, b) => b.cost - a.cost)
    .map(({ reviewer, draft }) => [reviewer, draft]);
}

function replace(board: Board, search: Search, reviewer: number, draft: number): boolean {
  const [target] = search.run([reviewer], FREE, (found) => found === draft, false);
  if (target === undefined) return false;
  const way = search.wayTo(target);
  board.remove(reviewer, draft);
  follow(board, way);
  return true;
}

/**
 * Bellman's and Ford's method of correcting labels, on arcs that are not listed: free ones lead from a reviewer to all
 * drafts with a higher label but for those ruled out, and drafts are kept by label.
 */
class Labels {
  readonly #label: Float64Array;
  readonly #parent: Int32Array;
  readonly #queued: Uint8Array;
  readonly #queue: number[] = [];
  readonly #byLabel = new Map<number, number[]>();
  readonly #place: Int32Array;
  readonly #stamp: Int32Array;
  readonly #nodes: Nodes;
  #mark = 0;
  #cycle: number[] | null = null;

  constructor(private readonly board: Board) {
    const { reviewers, drafts } = board;
    this.#nodes = new Nodes(reviewers, drafts);
    const { count } = this.#nodes;
    this.#label = new Float64Array(count);
    this.#parent = new Int32Array(count).fill(-1);
    this.#queued = new Uint8Array(count);
    this.#place = new Int32Array(drafts);
    this.#stamp = new Int32Array(drafts);
    const open = indexes(drafts).filter((draft) => board.closed[draft] !== true);
    open.forEach((draft, at) => (this.#place[draft] = at));
    this.#byLabel.set(0, open);
  }

  get values(): Float64Array {
    return this.#label;
  }

  /** A cycle of moves that lowers the cost, as nodes of `Search`, its first one again at the end; null if there is none. */
  find(): number[] | null {
    this.#begin();
    for (let head = 0; head < this.#queue.length && this.#cycle === null; head += 1) {
      const node = this.#queue[head] as number;
      this.#queued[node] = 0;
      this.#relaxFrom(node);
    }
    return this.#cycle;
  }

  /** Only where something can be gained is there anything to begin with. */
  #begin(): void {
    const { board } = this;
    for (let draft = 0; draft < board.drafts; draft += 1) {
      const received = board.received[draft] as readonly number[];
      if (received.some((reviewer) => board.cost(reviewer, draft) > 0)) this.#enqueue(this.#nodes.ofDraft(draft));
    }
    for (let reviewer = 0; reviewer < board.reviewers; reviewer += 1) {
      const gains = (board.costly[reviewer] as readonly number[]).some(
        (draft, at) => ((board.costs[reviewer] as readonly number[])[at] as number) < 0 && board.open(reviewer, draft),
      );
      if (gains) this.#enqueue(reviewer);
    }
  }

  #enqueue(node: number): void {
    if (this.#queued[node] === 1) return;
    this.#queued[node] = 1;
    this.#queue.push(node);
  }

  #relaxFrom(node: number): void {
    const { board } = this;
    const label = this.#label[node] as number;
    const nodes = this.#nodes;
    if (nodes.isReviewer(node)) this.#relaxReviewer(node, label);
    else if (nodes.isDraft(node)) this.#relaxDraft(nodes.draftOf(node), node, label);
    else if (node === nodes.handover) {
      for (let reviewer = 0; reviewer < board.reviewers; reviewer += 1) {
        if (board.spare(reviewer) > 0) this.#relax(node, reviewer, label);
      }
    } else {
      const traded = nodes.loadOf(node);
      for (let draft = 0; draft < board.drafts; draft += 1) {
        if (board.load[draft] !== traded || (board.received[draft] as readonly number[]).length === 0) continue;
        this.#relax(node, nodes.ofDraft(draft), label);
      }
    }
  }

  #relaxReviewer(reviewer: number, label: number): void {
    const { board } = this;
    this.#mark += 1;
    for (const draft of board.banned[reviewer] as readonly number[]) this.#stamp[draft] = this.#mark;
    for (const draft of board.given[reviewer] as readonly number[]) this.#stamp[draft] = this.#mark;
    (board.costly[reviewer] as readonly number[]).forEach((draft, at) => {
      if (this.#stamp[draft] === this.#mark) return;
      this.#stamp[draft] = this.#mark;
      const cost = (board.costs[reviewer] as readonly number[])[at] as number;
      if (board.permits(reviewer, draft)) this.#relax(reviewer, this.#nodes.ofDraft(draft), label + cost);
    });
    const stretches = board.stretches[reviewer] as Stretches;
    for (const [other, drafts] of this.#byLabel) {
      if (other <= label) continue;
      for (let at = drafts.length - 1; at >= 0; at -= 1) {
        const draft = drafts[at] as number;
        if (this.#stamp[draft] === this.#mark) continue;
        if (!stretches.some(([from, to]) => draft >= from && draft < to)) continue;
        this.#relax(reviewer, this.#nodes.ofDraft(draft), label);
        if (this.#cycle !== null) return;
      }
    }
    if ((board.given[reviewer] as readonly number[]).length > 0) this.#relax(reviewer, this.#nodes.handover, label);
  }

  #relaxDraft(draft: number, node: number, label: number): void {
    const { board } = this;
    for (const reviewer of board.received[draft] as readonly number[]) {
      this.#relax(node, reviewer, label - board.cost(reviewer, draft));
    }
    const load = board.load[draft] as number;
    if (load < (board.room[draft] as number)) this.#relax(node, this.#nodes.ofTrade(load + 1), label);
  }

  #relax(from: number, to: number, label: number): void {
    const before = this.#label[to] as number;
    if (label >= before || this.#cycle !== null) return;
    this.#label[to] = label;
    this.#parent[to] = from;
    if (this.#nodes.isDraft(to)) this.#move(this.#nodes.draftOf(to), before, label);
    // A node that goes back to itself by its parents has been made cheaper by itself: a cycle of negative cost.
    for (let at = from; at >= 0; at = this.#parent[at] as number) {
      if (at !== to) continue;
      this.#cycle = this.#around(from, to);
      return;
    }
    this.#enqueue(to);
  }

  #around(from: number, to: number): number[] {
    const cycle = [to];
    for (let at = from; at !== to; at = this.#parent[at] as number) cycle.push(at);
    cycle.push(to);
    return cycle.reverse();
  }

  #move(draft: number, before: number, label: number): void {
    const old = this.#byLabel.get(before) as number[];
    const at = this.#place[draft] as number;
    const last = old.at(-1) as number;
    old[at] = last;
    this.#place[last] = at;
    old.pop();
    const list = this.#byLabel.get(label);
    if (list === undefined) {
      this.#place[draft] = 0;
      this.#byLabel.set(label, [draft]);
    } else {
      this.#place[draft] = list.length;
      list.push(draft);
    }
  }
}
