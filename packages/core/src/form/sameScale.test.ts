import type { CriterionItem, FormItem } from './form.js';
import { ITEM_KINDS } from './form.js';
import { newItem } from './newItem.js';
import { sameScale } from './sameScale.js';

describe('answers to two items', () => {
  it('mean the same whatever is asked beside them, and something else with other levels, points or kinds', () => {
    let id = 0;
    const items = ITEM_KINDS.map((kind) => newItem(kind, () => `id-${(id += 1)}`));
    for (const one of items) {
      const reworded: FormItem = { ...one, id: 'other', title: 'Other', required: !one.required, weight: 7 };
      expect(items.filter((other) => sameScale(other, reworded))).toEqual([one]);
    }
    const [criterion] = items as [CriterionItem, ...FormItem[]];
    const [first, ...rest] = criterion.levels;
    if (first === undefined) throw new Error('A new criterion has levels');
    const more = { ...criterion, levels: [{ ...first, points: (first.points ?? 0) + 1 }, ...rest] };
    expect(sameScale(criterion, more)).toBe(false);
    expect(sameScale(criterion, { ...criterion, levels: rest })).toBe(false);
  });
});
