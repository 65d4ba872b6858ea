import type { AllocationView } from '@salt-circle/contracts';
import { draftChoices, reviewerChoices, swapChoices } from './choices.js';
import { Model } from './model.js';
import type { ManualChanges } from './useManualChanges.js';

const ids = ['ann', 'ben', 'cho', 'dee'];
const pair = (reviewerId: string, author: string) => ({ reviewerId, draftId: `d-${author}` });
const PAIRS = [pair('ann', 'ben'), pair('ben', 'cho'), pair('cho', 'ann'), pair('dee', 'ann')];

const view = {
  reviewers: ids.map((id) => ({
    id,
    label: { name: id },
    capacity: 1,
    leftOut: id === 'dee' ? 'not-handed-in' : null,
  })),
  drafts: ids.slice(0, 3).map((id) => ({ id: `d-${id}`, author: { name: id }, authorIds: [id], closed: false })),
  pairs: PAIRS.map((one) => ({ ...one, self: false, locked: false, state: 'not-begun', reviewId: 'r' })),
  forbidden: [pair('ann', 'cho')],
  earlier: [{ ...pair('dee', 'ben'), times: 1 }],
} as unknown as AllocationView;
const model = new Model(view, null);
const done: string[] = [];
const say = (what: string) => (a: object, b?: object) => done.push(JSON.stringify([what, a, b]));
const manual = { add: say('add'), move: say('move'), swap: say('swap') } as unknown as ManualChanges;
const words = (choices: ReturnType<typeof draftChoices>) =>
  choices.map(({ words: who, effect, disabled }) => `${disabled ? '– ' : ''}${who}: ${effect}`);

describe('what a picker offers', () => {
  it('drafts that could be added, those with the fewest reviews first, and why others cannot', () => {
    expect(words(draftChoices(model, manual, 'dee'))).toEqual([
      'ben: 1 review now, then 2, met before',
      'cho: 1 review now, then 2',
      '– ann: has it already',
    ]);
    expect(words(draftChoices(model, manual, 'ann'))).toEqual([
      '– ben: has it already',
      '– cho: never paired',
      '– ann: own draft',
    ]);
  });

  it('reviewers who could take a draft over; those who have not handed in come last', () => {
    expect(words(reviewerChoices(model, manual, pair('ann', 'ben')))).toEqual([
      'cho: writes 1 of 1 now, then 2',
      'dee: writes 1 of 1 now, then 2, has not handed in',
      '– ann: has it already',
      '– ben: own draft',
    ]);
  });

  it('pairs to change drafts with, where both may', () => {
    const choices = swapChoices(model, manual, pair('ann', 'ben'));
    expect(words(choices)).toEqual([
      '– ben, who reviews cho: never paired',
      '– cho, who reviews ann: own draft',
      '– dee, who reviews ann: own draft',
    ]);
    const [free] = swapChoices(model, manual, pair('dee', 'ann'));
    expect(free?.words).toBe('ben, who reviews cho');
    free?.onPick();
    expect(done.pop()).toBe(JSON.stringify(['swap', pair('dee', 'ann'), pair('ben', 'cho')]));
  });
});
