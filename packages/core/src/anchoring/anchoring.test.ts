import fc from 'fast-check';
import { TextCollector } from '../text/textCollector.js';
import { CONTEXT_LENGTH, describeTextAnchor } from './describe.js';
import { matchTextAnchor } from './match.js';
import type { TextRange } from './selectors.js';

const TEXT =
  'The western basin lost its creek network when the sluice was fixed shut in 1987. Since then the bed has silted by roughly four centimetres a decade.\n' +
  'Re-opening the sluice on spring tides only would bring back the marsh within a few years. Sediment supply is sufficient for this.\n' +
  'We propose three cuts through the old bank. The middle cut follows the creek line of 1962.';

const rangeOf = (text: string, words: string, from = 0): TextRange => {
  const start = text.indexOf(words, from);
  return { start, end: start + words.length };
};

const LONE_SURROGATE = /\p{Surrogate}/u;

/** Slow and obvious: fewest insertions, deletions and replacements between two texts. */
function distance(a: string, b: string): number {
  let row = [...Array(b.length + 1).keys()];
  for (let i = 1; i <= a.length; i += 1) {
    const next = [i];
    for (let j = 1; j <= b.length; j += 1) {
      next[j] = Math.min(
        (row[j] as number) + 1,
        (next[j - 1] as number) + 1,
        (row[j - 1] as number) + (a[i - 1] === b[j - 1] ? 0 : 1),
      );
    }
    row = next;
  }
  return row[b.length] as number;
}

describe('describeTextAnchor', () => {
  // W3C Web Annotation Data Model, section 4.2.4, the example of a misspelt word in
  // "this is an anotation that has some errors" (quoted from memory).
  it('describes a passage as the standard’s example does', () => {
    const text = 'this is an anotation that has some errors';
    const { quote, position } = describeTextAnchor(text, rangeOf(text, 'anotation'));
    expect(quote).toEqual({
      type: 'TextQuoteSelector',
      exact: 'anotation',
      prefix: 'this is an ',
      suffix: ' that has some errors',
    });
    // Section 4.2.5: start is the position before the first character, end the one after the last.
    expect(text.slice(position.start, position.end)).toBe('anotation');
  });

  it('bounds the context, and cuts no surrogate pair', () => {
    const text = `${'🌊'.repeat(40)}marsh${'🌾'.repeat(40)}`;
    const { prefix, suffix } = describeTextAnchor(text, rangeOf(text, 'marsh')).quote;
    for (const context of [prefix, suffix]) {
      expect(context.length).toBeLessThanOrEqual(CONTEXT_LENGTH);
      expect(context).not.toMatch(LONE_SURROGATE);
    }
    const odd = `x${text}`;
    expect(describeTextAnchor(odd, rangeOf(odd, 'marsh')).quote.prefix).not.toMatch(LONE_SURROGATE);
  });

  it.each([
    [5, 5],
    [6, 5],
    [-1, 3],
    [0, TEXT.length + 1],
    [NaN, 3],
  ])('throws for the range %d to %d', (start, end) => {
    expect(() => describeTextAnchor(TEXT, { start, end })).toThrow(expect.objectContaining({ code: 'range-invalid' }));
  });
});

