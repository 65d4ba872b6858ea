import { completeness, EMPTY_FORM, type Answer, type FormItem } from '@salt-circle/core';
import { itemState, missingWords } from './itemState.js';

const criterion: FormItem = {
  kind: 'criterion',
  id: 'c',
  title: 'Evidence',
  guidance: '',
  required: true,
  weight: 1,
  comment: 'required',
  levels: [
    { id: 'a', title: 'some', description: '', points: 1 },
    { id: 'b', title: 'all', description: '', points: 2 },
  ],
};
const prompt = (part: Partial<Extract<FormItem, { kind: 'prompt' }>> = {}): FormItem => ({
  kind: 'prompt',
  id: 'p',
  title: 'What first?',
  guidance: '',
  required: true,
  weight: 1,
  minimumWords: 20,
  ...part,
});

/** The few words at the right of an item, for an answer. */
function words(item: FormItem, answer: Answer | undefined): string {
  const { missing } = completeness({ ...EMPTY_FORM, items: [item] }, { [item.id]: answer }, 0);
  return itemState(item, answer, missing)[0];
}

describe('the state of an item', () => {
  const cases: Array<[string, FormItem, Answer | undefined, string]> = [
    ['an untouched criterion', criterion, undefined, 'not answered'],
    ['a level without its reason', criterion, { levelId: 'a' }, 'say why'],
    ['both', criterion, { levelId: 'a', text: 'two maps' }, 'done'],
    ['an optional criterion left out', { ...criterion, required: false }, undefined, 'may be left out'],
    ['an untouched prompt', prompt(), undefined, '0 of 20 words'],
    ['one that is under way', prompt(), { text: 'A tide table would help here' }, '6 of 20 words'],
    ['one that is long enough', prompt({ minimumWords: 3 }), { text: 'A tide table' }, '3 words'],
    ['a word where any will do', prompt({ minimumWords: 0 }), { text: 'Yes' }, '1 word'],
    ['nothing where any will do', prompt({ minimumWords: 0 }), undefined, 'not answered'],
    ['an optional prompt left out', prompt({ required: false }), undefined, 'may be left out'],
    ['an optional one begun', prompt({ required: false }), { text: 'A map' }, '2 of 20 words'],
  ];
  it.each(cases)('%s', (_, item, answer, expected) => {
    expect(words(item, answer)).toBe(expected);
  });

  it('is told at the foot of the page in the same terms', () => {
    const form = { ...EMPTY_FORM, items: [criterion, prompt()], minimumNotes: 2 };
    const { missing } = completeness(form, { c: { levelId: 'a' }, p: { text: 'A tide table' } }, 1);
    expect(missing.map((one) => missingWords(one, form))).toEqual([
      'a reason in “Evidence”',
      '17 more words in “What first?”',
      '1 more note on the draft',
    ]);
    const untouched = completeness(form, {}, 0).missing.map((one) => missingWords(one, form));
    expect(untouched).toContain('“Evidence”');
  });
});
