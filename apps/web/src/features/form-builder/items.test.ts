import { checkForm, EMPTY_FORM, ITEM_KINDS } from '@salt-circle/core';
import { duplicate, moved, newItem } from './items.js';

/** All ids in an item, its own first. */
function idsOf(value: unknown): string[] {
  if (Array.isArray(value)) return value.flatMap(idsOf);
  if (typeof value !== 'object' || value === null) return [];
  return Object.entries(value).flatMap(([key, part]) => (key === 'id' ? [part as string] : idsOf(part)));
}

describe('new items', () => {
  it('lack nothing but their words', () => {
    const codes = checkForm({ ...EMPTY_FORM, items: ITEM_KINDS.map(newItem) }).map(({ code }) => code);
    expect(codes.length).toBeGreaterThan(0);
    expect(codes.filter((code) => !/untitled|empty/.test(code))).toEqual([]);
  });

  it.each(ITEM_KINDS)('of kind %s are copied with ids of their own', (kind) => {
    const item = newItem(kind);
    const copy = duplicate(item);
    expect(idsOf(copy)).toHaveLength(idsOf(item).length);
    expect(idsOf(copy).filter((one) => idsOf(item).includes(one))).toEqual([]);
  });

  it('move within the list and not out of it', () => {
    expect(moved(['a', 'b', 'c'], 0, 2)).toEqual(['b', 'c', 'a']);
    expect(moved(['a', 'b', 'c'], 2, 1)).toEqual(['a', 'c', 'b']);
    const list = ['a', 'b'];
    expect([moved(list, 0, -1), moved(list, 1, 2), moved(list, 7, 0)]).toEqual([list, list, list]);
  });
});
