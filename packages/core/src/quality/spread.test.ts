import type { CriterionItem, FormItem } from '../form/form.js';
import { newItem } from '../form/newItem.js';
import { itemSpreads } from './spread.js';

let count = 0;
const id = () => `s${(count += 1)}`;
const criterion = (name: string): FormItem => ({
  ...(newItem('criterion', id) as CriterionItem),
  id: name,
  levels: [0, 2, 4].map((points) => ({ id: `l${points}`, title: '', description: '', points })),
});

describe('where reviews of one draft differ', () => {
  it('is told item by item, the widest first, what has no scale last', () => {
    const items = [{ ...newItem('prompt', id), id: 'text' }, criterion('same'), criterion('wide'), criterion('half')];
    const reviews = [
      { same: { levelId: 'l2' }, wide: { levelId: 'l0' }, half: { levelId: 'l2' } },
      { same: { levelId: 'l2' }, wide: { levelId: 'l4' }, half: { levelId: 'l4' } },
    ];
    expect(itemSpreads({ items }, reviews)).toEqual([
      { itemId: 'wide', spread: 1 },
      { itemId: 'half', spread: 0.5 },
      { itemId: 'same', spread: 0 },
      { itemId: 'text', spread: null },
    ]);
    // One review alone differs from none.
    expect(itemSpreads({ items }, reviews.slice(1)).map(({ spread }) => spread)).toEqual([null, null, null, null]);
  });
});
