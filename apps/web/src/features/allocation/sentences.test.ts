import type { PreviewView } from '@salt-circle/contracts';
import { allocate, type AllocationProblem } from '@salt-circle/core';
import { Model, measuresOf } from './model.js';
import { ringOf } from './views/ring.js';
import {
  effectSentence,
  measuredFigures,
  progressWords,
  qualityFigures,
  repairChanges,
  unmetWishes,
} from './sentences.js';
import { ids, NAMES, view } from './testing/board.js';
import { waysOut } from './together.js';

function preview(part: Partial<AllocationProblem>): PreviewView {
  const problem: AllocationProblem = {
    reviewers: ids.map((id) => ({ id, capacity: 2 })),
    drafts: ids.map((id) => ({ id: `d-${id}`, authorIds: [id] })),
    scope: 'anyone',
    fixed: [],
    forbidden: [],
    earlier: [],
    seed: 1,
    ...part,
  };
  const wishes = view().wishes;
  const base = { id: 'p', kind: 'new', seed: 1, madeAt: '', scheduled: false, wishes, removed: [], added: [] } as const;
  return { ...base, ...allocate(problem) };
}

describe('what a preview says', () => {
  it('gives each figure beside the best there is', () => {
    const { quality } = preview({});
    expect(qualityFigures(quality, view().wishes).map(({ figure, remark }) => `${figure}: ${remark}`)).toEqual([
      '8 of 8: all that was asked',
      '2 for each: as even as can be',
      '0: none',
      '2: best possible 2',
    ]);
    expect(qualityFigures(quality, { ...view().wishes, mix: true }).at(-1)?.remark).toBe(
      'nobody has reviewed in this course before',
    );
  });

  it('says by name who is stuck, and why pairs met again', () => {
    const only = (reviewerId: string) =>
      ids.filter((id) => id !== reviewerId && id !== 'dee').map((id) => ({ reviewerId, draftId: `d-${id}` }));
    const stuck = preview({ maxPerDraft: 2, forbidden: [...only('ann'), ...only('ben'), ...only('cho')] });
    const [sentence] = unmetWishes(stuck, new Model(view(), stuck.pairs));
    expect(sentence).toBe('Ann may review only the draft by Dee. That is room for 1 of the 2 reviews asked.');
    const met = ids.flatMap((a) =>
      ids.filter((b) => a !== b).map((b) => ({ reviewerId: a, draftId: `d-${b}`, times: 1 })),
    );
    const again = preview({ earlier: met });
    const sentences = unmetWishes(again, new Model(view({ earlier: met }), again.pairs));
    expect(sentences[0]).toMatch(/^8 pairs have met before \(Ann with .* and 2 more\): .* fewer are not possible\.$/);
    expect(sentences[1]).toMatch(/^2 pairs review each other: .* fewer are not possible\.$/);
  });

  it('names the limit that binds, and the pairs made by hand that leave others short', () => {
    const bound = preview({ maxPerDraft: 1 });
    const wishes = { ...bound.wishes, maxPerDraft: 1 };
    expect(unmetWishes({ ...bound, wishes }, new Model(view(), bound.pairs))[0]).toBe(
      'At most 1 a draft leaves room for 4 of 8 reviews asked: raise it to 2.',
    );
    const fixed = ['ben', 'cho', 'dee'].map((reviewerId) => ({ reviewerId, draftId: 'd-ann' }));
    const uneven = preview({ fixed, reviewers: ids.map((id) => ({ id, capacity: id === 'ann' ? 2 : 1 })) });
    const held = fixed.map((pair) => ({
      ...{ reviewId: pair.reviewerId, state: 'not-begun' as const, locked: true, self: false },
      ...{ answered: 0, required: 2, notes: 0, ...pair },
    }));
    const [sentence] = unmetWishes(uneven, new Model(view({ pairs: held }), uneven.pairs));
    expect(sentence).toMatch(/^By hand, Ann gets 3; other drafts get 0 because of it\./);
  });

  it('offers ways out for people whose partners have not handed in', () => {
    const two = [
      { reviewerId: 'ann', draftId: 'd-ben' },
      { reviewerId: 'ben', draftId: 'd-ann' },
    ];
    const own = (id: string) => ({ reviewerId: id, draftId: `d-${id}` });
    const model = new Model(view({ alone: [own('cho'), own('dee')] }), two);
    expect(waysOut(model)).toEqual([
      {
        words: 'Make Cho and Dee partners',
        add: [
          { reviewerId: 'cho', draftId: 'd-dee' },
          { reviewerId: 'dee', draftId: 'd-cho' },
        ],
      },
      {
        words: 'Let Cho join Ann and Ben',
        add: [
          { reviewerId: 'cho', draftId: 'd-ann' },
          { reviewerId: 'ben', draftId: 'd-cho' },
        ],
      },
      { words: 'Let Cho review the own draft', add: [own('cho')] },
      { words: 'Let Dee review the own draft', add: [own('dee')] },
    ]);
  });

  it('lists what a repair changes, with the reasons', () => {
    const repair: PreviewView = {
      ...preview({}),
      kind: 'repair',
      removed: [{ reviewerId: 'ann', draftId: 'd-ben', reason: 'makes-room' }],
      added: [{ reviewerId: 'ann', draftId: 'd-dee', reason: 'new-draft' }],
    };
    expect(repairChanges(repair, new Model(view(), []))).toMatchObject([
      { reviewer: 'Ann', author: 'Ben', sign: 'removed', reason: expect.stringContaining('moved') },
      { reviewer: 'Ann', author: 'Dee', sign: 'added', reason: 'new draft' },
    ]);
  });

  it('goes forward through its steps', () => {
    const percents = (['deal', 'place', 'balance', 'repeats', 'mutual', 'mix'] as const).map(
      (step) => progressWords({ step, share: 0.5 }).percent,
    );
    expect(percents).toEqual([...percents].sort((a, b) => a - b));
  });
});

