import { percent } from '../../app/percent.js';
import { itemWords, resultWords, stateWords } from './practiceWords.js';

describe('practice in words', () => {
  it('rounds no share to all or nothing', () => {
    expect([0, 0.001, 0.5, 0.996, 1].map(percent)).toEqual(['0%', '1%', '50%', '99%', '100%']);
  });

  it('says how an item stands to the key', () => {
    const words = (part: Partial<Parameters<typeof itemWords>[0]>) =>
      itemWords({ itemId: 'a', unit: 'levels', apart: 1, gives: null, near: true, ...part });
    expect(words({ apart: 0 })).toBe('the same as your instructor');
    expect(words({ gives: 'more' })).toBe('1 level higher than your instructor');
    expect(words({ apart: 2, gives: 'less' })).toBe('2 levels lower than your instructor');
    expect(words({ apart: 2 })).toBe('2 levels away from your instructor');
    expect(words({ unit: 'entries', apart: 2 })).toBe('2 entries answered otherwise');
    expect(words({ unit: 'number', apart: 3, gives: 'less' })).toBe('3 less than your instructor');
    expect(words({ apart: null })).toBe('you left it open');
  });

  it('sums a try up', () => {
    const item = (near: boolean) => ({ itemId: 'a', unit: 'levels', apart: 0, gives: null, near }) as const;
    const result = (nears: boolean[]) => {
      const share = nears.length === 0 ? null : nears.filter(Boolean).length / nears.length;
      return resultWords({ items: nears.map(item), share, kappa: null });
    };
    expect(result([])).toContain('nothing to count');
    expect(result([true])).toBe('The one item that can be compared is close to your instructor’s review.');
    expect(result([true, true])).toBe('All 2 items that can be compared are close to your instructor’s review.');
    expect(result([true, false, false])).toBe(
      '1 of the 3 items that can be compared is close to your instructor’s review (33%).',
    );
  });

  it('says where one stands', () => {
    const own = { reviewId: null, again: true, result: true };
    const rule = { when: 'first', tries: 2, closeEnough: 0.75 } as const;
    expect(stateWords({ ...own, state: 'again', shares: [0.5] }, rule)).toBe(
      'submitted, 50% of the items close to your instructor’s review; 75% are asked for',
    );
    expect(stateWords({ ...own, state: 'done', shares: [null] }, rule)).toBe('submitted');
  });
});
