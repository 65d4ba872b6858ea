import type { FormItem } from '../form/form.js';
import { readItems } from './readItems.js';

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
