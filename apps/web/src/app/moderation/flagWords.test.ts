import type { Flag } from '@salt-circle/core';
import { flagWords } from './flagWords.js';

const words = (flag: Flag, other = null as Parameters<typeof flagWords>[0]['other']) => flagWords({ flag, other });

describe('a flag in words', () => {
  it('has its figures', () => {
    expect(words({ code: 'few-words', words: 1, usual: 180.5 })).toBe('1 word; half of the reviews have 181 or more');
    expect(words({ code: 'nothing-to-do', notes: 0 })).toBe('no notes on the draft');
    expect(words({ code: 'nothing-to-do', notes: 3 })).toBe('none of its 3 notes says what to do');
    expect(words({ code: 'hasty', seconds: 150 })).toBe('submitted 3 minutes after its first word');
    expect(words({ code: 'one-end', end: 'top', items: 3 })).toBe('the highest level everywhere (3 items)');
  });

  it('says with what a review is compared', () => {
    const far = { code: 'far-from-others', apart: 0.5, others: 2, gives: 'less' } as const;
    expect(words(far)).toBe('gives less than the 2 other reviews of this draft: 50% of the scale apart on average');
    expect(words({ ...far, gives: null, others: 1 })).toMatch(/^other levels than the other review of this draft/);
    const same = { code: 'same-text', share: 0.62, reviewId: 'r', sameReviewer: false } as const;
    const other = { reviewer: { name: 'Wanja Kamau' }, author: { name: 'Hana Sato' } };
    expect(words(same, other)).toBe('62% of its text also stands in the review by Wanja Kamau');
    expect(words({ ...same, sameReviewer: true }, other)).toMatch(/another review by the same reviewer$/);
  });
});
