import {
  hasPractised,
  mayTryAgain,
  NO_PRACTICE,
  practiceState,
  type PracticeRule,
  type PracticeTries,
} from './practice.js';

const twice: PracticeRule = { when: 'first', tries: 2, closeEnough: 0.75 };
const tried = (shares: Array<number | null>, begun = false): PracticeTries => ({ shares, begun });

describe('practice', () => {
  it.each<[string, PracticeRule, PracticeTries, string, boolean]>([
    ['nothing yet', twice, tried([]), 'not-begun', false],
    ['writing the first', twice, tried([], true), 'in-progress', false],
    ['near enough at once', twice, tried([0.75]), 'done', true],
    ['too far, one try left', twice, tried([0.5]), 'again', true],
    ['at the second try', twice, tried([0.5], true), 'in-progress', false],
    ['near enough once stays so', twice, tried([0.8, 0.2]), 'done', false],
    ['too far twice holds up nobody', twice, tried([0.5, 0.6]), 'used-up', false],
    ['nothing can be compared', twice, tried([null]), 'done', true],
    ['submitting is enough', { ...twice, closeEnough: null }, tried([0]), 'done', true],
    ['as often as one likes', { ...twice, tries: null }, tried(Array(9).fill(0.1)), 'again', true],
    ['no practice any more', NO_PRACTICE, tried([0.1]), 'done', false],
  ])('%s', (_, rule, tries, state, again) => {
    expect([practiceState(rule, tries), mayTryAgain(rule, tries)]).toEqual([state, again]);
  });

  it('is behind somebody once all of it is, and where there is none', () => {
    expect(hasPractised([])).toBe(true);
    expect(hasPractised(['done', 'used-up'])).toBe(true);
    expect(hasPractised(['done', 'again'])).toBe(false);
  });
});
