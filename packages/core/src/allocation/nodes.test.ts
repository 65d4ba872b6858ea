import { Nodes, NOT_REACHED, START, wayTo } from './nodes.js';

describe('nodes of the search', () => {
  it('are numbered without gaps, and every number stands for one thing only', () => {
    for (const [reviewers, drafts] of [
      [1, 1],
      [3, 5],
      [40, 7],
    ] as const) {
      const nodes = new Nodes(reviewers, drafts);
      const kinds = Array.from({ length: nodes.count }, (_, node) => {
        const is = [nodes.isReviewer(node), nodes.isDraft(node), node === nodes.handover, node > nodes.handover];
        expect(is.filter(Boolean)).toHaveLength(1);
        return is.indexOf(true);
      });
      const count = (kind: number) => kinds.filter((one) => one === kind).length;
      expect([count(0), count(1), count(2)]).toEqual([reviewers, drafts, 1]);
      for (let draft = 0; draft < drafts; draft += 1) expect(nodes.draftOf(nodes.ofDraft(draft))).toBe(draft);
      // A draft can have as many reviews as there are reviewers, and one more is asked about.
      for (let load = 0; load <= reviewers + 1; load += 1) {
        expect(nodes.loadOf(nodes.ofTrade(load))).toBe(load);
        expect(nodes.ofTrade(load)).toBeLessThan(nodes.count);
      }
    }
  });

  it('are followed back to where a way began', () => {
    const parents = new Int32Array(6).fill(NOT_REACHED);
    parents[2] = START;
    parents[5] = 2;
    parents[1] = 5;
    expect(wayTo(parents, 1)).toEqual([2, 5, 1]);
    expect(wayTo(parents, 2)).toEqual([2]);
  });
});
