import { diffWordsWithSpace } from 'diff';
import fc from 'fast-check';
import { compareTexts, type ComparedPart } from './compareTexts.js';

const only = (parts: readonly ComparedPart[], change: ComparedPart['change']) =>
  parts.flatMap((part) => (part.change === change ? [part.text] : []));
const rebuilt = (parts: readonly ComparedPart[], change: 'out' | 'in') =>
  parts.flatMap((part) => (part.change === 'same' || part.change === change ? [part.text] : [])).join('');

/** Whatever the texts are, nothing of them is lost, added or moved. */
function expectWhole(before: string, after: string): ComparedPart[] {
  const parts = compareTexts(before, after);
  expect([rebuilt(parts, 'out'), rebuilt(parts, 'in')]).toEqual([before, after]);
  expect(parts.every(({ text }) => text !== '')).toBe(true);
  return parts;
}

describe('two texts as one', () => {
  it('differ word by word within a paragraph', () => {
    const parts = expectWhole('The bed rose by four.', 'The whole bed rose by five.');
    expect([only(parts, 'out'), only(parts, 'in').map((text) => text.trim())]).toEqual([['four'], ['whole', 'five']]);
  });

  it('are as the package has them by itself, where one paragraph stands against one', () => {
    const [before, after] = ['Geese graze the islands bare since 2009.', 'Since 2009 geese have grazed the islands.'];
    const plain = diffWordsWithSpace(before, after).filter(({ added, removed }) => added || removed).length;
    expect(expectWhole(before, after).filter(({ change }) => change !== 'same')).toHaveLength(plain);
  });

  it('keep a paragraph that stayed, whatever was written around it', () => {
    const stayed = 'The basin fills at every spring tide.\n';
    const parts = expectWhole(`One.\n${stayed}Two.`, `Something else altogether.\n${stayed}Two.\nThree.`);
    expect(only(parts, 'same')).toContain(stayed);
  });

  it.each([
    ['', ''],
    ['', 'a'],
    ['a\n', ''],
    ['a', 'a'],
    ['\n\n', '\n'],
  ])('lose nothing of %j and %j', (before, after) => {
    const parts = expectWhole(before, after);
    if (before === after) expect(parts.every(({ change }) => change === 'same')).toBe(true);
  });

  it('lose nothing of any texts', () => {
    const text = fc
      .array(fc.constantFrom('tide', 'mud', ' ', '\n', 'é', '😀', '.'), { maxLength: 60 })
      .map((all) => all.join(''));
    fc.assert(
      fc.property(text, text, (before, after) => void expectWhole(before, after)),
      { seed: 1962 },
    );
  });

  it('come to an end for texts that have nothing in common: steps grow with the length', () => {
    const draft = (word: string) => Array.from({ length: 8_000 }, (_, index) => `${word}${index}`).join(' ');
    const parts = expectWhole(draft('a'), draft('b'));
    expect(parts.map(({ change }) => change)).toEqual(['out', 'in']);
  });
});
