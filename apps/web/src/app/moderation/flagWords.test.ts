import type { Flag } from '@salt-circle/core';
import { flagWords } from './flagWords.js';

const words = (flag: Flag, other = null as Parameters<typeof flagWords>[0]['other']) => flagWords({ flag, other });

describe('a flag in words', () => {
  it('has its figures', () => {
    expect(words({ code: 'few-words', words: 1, usual: 180.5 })).toBe('1 word, the median is 181');
    expect(words({ code: 'nothing-to-do', notes: 0 })).toBe('no notes on the draft');
    expect(words({ code: 'nothing-to-do', notes: 3 })).toBe('no note says what to change');
    expect(words({ code: 'hasty', seconds: 150 })).toBe('finished in 3 minutes');
    expect(words({ code: 'one-end', end: 'top', items: 3 })).toBe('highest level everywhere (3 items)');
  });

  it('says with what a review is compared', () => {
    const far = { code: 'far-from-others', apart: 0.5, others: 2, gives: 'less' } as const;
    expect(words(far)).toBe('scores lower than the 2 other reviews by 50% of the scale on average');
    expect(words({ ...far, gives: null, others: 1 })).toMatch(/^scores differ from the other review/);
    const same = { code: 'same-text', share: 0.62, reviewId: 'r', sameReviewer: false } as const;
    const other = { reviewer: { name: 'Wanja Kamau' }, author: { name: 'Hana Sato' } };
    expect(words(same, other)).toBe('62% of its text is also in the review by Wanja Kamau');
    expect(words({ ...same, sameReviewer: true }, other)).toMatch(/another review by the same reviewer$/);
  });
});
