import { countWords } from '../text/words.js';
import { checkForm } from './checkForm.js';
import { completeness } from './completeness.js';
import type { CriterionItem, PromptItem, ReviewForm } from './form.js';
import { formMaximum, formScore } from './score.js';

const criterion = (id: string, points: Array<number | null>, part: Partial<CriterionItem> = {}): CriterionItem => ({
  kind: 'criterion',
  id,
  title: id,
  guidance: '',
  required: true,
  comment: 'optional',
  levels: points.map((value, index) => ({
    id: `${id}${index}`,
    title: `level ${index}`,
    description: '',
    points: value,
  })),
  ...part,
});
const prompt = (id: string, part: Partial<PromptItem> = {}): PromptItem => ({
  kind: 'prompt',
  id,
  title: id,
  guidance: '',
  required: true,
  minimumWords: 0,
  ...part,
});
const form = (...items: ReviewForm['items']): ReviewForm => ({ items });

describe('countWords', () => {
  const cases: Array<[string, number]> = [
    ['', 0],
    [' … — !', 0],
    ['It’s great', 2],
    ["don't", 1],
    ['salt-marsh creek', 2],
    ['3.5 cm in 1,200 plots', 5],
    ['naïve Ægir Żółć', 3],
    ['end.Next', 1],
    ['盐沼', 2],
    ['soir\u00a0: brume\nmatin', 3],
  ];
  it.each(cases)('%j has %i words', (text, count) => {
    expect(countWords(text)).toBe(count);
  });

  // The reference: word boundaries of Unicode UAX #29 as ICU has them, on prose where both should agree.
  it('agrees with the Unicode word boundaries on plain prose', () => {
    const prose = [
      'The western basin lost its creek network when the sluice was fixed shut in 1987.',
      "We can't tell, and nobody else can; Ursula's map (1962) isn't to scale.",
      'Le marais s’étend vers l’est, où l’on pêche encore.',
      'Соль и вода. Der Deich hält, noch.',
    ];
    expect(prose.length).toBeGreaterThan(0);
    for (const text of prose) {
      const words = [...new Intl.Segmenter('en', { granularity: 'word' }).segment(text)].filter(
        ({ isWordLike }) => isWordLike === true,
      );
      expect([text, countWords(text)]).toEqual([text, words.length]);
    }
  });
});

describe('checkForm', () => {
  it('accepts a form that can be used', () => {
    expect(
      checkForm(form(criterion('a', [0, 2]), criterion('b', [null, null]), prompt('c', { minimumWords: 20 }))),
    ).toEqual([]);
  });

  const wrong: Array<[string, ReviewForm, string, Array<string | number>]> = [
    ['no items', form(), 'form-empty', ['items']],
    ['no title', form(prompt('a', { title: '  ' })), 'item-untitled', ['items', 0, 'title']],
    ['one id twice', form(prompt('a'), prompt('a')), 'item-duplicate', ['items', 1, 'id']],
    ['one level', form(criterion('a', [1])), 'levels-too-few', ['items', 0, 'levels']],
    ['points on some levels only', form(criterion('a', [0, null, 2])), 'levels-mixed-points', ['items', 0, 'levels']],
    ['negative points', form(criterion('a', [0, -1])), 'points-invalid', ['items', 0, 'levels', 1, 'points']],
    ['huge points', form(criterion('a', [0, 1e9])), 'points-invalid', ['items', 0, 'levels', 1, 'points']],
    [
      'points that are no number',
      form(criterion('a', [0, NaN])),
      'points-invalid',
      ['items', 0, 'levels', 1, 'points'],
    ],
    ['hundredths of points', form(criterion('a', [0, 0.25])), 'points-invalid', ['items', 0, 'levels', 1, 'points']],
    ['half a word', form(prompt('a', { minimumWords: 0.5 })), 'words-invalid', ['items', 0, 'minimumWords']],
  ];
  it.each(wrong)('%s', (_, given, code, path) => {
    expect(checkForm(given).map((one) => [one.code, one.path])).toEqual([[code, path]]);
  });
});

describe('completeness', () => {
  const asked = form(
    criterion('level', [0, 2], { comment: 'required' }),
    prompt('why', { minimumWords: 5 }),
    prompt('more', { required: false, minimumWords: 3 }),
  );

  it('counts each required thing, and says what is missing', () => {
    const state = completeness(asked, {});
    expect(state).toMatchObject({ required: 3, answered: 0, complete: false, begun: false });
    expect(state.missing.map(({ itemId, what }) => `${itemId} ${what}`)).toEqual([
      'level level',
      'level comment',
      'why text',
    ]);
  });

  // Common practice: a five-word minimum keeps a question from being skipped.
  it('takes four words for too few where five are asked, and says how many', () => {
    const state = completeness(asked, { why: { text: 'it is very great' } });
    expect(state.missing).toContainEqual({ itemId: 'why', what: 'words', have: 4, need: 5 });
    expect(
      completeness(asked, { why: { text: 'it is very great indeed' } }).missing.map(({ itemId }) => itemId),
    ).not.toContain('why');
  });

  it('does not take dots for an answer', () => {
    expect(completeness(form(prompt('a')), { a: { text: '...' } }).complete).toBe(false);
  });

  it('binds the minimum of an optional prompt once something is written in it', () => {
    const rest = { level: { levelId: 'level1', text: 'because' }, why: { text: 'one two three four five' } };
    expect(completeness(asked, rest).complete).toBe(true);
    expect(completeness(asked, { ...rest, more: { text: 'two words' } })).toMatchObject({
      complete: false,
      required: 4,
      answered: 3,
    });
  });

  it('does not take a level of another form for an answer', () => {
    expect(completeness(form(criterion('a', [0, 1])), { a: { levelId: 'elsewhere' } }).complete).toBe(false);
  });
});

describe('formScore', () => {
  it('adds the points of the chosen levels, out of the most there can be', () => {
    const given = form(criterion('a', [0, 3, 8]), criterion('b', [1, 6]), criterion('c', [null, null]), prompt('d'));
    expect(formMaximum(given)).toBe(14);
    expect(formScore(given, { a: { levelId: 'a1' } })).toEqual({ points: 3, ofAnswered: 8, of: 14 });
    expect(formScore(given, { a: { levelId: 'a2' }, b: { levelId: 'b0' }, c: { levelId: 'c1' } })).toEqual({
      points: 9,
      ofAnswered: 14,
      of: 14,
    });
  });

  it('adds tenths without the traces of binary fractions', () => {
    const tenths = form(criterion('a', [0, 0.1]), criterion('b', [0, 0.2]));
    expect(formScore(tenths, { a: { levelId: 'a1' }, b: { levelId: 'b1' } })).toEqual({
      points: 0.3,
      ofAnswered: 0.3,
      of: 0.3,
    });
  });

  it('gives no score, rather than 0, where nothing carries points', () => {
    expect(formMaximum(form(prompt('a')))).toBeNull();
    expect(formScore(form(criterion('a', [null, null])), {})).toBeNull();
  });
});