describe('matchTextAnchor', () => {
  it('finds every passage again in the same text, exactly', () => {
    fc.assert(
      fc.property(
        fc.string({ minLength: 1, maxLength: 200, unit: 'grapheme' }),
        fc.nat(),
        fc.nat(),
        (text, from, length) => {
          const start = from % text.length;
          const end = start + 1 + (length % (text.length - start));
          const anchor = describeTextAnchor(text, { start, end });
          expect(matchTextAnchor(text, anchor)).toEqual({ found: 'same', range: { start, end }, certainty: 'sure' });
          expect(matchTextAnchor(text, JSON.parse(JSON.stringify(anchor)))).toEqual({
            found: 'same',
            range: { start, end },
            certainty: 'sure',
          });
        },
      ),
      { seed: 1962 },
    );
  });

  it('follows a passage that moved', () => {
    const anchor = describeTextAnchor(TEXT, rangeOf(TEXT, 'three cuts'));
    const longer = `A new opening paragraph.\n${TEXT}`;
    expect(matchTextAnchor(longer, anchor)).toEqual({
      found: 'moved',
      range: rangeOf(longer, 'three cuts'),
      certainty: 'sure',
    });
  });

  it('tells repeated words apart by what stands around them', () => {
    const second = rangeOf(TEXT, 'the sluice', TEXT.indexOf('Re-opening'));
    const anchor = describeTextAnchor(TEXT, second);
    const [first, ...rest] = TEXT.split('\n') as [string, ...string[]];
    // The paragraphs change places, so that the old position now holds other words.
    const swapped = [...rest, first].join('\n');
    const match = matchTextAnchor(swapped, anchor);
    expect(match).toMatchObject({
      found: 'moved',
      range: rangeOf(swapped, 'the sluice', swapped.indexOf('Re-opening')),
    });
  });

  it('finds a passage again whose words were mended, and says by how much', () => {
    const anchor = describeTextAnchor(TEXT, rangeOf(TEXT, 'bring back the marsh within a few years'));
    const mended = TEXT.replace('within a few years', 'within eleven years');
    const match = matchTextAnchor(mended, anchor);
    expect(match.found).toBe('changed');
    if (match.found !== 'changed') return;
    const found = mended.slice(match.range.start, match.range.end);
    expect(found).toContain('bring back the marsh');
    expect(match.errors).toBe(distance(found, anchor.quote.exact));
  });

  it('says gone, and guesses nothing, when the passage was deleted', () => {
    const anchor = describeTextAnchor(TEXT, rangeOf(TEXT, 'Sediment supply is sufficient for this.'));
    expect(matchTextAnchor(TEXT.replace('Sediment supply is sufficient for this.', ''), anchor)).toEqual({
      found: 'gone',
    });
    expect(matchTextAnchor('', anchor)).toEqual({ found: 'gone' });
  });

  describe('on generated revisions of a text in which words come again', () => {
    // Sentences about the same few things, as in any report: each word of them stands in many.
    const THINGS = ['sluice', 'marsh', 'bank', 'creek', 'bed'];
    const DOES = ['was measured in', 'had risen since', 'will be cut by', 'lay under water until', 'was closed after'];
    const WHEN = ['the spring of 1987', 'the second storm', 'nobody’s leave', 'the last high tide', 'a dry summer'];
    const sentences = THINGS.flatMap((thing, one) =>
      DOES.map((does, other) => `In year ${one * 5 + other + 1} the ${thing} ${does} ${WHEN[(one + 2 * other) % 5]}.`),
    );
    const text = sentences.join(' ');
    const notes = sentences.map((sentence, index) => {
      const thing = THINGS[Math.floor(index / 5)] as string;
      const range = rangeOf(text, thing, text.indexOf(sentence));
      return { index, sentence, thing, anchor: describeTextAnchor(text, range) };
    });

    it('sits on the same word of another sentence for sure in no case, when its own was taken out', () => {
      const told = notes.map(({ index, anchor }) => {
        const match = matchTextAnchor(sentences.filter((_, at) => at !== index).join(' '), anchor);
        return match.found === 'gone' ? 'gone' : match.certainty;
      });
      expect(told).toHaveLength(25);
      expect(told.filter((one) => one === 'sure')).toEqual([]);
    });

    it('is found, and for sure, when sentences around it were mended, taken out or put elsewhere', () => {
      for (const { index, sentence, thing, anchor } of notes) {
        const mended = sentences.map((one, at) => (at === index ? one : one.replace('year', 'the year')));
        const alone = sentences.filter((_, at) => at === index || Math.abs(at - index) > 2);
        const turned = [...sentences].reverse();
        for (const revised of [mended, alone, turned]) {
          const now = revised.join(' ');
          const range = rangeOf(now, thing, now.indexOf(sentence));
          expect(matchTextAnchor(now, anchor)).toMatchObject({ range, certainty: 'sure' });
        }
      }
    });

    it('is found when a word beside it was changed', () => {
      for (const { index, sentence, thing, anchor } of notes) {
        const now = sentences.map((one, at) => (at === index ? one.replace(`the ${thing}`, `that ${thing}`) : one));
        const range = rangeOf(now.join(' '), thing, now.join(' ').indexOf(sentence.slice(0, 11)));
        expect(matchTextAnchor(now.join(' '), anchor)).toMatchObject({ range });
      }
    });
  });

  it('takes a whole sentence for itself wherever it stands, and half of one for perhaps itself', () => {
    const sentence = 'Sediment supply is sufficient for this.';
    const elsewhere = `Something else before it. ${sentence} And something else after.`;
    const whole = describeTextAnchor(TEXT, rangeOf(TEXT, sentence));
    expect(matchTextAnchor(elsewhere, whole)).toMatchObject({ found: 'moved', certainty: 'sure' });
    const half = describeTextAnchor(TEXT, rangeOf(TEXT, 'is sufficient'));
    expect(matchTextAnchor('Nothing at all is sufficient, they wrote.', half)).toMatchObject({ certainty: 'perhaps' });
    // Twice, with nothing around it that tells which.
    const twice = matchTextAnchor(`One. ${sentence} Two. ${sentence} Three.`, whole);
    expect(twice).toMatchObject({ certainty: 'perhaps' });
  });

  it('finds a whole section of several thousand letters by its ends', () => {
    const section = [...Array(60).keys()]
      .map((number) => `At stake ${number} the bed rose by ${number * 7} millimetres between the readings.`)
      .join(' ');
    const anchor = describeTextAnchor(`Before. ${section} After.`, rangeOf(`Before. ${section} After.`, section));
    const edited = `Before. ${section.replace('At stake 30 the bed', 'At stake 30 the old bed')} After.`;
    expect(matchTextAnchor(edited, anchor)).toMatchObject({
      found: 'changed',
      range: { start: 8, end: 8 + section.length + 4 },
      errors: 4,
    });
  });
});

