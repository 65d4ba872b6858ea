import type { Board } from './board.js';
import { Nodes, NOT_REACHED, START, wayTo } from './nodes.js';
import type { Random } from '../random/random.js';

/** Reviewers times drafts, looked at in all, over all searches. */
const MOST_LOOKS = 30_000_000;

/**
 * Ways of rearranging that keep number, balance and cost as they are, however long they are. Once the cost is as low as
 * can be, there are potentials by which every single move costs nothing or more; a way leaves the total as it is exactly
 * when all of its moves cost nothing by them (complementary slackness; Ahuja, Magnanti and Orlin, Network Flows, 1993,
 * section 9.4). Going such ways leaves the potentials valid.
 */
export class TightWays {
  readonly #parent: Int32Array;
  readonly #nodes: Nodes;
  #looks = 0;

  /** @param potentials by node */
  constructor(
    private readonly board: Board,
    private readonly potentials: Float64Array,
  ) {
    this.#parent = new Int32Array(potentials.length);
    this.#nodes = new Nodes(board.reviewers, board.drafts);
  }

  get exhausted(): boolean {
    return this.#looks > MOST_LOOKS;
  }

  /**
   * A way for the reviewer to give up the draft and somebody else to get it.
   *
   * @param avoid pairs not to be made on the way
   * @returns nodes from the reviewer to the draft, or null
   */
  find(
    reviewer: number,
    draft: number,
    avoid: (reviewer: number, draft: number) => boolean,
    random: Random,
  ): number[] | null {
    const { board } = this;
    const target = this.#nodes.ofDraft(draft);
    // Giving the draft up is a move as well: it closes the circle.
    if (!this.#isTight(target, reviewer, -board.cost(reviewer, draft))) return null;
    this.#parent.fill(NOT_REACHED);
    this.#parent[reviewer] = START;
    const queue = [reviewer];
    for (let head = 0; head < queue.length; head += 1) {
      const node = queue[head] as number;
      for (const next of this.#from(node, avoid, random)) {
        if (this.#parent[next] !== NOT_REACHED) continue;
        this.#parent[next] = node;
        if (next === target) return wayTo(this.#parent, target);
        queue.push(next);
      }
    }
    return null;
  }

  #isTight(from: number, to: number, cost: number): boolean {
    return cost + (this.potentials[from] as number) - (this.potentials[to] as number) === 0;
  }

  /** Nodes to which a tight move leads from this one. */
  *#from(node: number, avoid: (reviewer: number, draft: number) => boolean, random: Random): Generator<number> {
    const nodes = this.#nodes;
    if (nodes.isReviewer(node)) yield* this.#fromReviewer(node, avoid, random);
    else if (nodes.isDraft(node)) yield* this.#fromDraft(nodes.draftOf(node), node);
    else if (node === nodes.handover) yield* this.#fromHandover(node);
    else yield* this.#fromTrade(nodes.loadOf(node), node);
  }

  /** A reviewer takes a draft, from a random one on, or leaves a review to somebody else. */
  *#fromReviewer(
    reviewer: number,
    avoid: (reviewer: number, draft: number) => boolean,
    random: Random,
  ): Generator<number> {
    const { board } = this;
    const { drafts } = board;
    this.#looks += drafts;
    const first = Math.floor(random() * drafts);
    for (let turn = 0; turn < drafts; turn += 1) {
      const draft = (first + turn) % drafts;
      const to = this.#nodes.ofDraft(draft);
      if (this.#parent[to] !== NOT_REACHED || !board.open(reviewer, draft)) continue;
      if (this.#isTight(reviewer, to, board.cost(reviewer, draft)) && !avoid(reviewer, draft)) yield to;
    }
    const { handover } = this.#nodes;
    if (this.#isTight(reviewer, handover, 0)) yield handover;
  }

  /** A draft lets one of its reviewers go, or ends with one review more. */
  *#fromDraft(draft: number, node: number): Generator<number> {
    const { board } = this;
    for (const reviewer of board.received[draft] as readonly number[]) {
      if (this.#isTight(node, reviewer, -board.cost(reviewer, draft))) yield reviewer;
    }
    const load = board.load[draft] as number;
    const trade = this.#nodes.ofTrade(load + 1);
    if (load < (board.room[draft] as number) && this.#isTight(node, trade, 0)) yield trade;
  }

  *#fromHandover(node: number): Generator<number> {
    for (let reviewer = 0; reviewer < this.board.reviewers; reviewer += 1) {
      if (this.board.spare(reviewer) > 0 && this.#isTight(node, reviewer, 0)) yield reviewer;
    }
  }

  *#fromTrade(traded: number, node: number): Generator<number> {
    const { drafts, load, received } = this.board;
    for (let draft = 0; draft < drafts; draft += 1) {
      const movable = (received[draft] as readonly number[]).length > 0;
      const to = this.#nodes.ofDraft(draft);
      if (load[draft] === traded && movable && this.#isTight(node, to, 0)) yield to;
    }
  }
}
