import { checkForm } from '@salt-circle/core';
import { moved, newCriterion, newPrompt } from './items.js';

describe('items of a form', () => {
  it('start in a shape in which only words are missing', () => {
    const codes = checkForm({ items: [newCriterion(), newPrompt()] }).map(({ code }) => code);
    expect(new Set(codes)).toEqual(new Set(['item-untitled', 'level-untitled']));
  });

  it('move to a place, and stay where there is none', () => {
    const items = [newPrompt(), newPrompt(), newPrompt()];
    const [a, b, c] = items;
    expect(moved(items, 0, 2)).toEqual([b, c, a]);
    expect(moved(items, 2, 0)).toEqual([c, a, b]);
    expect(moved(items, 0, -1)).toBe(items);
    expect(moved(items, 2, 3)).toBe(items);
    expect(moved(items, 7, 0)).toBe(items);
  });
});
