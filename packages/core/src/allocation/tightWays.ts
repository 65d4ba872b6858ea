import type { Board } from './board.js';
import type { Random } from './random.js';

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
  readonly #handover: number;
  #looks = 0;

  /** @param potentials by node, numbered as in `Search` */
  constructor(
    private readonly board: Board,
    private readonly potentials: Float64Array,
  ) {
    this.#parent = new Int32Array(potentials.length);
    this.#handover = board.reviewers + board.drafts;
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
    const target = board.reviewers + draft;
    // Giving the draft up is a move as well: it closes the circle.
    if (!this.#isTight(target, reviewer, -board.cost(reviewer, draft))) return null;
    this.#parent.fill(-2);
    this.#parent[reviewer] = -1;
    const queue = [reviewer];
    for (let head = 0; head < queue.length; head += 1) {
      const node = queue[head] as number;
      for (const next of this.#from(node, avoid, random)) {
        if (this.#parent[next] !== -2) continue;
        this.#parent[next] = node;
        if (next === target) return this.#wayTo(target);
        queue.push(next);
      }
    }
    return null;
  }

  #wayTo(target: number): number[] {
    const way: number[] = [];
    for (let at = target; at >= 0; at = this.#parent[at] as number) way.push(at);
    return way.reverse();
  }

  #isTight(from: number, to: number, cost: number): boolean {
    return cost + (this.potentials[from] as number) - (this.potentials[to] as number) === 0;
  }

  *#from(node: number, avoid: (reviewer: number, draft: number) => boolean, random: Random): Generator<number> {
    const { board } = this;
    const { reviewers, drafts } = board;
    if (node < reviewers) {
      this.#looks += drafts;
      const first = Math.floor(random() * drafts);
      for (let turn = 0; turn < drafts; turn += 1) {
        const draft = (first + turn) % drafts;
        const to = reviewers + draft;
        if (this.#parent[to] !== -2 || !board.open(node, draft)) continue;
        if (this.#isTight(node, to, board.cost(node, draft)) && !avoid(node, draft)) yield to;
      }
      if (this.#isTight(node, this.#handover, 0)) yield this.#handover;
    } else if (node < this.#handover) {
      const draft = node - reviewers;
      for (const reviewer of board.received[draft] as readonly number[]) {
        if (this.#isTight(node, reviewer, -board.cost(reviewer, draft))) yield reviewer;
      }
      const load = board.load[draft] as number;
      const trade = this.#handover + 1 + load + 1;
      if (load < (board.room[draft] as number) && this.#isTight(node, trade, 0)) yield trade;
    } else if (node === this.#handover) {
      for (let reviewer = 0; reviewer < reviewers; reviewer += 1) {
        if (board.spare(reviewer) > 0 && this.#isTight(node, reviewer, 0)) yield reviewer;
      }
    } else {
      const traded = node - this.#handover - 1;
      for (let draft = 0; draft < drafts; draft += 1) {
        const movable = (board.received[draft] as readonly number[]).length > 0;
        if (board.load[draft] === traded && movable && this.#isTight(node, reviewers + draft, 0))
          yield reviewers + draft;
      }
    }
  }
}