describe('TextCollector', () => {
  const collect = (parts: ReadonlyArray<string | readonly [string]>) => {
    const collector = new TextCollector();
    const placed = parts.map((part) => (typeof part === 'string' ? collector.text(part) : collector.boundary(part[0])));
    return { text: collector.toString(), placed };
  };

  it('keeps words of neighbouring blocks apart, and leaves inline elements alone', () => {
    expect(collect([['h2'], 'Why', ['h2'], ['p'], 'The ', ['em'], 'bed', ['em'], ' rose.', ['p']]).text).toBe(
      'Why\nThe bed rose.',
    );
    expect(collect([['table'], '\n  ', ['td'], 'a', ['td'], '\n', ['td'], 'b', ['td']]).text).toBe('a\nb');
  });

  it('gives the same text however it is cut into runs', () => {
    const whole: Array<string | [string]> = [['p'], '  one two ', ['p'], ['p'], ' three', ['p']];
    const { text } = collect(whole);
    const cut = whole.flatMap((part): Array<string | [string]> => (typeof part === 'string' ? [...part] : [part]));
    expect(text).toBe('one two \nthree');
    expect(collect(cut).text).toBe(text);
  });

  it('says where each run lies', () => {
    expect(collect([['p'], '  one', ['p'], '  ', ['p'], ' two']).placed).toEqual([
      undefined,
      { start: 0, skip: 2 },
      undefined,
      null,
      undefined,
      { start: 4, skip: 1 },
    ]);
  });
});
