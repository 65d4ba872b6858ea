import fc from 'fast-check';
import type { AllocationView } from './allocation.js';
import { boardChange, changedBoard } from './boardChange.js';

type Rows = ReadonlyArray<readonly [id: number, mark: number]>;

/** A board of rows that have ids and something that can change; nothing else of them matters here. */
function board(asOf: number, revision: number, people: Rows, pairs: Rows): AllocationView {
  return {
    ...{ asOf, revision, undo: revision % 2 === 0 ? null : { step: revision, act: 'by-hand' } },
    reviewers: people.map(([id, capacity]) => ({ id: `r${id}`, capacity })),
    drafts: people.map(([id, title]) => ({ id: `d${id}`, title: String(title) })),
    pairs: pairs.map(([id, answered]) => ({ reviewId: `p${id}`, answered })),
    forbidden: pairs.map(([id]) => ({ reviewerId: `r${id}`, draftId: 'd' })),
    earlier: [],
  } as unknown as AllocationView;
}

const rows = fc.uniqueArray(fc.tuple(fc.integer({ min: 0, max: 12 }), fc.integer({ min: 0, max: 2 })), {
  selector: ([id]) => id,
});

describe('the change of a board', () => {
  it('makes of the board that was the board that is, over the wire, whatever changed', () => {
    fc.assert(
      fc.property(fc.tuple(rows, rows, rows, rows), ([people, pairs, others, marks]) => {
        const before = board(1, 1, people, pairs);
        const after = board(2, marks.length, others, marks);
        const sent = JSON.parse(JSON.stringify(boardChange(before, after))) as ReturnType<typeof boardChange>;
        expect(changedBoard(before, sent)).toEqual(after);
      }),
      { seed: 1962, numRuns: 300 },
    );
  });

  it('of one pair among thousands is that pair alone', () => {
    const many: Rows = Array.from({ length: 2000 }, (_, id) => [id, 0] as const);
    const before = board(1, 1, many, many);
    const after = { ...before, asOf: 2, pairs: [...before.pairs.slice(0, -1), { ...before.pairs[1999], answered: 3 }] };
    const { fields, rows: changes } = boardChange(before, after as AllocationView);
    expect(fields).toEqual({});
    expect(changes).toEqual({ pairs: { gone: [], put: [{ reviewId: 'p1999', answered: 3 }] } });
  });
});
