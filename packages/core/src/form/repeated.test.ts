import { completeness } from './completeness.js';
import { EMPTY_FORM, OVERALL_ID, type ReviewForm } from './form.js';
import { repeatedWords } from './repeated.js';

const base = { guidance: '', required: true, weight: 1, minimumWords: 5 };
const FORM: ReviewForm = {
  ...EMPTY_FORM,
  overall: 'optional',
  items: [
    { ...base, kind: 'prompt', id: 'first', title: 'What first?' },
    { ...base, kind: 'pair', id: 'plan', title: 'Plan', worksLabel: '', nextLabel: '' },
  ],
};
const SAID = 'Say how deep the water is.';

describe('the same sentence in two answers', () => {
  it('counts where it stands first, whatever its signs, spaces and case', () => {
    const answers = {
      first: { text: `Good. ${SAID} And when?` },
      plan: { text: 'say  how deep – the water is', next: `${SAID} ${SAID} Then begin with it, please.` },
      [OVERALL_ID]: { text: 'Good.' },
    };
    expect([...repeatedWords(FORM, answers)]).toEqual([
      ['plan text', 6],
      ['plan next', 12],
    ]);
  });

  it('does not fill a minimum of words twice, and the missing thing says how many stand elsewhere', () => {
    const answers = { first: { text: SAID }, plan: { text: SAID, next: 'Begin with the depth of it.' } };
    expect(completeness(FORM, answers, 0).missing).toEqual([
      { itemId: 'plan', what: 'words', have: 0, need: 5, repeated: 6 },
    ]);
  });

  it('leaves short ones alone, which are said twice by chance, and answers that differ by a word', () => {
    const answers = {
      first: { text: 'I agree. Say how deep the water is.' },
      plan: { text: 'I agree. Say how deep the channel is.', next: 'I agree with the first step of it.' },
    };
    expect(repeatedWords(FORM, answers).size).toBe(0);
    expect(completeness(FORM, answers, 0).complete).toBe(true);
  });

  it('is found in scripts that put no spaces after their stops', () => {
    const japanese = '水がどれくらい深いかを書いてください。';
    const answers = { first: { text: `いいですね。${japanese}` }, plan: { text: japanese, next: 'x' } };
    expect(repeatedWords(FORM, answers).get('plan text')).toBeGreaterThan(10);
  });
});