describe('the board', () => {
  const ring = ids.map((id, at) => ({ reviewerId: id, draftId: `d-${ids[(at + 1) % 4]}` }));

  it('measures pairs made by hand, and says what an act did', () => {
    const before = measuresOf(view(), ring);
    expect(before).toMatchObject({ reviews: 4, asked: 8, fewest: 1, most: 1, mutualPairs: 0 });
    const after = measuresOf(view(), [...ring, { reviewerId: 'ben', draftId: 'd-ann' }]);
    expect(effectSentence(before, after)).toBe(
      'reviews per draft 1 to 2 (before: 1 for each), 1 pair reviews each other.',
    );
    expect(measuredFigures(after, false)[0]).toMatchObject({ figure: '5 of 8', remark: '3 missing' });
  });

  it('knows what stands where a reviewer and a draft meet', () => {
    const model = new Model(view({ forbidden: [{ reviewerId: 'ann', draftId: 'd-cho' }] }), ring);
    const at = (reviewerId: string, draftId: string) => model.meeting({ reviewerId, draftId });
    expect([at('ann', 'd-ann'), at('ann', 'd-ben'), at('ann', 'd-cho'), at('ann', 'd-dee')]).toEqual([
      'own',
      'given',
      'apart',
      'free',
    ]);
  });

  it('draws a ring on which everybody stands once, and an arc for each review', () => {
    const { nodes, arcs } = ringOf(new Model(view(), ring));
    expect(nodes.map(({ words }) => words)).toEqual(NAMES);
    for (const { x, y } of nodes) expect(Math.hypot(x, y)).toBeCloseTo(1);
    expect(arcs.map(({ from, to }) => `${from} ${to}`)).toContain('r ann r ben');
    expect(arcs).toHaveLength(4);
    // A draft of a group stands by itself; who is left out and has nothing to do with any pair does not stand there.
    const grouped = view({
      drafts: [
        { id: 'g', author: { name: 'Marsh' }, title: '', authorIds: ['ann', 'ben'], group: null, closed: false },
      ],
      reviewers: view().reviewers.map((one) => (one.id === 'dee' ? { ...one, leftOut: 'excused' as const } : one)),
    });
    const group = ringOf(new Model(grouped, [{ reviewerId: 'cho', draftId: 'g' }]));
    expect(group.nodes.map(({ words }) => words)).toEqual(['Ann', 'Ben', 'Cho', 'Marsh']);
    expect(group.arcs).toMatchObject([{ from: 'r cho', to: 'd g' }]);
  });
});
