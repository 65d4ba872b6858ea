import type { FormItem } from '../form/form.js';
import type { Adjusted } from '../scoring/adjustScores.js';
import { alongDraft, draftPartOf, placeShare } from './alongDraft.js';
import { readItems } from './readItems.js';
import { reliabilityOf } from './reliability.js';

const BASE = { guidance: '', required: true, weight: 1, comment: 'none' as const };
const criterion = (id: string): FormItem => ({
  ...{ ...BASE, kind: 'criterion', id, title: id.toUpperCase() },
  levels: [0, 1, 2].map((points) => ({ id: `${id}${points}`, title: '', description: '', points })),
});
const items: FormItem[] = [
  criterion('a'),
  criterion('b'),
  { ...BASE, kind: 'prompt', id: 'p', title: 'P', minimumWords: 0 },
];
const review = (draftId: string, a: number | null, b: number) => ({
  draftId,
  answers: { ...(a !== null && { a: { levelId: `a${a}` } }), b: { levelId: `b${b}` } },
});

describe('how items came out', () => {
  it('counts answers by fifths of their scale, and says how alike different people answer', () => {
    const reviews = [review('x', 2, 2), review('x', 2, 0), review('y', 0, 0), review('y', 0, 2), review('z', null, 1)];
    const [a, b, ...more] = readItems({ items }, reviews);
    expect(more).toEqual([]);
    expect(a).toEqual({ itemId: 'a', title: 'A', counts: [2, 0, 0, 0, 2], mean: 0.5, answers: 4, alpha: 1 });
    expect(b).toMatchObject({ counts: [2, 0, 1, 0, 2], mean: 0.5, answers: 5 });
    // By hand: two units, 0 and 1 in each; observed 1, expected 2/3 of the pairs: 1 − 1 / (2/3).
    expect(b?.alpha).toBeCloseTo(-0.5, 12);
  });

  it('is nothing without reviews', () => {
    expect(readItems({ items }, [])).toEqual(
      ['a', 'b'].map((id) => ({
        itemId: id,
        title: id.toUpperCase(),
        counts: [0, 0, 0, 0, 0],
        mean: null,
        answers: 0,
        alpha: null,
      })),
    );
  });
});

describe('where notes stand', () => {
  const known = { textLength: 1000, pages: 4, seconds: 60 };
  const quote = { type: 'TextQuoteSelector' as const, exact: 'x', prefix: '', suffix: '' };
  const position = { type: 'TextPositionSelector' as const, start: 200, end: 300 };

  it('is a share of the text, the pages or the time', () => {
    const at = (selector: Parameters<typeof placeShare>[0]) => placeShare(selector, known);
    expect([
      at({ type: 'text', quote, position }),
      at({ type: 'page', page: 1 }),
      at({ type: 'passage', page: 4, quote, position }),
      at({ type: 'region', page: 2, x: 0, y: 0.4, width: 0.1, height: 0.2 }),
      at({ type: 'moment', start: 45, end: null }),
      at({ type: 'moment', start: 90, end: 95 }),
    ]).toEqual([0.25, 0.125, 0.875, 0.375, 0.75, 1]);
    expect([
      at({ type: 'whole' }),
      at({ type: 'region', page: null, x: 0, y: 0, width: 1, height: 1 }),
      placeShare({ type: 'page', page: 3 }, { ...known, pages: null }),
      placeShare({ type: 'moment', start: 0, end: null }, { ...known, seconds: 0 }),
    ]).toEqual([null, null, null, null]);
  });

  it('is counted by tenths, the end in the last', () => {
    expect(alongDraft([0, 0.05, 0.1, 0.99, 1, null])).toEqual({ counts: [2, 1, 0, 0, 0, 0, 0, 0, 0, 2], elsewhere: 1 });
    expect([draftPartOf(0), draftPartOf(0.55), draftPartOf(1), draftPartOf(null)]).toEqual([0, 5, 9, null]);
  });
});

describe('how far scores tell drafts apart', () => {
  const adjusted = (part: Partial<Adjusted>): Adjusted => ({
    ...{ mean: 0.5, items: [], reviewers: [], problem: null },
    variances: { draft: 0.04, reviewer: 0.02, review: 0, residual: 0.04 },
    drafts: ['a', 'b'].map((id) => ({ id, mean: 0.5, adjusted: 0.5, se: 0.1, low: 0.3, high: 0.7, ratings: 3 })),
    ...part,
  });

  it('follows from the variances, and by Spearman and Brown for more reviews', () => {
    // By hand: 0.04 of 0.1; 3 × 0.4 / (1 + 2 × 0.4) = 2/3; 0.7 × 0.6 / (0.4 × 0.3) = 3.5.
    const found = reliabilityOf(adjusted({}));
    expect(found).toMatchObject({ reviews: 3 });
    expect([found?.single, found?.together, found?.needed].map((one) => one?.toFixed(9))).toEqual([
      '0.400000000',
      '0.666666667',
      '3.500000000',
    ]);
  });

  it('is nothing where nothing differs', () => {
    const none = { draft: 0, reviewer: 0, review: 0, residual: 0 };
    expect(reliabilityOf(adjusted({ variances: none }))).toBeNull();
    expect(reliabilityOf(adjusted({ problem: { code: 'no-spread' } as Adjusted['problem'] }))).toBeNull();
    expect(reliabilityOf(adjusted({ variances: { ...none, residual: 1 } }))).toMatchObject({ single: 0, needed: null });
  });
});
