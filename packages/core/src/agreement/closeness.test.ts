import type { Answer, FormItem } from '../form/form.js';
import { newItem } from '../form/newItem.js';
import { closeness } from './closeness.js';

let count = 0;
const id = () => `id-${(count += 1)}`;

function criterion(levels: number, points: boolean): Extract<FormItem, { kind: 'criterion' }> {
  const item = newItem('criterion', id) as Extract<FormItem, { kind: 'criterion' }>;
  const named = Array.from({ length: levels }, (_, index) => ({
    ...{ id: id(), title: `Level ${index}`, description: '', points: points ? index : null },
  }));
  return { ...item, levels: named };
}

function compared(item: FormItem, own: Answer | undefined, key: Answer | undefined) {
  return closeness({ items: [item] }, { [item.id]: own }, { [item.id]: key });
}

describe('closeness to a key', () => {
  const levels = criterion(4, true);
  const at = (index: number) => ({ levelId: levels.levels[index]?.id ?? null });

  it.each<[number, number, number, string | null, boolean]>([
    [2, 2, 0, null, true],
    [3, 2, 1, 'more', true],
    [0, 1, 1, 'less', true],
    [3, 1, 2, 'more', false],
  ])('of levels: %i where the key has %i', (own, key, apart, gives, near) => {
    expect(compared(levels, at(own), at(key)).items).toEqual([
      { itemId: levels.id, unit: 'levels', apart, gives, near },
    ]);
  });

  it('does not say which of two levels gives more where they have no points', () => {
    const plain = criterion(3, false);
    const [first, , last] = plain.levels;
    const { items } = compared(plain, { levelId: first?.id ?? '' }, { levelId: last?.id ?? '' });
    expect(items[0]).toMatchObject({ apart: 2, gives: null, near: false });
  });

  const base = { title: '', guidance: '', required: true, weight: 1, comment: 'none' as const };
  const band = (from: number, to: number) => ({ id: id(), title: '', description: '', from, to });
  const bands: FormItem = { ...base, id: id(), kind: 'range', step: 1, bands: [band(0, 4), band(5, 8), band(9, 10)] };
  const oneBand: FormItem = { ...base, id: id(), kind: 'range', step: 1, bands: [band(0, 20)] };
  const list: FormItem = {
    ...{ ...base, id: id(), kind: 'checklist' as const },
    entries: ['a', 'b', 'c'].map((one) => ({ id: one, text: one, points: null })),
  };
  const choice: FormItem = {
    ...{ ...base, id: id(), kind: 'choice' as const, multiple: true },
    options: ['x', 'y'].map((one) => ({ id: one, title: one })),
  };
  const number: FormItem = { ...base, id: id(), kind: 'number', minimum: 0, maximum: null, whole: true, unit: '' };

  it.each<[string, FormItem, Answer, Answer, number, boolean]>([
    ['the same band', bands, { value: 5 }, { value: 8 }, 0, true],
    ['the next band', bands, { value: 9 }, { value: 5 }, 1, true],
    ['two bands away', bands, { value: 10 }, { value: 0 }, 2, false],
    ['a tenth of a range of one band', oneBand, { value: 12 }, { value: 10 }, 2, true],
    ['more than that', oneBand, { value: 13 }, { value: 10 }, 3, false],
    [
      'one entry otherwise',
      list,
      { checks: { a: 'yes', b: 'no', c: 'no' } },
      { checks: { a: 'yes', b: 'yes', c: 'no' } },
      1,
      true,
    ],
    ['two entries otherwise', list, { checks: { a: 'yes' } }, { checks: { a: 'yes', b: 'yes', c: 'no' } }, 2, false],
    ['the same choices in another order', choice, { choices: ['y', 'x'] }, { choices: ['x', 'y'] }, 0, true],
    ['another choice', choice, { choices: ['y'] }, { choices: ['x'] }, 1, false],
    ['one more, counted', number, { value: 3 }, { value: 2 }, 1, true],
    ['a tenth of many', number, { value: 55 }, { value: 50 }, 5, true],
    ['more than a tenth', number, { value: 56 }, { value: 50 }, 6, false],
  ])('%s', (_, item, own, key, apart, near) => {
    expect(compared(item, own, key).items[0]).toMatchObject({ apart, near });
  });

  it('does not ask for what the key leaves open, counts what the review leaves open as far, and reads no texts', () => {
    const prompt: FormItem = { ...base, id: id(), kind: 'prompt', minimumWords: 0 };
    const items = [levels, bands, prompt, number];
    const key = { [levels.id]: at(1), [prompt.id]: { text: 'Good' }, [number.id]: { value: 4 } };
    const { items: found, share } = closeness({ items }, { [levels.id]: at(1), [bands.id]: { value: 3 } }, key);
    expect(found.map(({ itemId, apart }) => [itemId, apart])).toEqual([
      [levels.id, 0],
      [number.id, null],
    ]);
    expect(share).toBe(0.5);
    expect(closeness({ items: [prompt] }, {}, {}).share).toBeNull();
  });

  it('gives kappa for six criteria of as many levels, and not for five', () => {
    const six = Array.from({ length: 6 }, () => criterion(3, true));
    const pick = (indexes: number[]) =>
      Object.fromEntries(six.map((one, at) => [one.id, { levelId: one.levels[indexes[at] ?? 0]?.id ?? null }]));
    const key = pick([0, 1, 2, 0, 1, 2]);
    expect(closeness({ items: six }, key, key).kappa).toBe(1);
    // By hand: apart 1 once of six; by chance the distances of all 36 pairs add up to 30.
    expect(closeness({ items: six }, pick([1, 1, 2, 0, 1, 2]), key).kappa).toBeCloseTo(1 - (1 * 6) / 30, 12);
    expect(closeness({ items: six.slice(1) }, key, key).kappa).toBeNull();
    const more = [...six, criterion(5, true)];
    expect(closeness({ items: more }, key, key).kappa).toBe(1);
  });
});
