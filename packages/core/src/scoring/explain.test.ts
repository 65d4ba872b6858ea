import type { Adjusted } from './adjustScores.js';
import { explainAdjusted } from './explain.js';
import { explanationWords } from './explainWords.js';

const draft = (id: string, se: number) => ({ id, mean: 0.5, adjusted: 0.5, se, low: 0, high: 1, ratings: 3 });
const reviewer = (id: string, severity: number) => ({ id, severity, se: 0.1, low: -1, high: 1, ratings: 2 });
const adjusted = (variance: number, se: number): Adjusted => ({
  ...{ mean: 0.5, items: [], problem: null, variances: { draft: variance, reviewer: 0.1, review: 0, residual: 3 } },
  drafts: [draft('x', se), draft('y', se)],
  reviewers: [reviewer('a', 0.05), reviewer('b', -0.2), reviewer('c', 0.004)],
});
const ratings = ['a', 'b', 'c'].flatMap((reviewerId) =>
  ['i', 'j'].map((itemId) => ({ reviewerId, draftId: 'x', itemId, score: 1 })),
);

describe('how an adjusted score came about', () => {
  it('says in what company the draft was read', () => {
    const found = explainAdjusted(adjusted(1, 0.5), ratings);
    expect(found.get('x')).toMatchObject({ reviewers: 3, less: 1, more: 1 });
    expect(found.get('y')).toEqual({ reviewers: 0, less: 0, more: 0, forHalf: null });
  });

  it.each([
    [
      2,
      1,
      12,
      '2 of 3 reviewers give less than others on average, 1 gives more. An interval half as wide would take about 12 reviews.',
    ],
    [1, 0, null, '1 of 3 reviewers gives less than others on average.'],
    [0, 2, null, '2 of 3 reviewers give more than others on average.'],
    [0, 0, 9, 'An interval half as wide would take about 9 reviews.'],
    [0, 0, null, ''],
  ])('in sentences: %s less, %s more', (less, more, forHalf, words) => {
    expect(explanationWords({ reviewers: 3, less, more, forHalf })).toBe(words);
  });

  it('says how many reviews would make the interval half as wide', () => {
    // By hand: drafts vary by 1, a review by 3, three reviews: 1/se² = 1 + 3/3 = 2; half of it is 8 = 1 + 21/3.
    expect(explainAdjusted(adjusted(1, Math.sqrt(1 / 2)), ratings).get('x')?.forHalf).toBe(21);
    // Nothing is known beyond what drafts differ by, or they do not differ at all.
    expect(explainAdjusted(adjusted(1, 1), ratings).get('x')?.forHalf).toBeNull();
    expect(explainAdjusted(adjusted(0, 0.1), ratings).get('x')?.forHalf).toBeNull();
  });
});
