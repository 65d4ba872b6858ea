import type { FormItem } from '../form/form.js';
import { agreedOn } from './agreed.js';

const level = (id: string, title: string, points: number | null) => ({ id, title, description: '', points });
const criterion = (id: string, points: readonly (number | null)[]): FormItem => ({
  ...{ kind: 'criterion', id, title: `About ${id}`, guidance: '', required: true, weight: 1, comment: 'none' },
  levels: points.map((each, index) => level(`l${index}`, `Level ${index}`, each)),
});
const FORM = {
  items: [
    criterion('place', [0, 2, 4]),
    criterion('facts', [null, null, null]),
    {
      kind: 'prompt',
      id: 'first',
      title: 'First',
      guidance: '',
      required: true,
      weight: 1,
      minimumWords: 0,
    } as FormItem,
  ],
};
const review = (place: string | null, facts: string | null) => ({
  ...(place !== null && { place: { levelId: place } }),
  ...(facts !== null && { facts: { levelId: facts } }),
  first: { text: 'Begin with the map.' },
});

describe('what reviews of a draft agree on', () => {
  it('is where all say the same, and where they lie half of the scale apart they differ', () => {
    const { agree, differ } = agreedOn(FORM, [review('l1', 'l0'), review('l1', 'l2'), review('l1', 'l1')]);
    expect(agree).toEqual([{ itemId: 'place', title: 'About place', reviews: 3, words: ['Level 1'] }]);
    // Also without points: by the order of the levels.
    expect(differ).toEqual([{ itemId: 'facts', title: 'About facts', reviews: 3, words: ['Level 0', 'Level 2'] }]);
  });

  it('says of how many reviews that is true, and nothing of a single one or of texts', () => {
    expect(agreedOn(FORM, [review('l2', null), review('l2', 'l1'), review(null, null)])).toEqual({
      agree: [{ itemId: 'place', title: 'About place', reviews: 2, words: ['Level 2'] }],
      differ: [],
    });
    expect(agreedOn(FORM, [])).toEqual({ agree: [], differ: [] });
  });

  it('is neither where one level lies between', () => {
    expect(agreedOn({ items: [criterion('place', [0, 1, 2, 3])] }, [review('l1', null), review('l2', null)])).toEqual({
      ...{ agree: [], differ: [] },
    });
  });
});
