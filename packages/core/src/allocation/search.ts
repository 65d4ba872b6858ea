import type { Board, Stretches } from './board.js';
import { Nodes, NOT_REACHED, START, wayTo } from './nodes.js';

export interface Way {
  /** Only steps that cost nothing. Without it, costs play no part. */
  readonly free: boolean;
  /** A reviewer may give up a review for another one, who has been given fewer than asked, to do. */
  readonly handing: boolean;
  /** A draft may end with one review more, if one with just as many now ends with one fewer. */
  readonly trading: boolean;
}

/**
 * Breadth-first search for ways to rearrange reviews: a reviewer takes a draft, the draft lets another reviewer go, that
 * one takes another draft, and so on. Every node is reached by a shortest way, once.
 *
 * Nearly every reviewer may take nearly every draft, so arcs are not listed: a reviewer takes all drafts not reached so
 * far, but for the few ruled out. Skipping over those already reached (a disjoint-set forest with path compression;
 * Tarjan, J. ACM 22, 1975) makes one search cost little more than the number of people and reviews, plus what is ruled
 * out, instead of their product.
 */
export class Search {
  readonly #nodes: Nodes;
  /** The node from which each one was reached, or `START`, or `NOT_REACHED`. */
  readonly #parent: Int32Array;
  readonly #queue: Int32Array;
  /** The next draft at or after this one that is not reached. */
  readonly #next: Int32Array;
  readonly #open: Int32Array;
  readonly #stamp: Int32Array;
  #mark = 0;
  #tail = 0;

  constructor(private readonly board: Board) {
    const { reviewers, drafts } = board;
    this.#nodes = new Nodes(reviewers, drafts);
    this.#parent = new Int32Array(this.#nodes.count);
    this.#queue = new Int32Array(this.#nodes.count);
    this.#next = new Int32Array(drafts + 1);
    this.#open = new Int32Array(drafts + 1);
    this.#open[drafts] = drafts;
    for (let draft = drafts - 1; draft >= 0; draft -= 1) {
      this.#open[draft] = board.closed[draft] === true ? (this.#open[draft + 1] as number) : draft;
    }
    this.#stamp = new Int32Array(drafts);
  }

  draftNode(draft: number): number {
    return this.#nodes.ofDraft(draft);
  }

  reached(node: number): boolean {
    return this.#parent[node] !== NOT_REACHED;
  }

  /**
   * @param isTarget of drafts, when they are reached from elsewhere
   * @param all go on after the first target
   * @returns the targets, nearest first
   */
  run(starts: readonly number[], way: Way, isTarget: (draft: number) => boolean, all: boolean): number[] {
    const nodes = this.#nodes;
    this.#parent.fill(NOT_REACHED);
    this.#next.set(this.#open);
    this.#tail = 0;
    for (const node of starts) this.#reach(node, START);
    const targets: number[] = [];
    for (let head = 0; head < this.#tail; head += 1) {
      const node = this.#queue[head] as number;
      const from = this.#tail;
      if (nodes.isReviewer(node)) this.#expandReviewer(node, way);
      else if (nodes.isDraft(node)) this.#expandDraft(nodes.draftOf(node), node, way);
      else if (node === nodes.handover) this.#expandHandover();
      else this.#expandTrade(node);
      for (let at = from; at < this.#tail; at += 1) {
        const found = this.#queue[at] as number;
        if (!nodes.isDraft(found) || !isTarget(nodes.draftOf(found))) continue;
        targets.push(found);
        if (!all) return targets;
      }
    }
    return targets;
  }

  #reach(node: number, parent: number): void {
    if (this.reached(node)) return;
    this.#parent[node] = parent;
    this.#queue[this.#tail] = node;
    this.#tail += 1;
    if (!this.#nodes.isDraft(node)) return;
    const draft = this.#nodes.draftOf(node);
    this.#next[draft] = draft + 1;
  }

  #expandReviewer(reviewer: number, { free, handing }: Way): void {
    const { board } = this;
    this.#mark += 1;
    for (const draft of board.banned[reviewer] as readonly number[]) this.#stamp[draft] = this.#mark;
    for (const draft of board.given[reviewer] as readonly number[]) this.#stamp[draft] = this.#mark;
    if (free) {
      (board.costly[reviewer] as readonly number[]).forEach((draft, at) => {
        if (((board.costs[reviewer] as readonly number[])[at] as number) > 0) this.#stamp[draft] = this.#mark;
      });
    }
    for (const [from, to] of board.stretches[reviewer] as Stretches) {
      for (let draft = this.#nextOpen(from); draft < to; draft = this.#nextOpen(draft + 1)) {
        if (this.#stamp[draft] !== this.#mark) this.#reach(this.#nodes.ofDraft(draft), reviewer);
      }
    }
    if (handing) this.#reach(this.#nodes.handover, reviewer);
  }

  #nextOpen(draft: number): number {
    const next = this.#next;
    let root = draft;
    while (next[root] !== root) root = next[root] as number;
    while (next[draft] !== root) {
      const following = next[draft] as number;
      next[draft] = root;
      draft = following;
    }
    return root;
  }

  #expandDraft(draft: number, node: number, { free, trading }: Way): void {
    const { board } = this;
    for (const reviewer of board.received[draft] as readonly number[]) {
      if (free && board.cost(reviewer, draft) < 0) continue;
      this.#reach(reviewer, node);
    }
    const load = board.load[draft] as number;
    if (trading && load < (board.room[draft] as number)) this.#reach(this.#nodes.ofTrade(load + 1), node);
  }

  #expandHandover(): void {
    for (let reviewer = 0; reviewer < this.board.reviewers; reviewer += 1) {
      if (this.board.spare(reviewer) > 0) this.#reach(reviewer, this.#nodes.handover);
    }
  }

  #expandTrade(node: number): void {
    const { load, drafts, received } = this.board;
    const traded = this.#nodes.loadOf(node);
    for (let draft = 0; draft < drafts; draft += 1) {
      if (load[draft] === traded && (received[draft] as number[]).length > 0) {
        this.#reach(this.#nodes.ofDraft(draft), node);
      }
    }
  }

  /** The way to a node, from its start. */
  wayTo(node: number): number[] {
    return wayTo(this.#parent, node);
  }

  /** Goes the ways to all of these nodes that share nothing with one gone before. @returns how many */
  goApart(targets: readonly number[]): number {
    const used = new Set<number>();
    let gone = 0;
    for (const target of targets) {
      const way = this.wayTo(target);
      if (way.some((node) => used.has(node))) continue;
      for (const node of way) used.add(node);
      follow(this.board, way);
      gone += 1;
    }
    return gone;
  }
}

/** Makes the moves of a way: a step from reviewer to draft gives, one from draft to reviewer takes back. */
export function follow(board: Board, way: readonly number[]): void {
  const nodes = new Nodes(board.reviewers, board.drafts);
  for (let at = 1; at < way.length; at += 1) {
    const from = way[at - 1] as number;
    const to = way[at] as number;
    if (nodes.isReviewer(from) && nodes.isDraft(to)) board.add(from, nodes.draftOf(to));
    else if (nodes.isDraft(from) && nodes.isReviewer(to)) board.remove(to, nodes.draftOf(from));
  }
}
