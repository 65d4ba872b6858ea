import fc from 'fast-check';
import { countWords } from '../text/words.js';
import { checkForm } from './checkForm.js';
import { completeness } from './completeness.js';
import {
  EMPTY_FORM,
  type Answers,
  type CriterionItem,
  type FormItem,
  type NumberItem,
  type PromptItem,
  type RangeItem,
  type ReviewForm,
} from './form.js';
import { bandOf, formMaximum, formScore, itemPoints, weightSum, type FormScore } from './score.js';
import { scoreWords } from './scoreWords.js';
import { valueFault } from './value.js';

const criterion = (id: string, points: Array<number | null>, part: Partial<CriterionItem> = {}): CriterionItem => ({
  kind: 'criterion',
  id,
  title: id,
  guidance: '',
  required: true,
  weight: 1,
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
  weight: 1,
  minimumWords: 0,
  ...part,
});
const form = (...items: ReviewForm['items']): ReviewForm => ({ ...EMPTY_FORM, items });
const base = (id: string) => ({ id, title: id, guidance: '', required: true, weight: 1, comment: 'optional' as const });
const band = (from: number, to: number) => ({ id: `b${from}`, title: `${from} to ${to}`, description: '', from, to });
const range = (id: string, ...bands: Array<ReturnType<typeof band>>): FormItem => ({
  ...base(id),
  kind: 'range',
  bands,
  step: 0.5,
});
const checklist = (id: string, points: Array<number | null>): FormItem => ({
  ...base(id),
  kind: 'checklist',
  entries: points.map((value, index) => ({ id: `${id}${index}`, text: `entry ${index}`, points: value })),
});
const pair = (id: string, required = true): FormItem => ({
  ...base(id),
  required,
  kind: 'pair',
  worksLabel: '',
  nextLabel: '',
  minimumWords: 3,
});
const number = (id: string, minimum: number | null, maximum: number | null): NumberItem => ({
  ...base(id),
  kind: 'number',
  minimum,
  maximum,
  whole: true,
  unit: '',
});
const choice = (id: string, count: number): FormItem => ({
  ...base(id),
  kind: 'choice',
  multiple: true,
  options: Array.from({ length: count }, (_, index) => ({ id: `${id}${index}`, title: `option ${index}` })),
});
const complete = (given: ReviewForm, answers: Answers, notes = 0) => completeness(given, answers, notes);

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
    ['points on some levels only', form(criterion('a', [0, null, 2])), 'mixed-points', ['items', 0, 'levels']],
    ['negative points', form(criterion('a', [0, -1])), 'points-invalid', ['items', 0, 'levels', 1, 'points']],
    ['huge points', form(criterion('a', [0, 1e9])), 'points-invalid', ['items', 0, 'levels', 1, 'points']],
    [
      'points that are no number',
      form(criterion('a', [0, NaN])),
      'points-invalid',
      ['items', 0, 'levels', 1, 'points'],
    ],
    ['hundredths of points', form(criterion('a', [0, 0.25])), 'points-invalid', ['items', 0, 'levels', 1, 'points']],
    ['bands that share a point', form(range('a', band(0, 4), band(4, 8))), 'bands-overlap', ['items', 0, 'bands', 1]],
    ['a band the wrong way round', form(range('a', band(4, 0))), 'band-reversed', ['items', 0, 'bands', 0]],
    ['a range without bands', form(range('a')), 'bands-too-few', ['items', 0, 'bands']],
    ['an empty checklist', form(checklist('a', [])), 'entries-too-few', ['items', 0, 'entries']],
    ['points on some entries', form(checklist('a', [1, null])), 'mixed-points', ['items', 0, 'entries']],
    ['a choice of one', form(choice('a', 1)), 'options-too-few', ['items', 0, 'options']],
    ['bounds the wrong way round', form(number('a', 5, 1)), 'bounds-reversed', ['items', 0, 'minimum']],
    [
      'weights that sum to zero',
      { ...form(criterion('a', [0, 1], { weight: 0 })), weighting: 'weights' },
      'weights-zero',
      ['weighting'],
    ],
    ['a negative weight', form(criterion('a', [0, 1], { weight: -1 })), 'weight-invalid', ['items', 0, 'weight']],
    [
      'a target of notes below the minimum',
      { ...form(prompt('a')), minimumNotes: 3, targetNotes: 2 },
      'target-below-minimum',
      ['targetNotes'],
    ],
    ['an id that is the overall comment’s', form(prompt('overall')), 'item-duplicate', ['items', 0, 'id']],
    ['half a word', form(prompt('a', { minimumWords: 0.5 })), 'words-invalid', ['items', 0, 'minimumWords']],
  ];
  it('accepts a form of notes and an overall comment alone, without any points', () => {
    expect(checkForm({ ...EMPTY_FORM, overall: 'required' })).toEqual([]);
    expect(checkForm({ ...EMPTY_FORM, minimumNotes: 3 })).toEqual([]);
    expect(checkForm({ ...EMPTY_FORM, overall: 'none' }).map(({ code }) => code)).toEqual(['form-empty']);
  });

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
    const state = complete(asked, {});
    expect(state).toMatchObject({ required: 3, answered: 0, complete: false, begun: false });
    expect(state.missing.map(({ itemId, what }) => `${itemId} ${what}`)).toEqual([
      'level level',
      'level comment',
      'why text',
    ]);
  });

  // Common practice: a five-word minimum keeps a question from being skipped.
  it('takes four words for too few where five are asked, and says how many', () => {
    const state = complete(asked, { why: { text: 'it is very great' } });
    expect(state.missing).toContainEqual({ itemId: 'why', what: 'words', have: 4, need: 5 });
    expect(
      complete(asked, { why: { text: 'it is very great indeed' } }).missing.map(({ itemId }) => itemId),
    ).not.toContain('why');
  });

  it('does not take dots for an answer', () => {
    expect(complete(form(prompt('a')), { a: { text: '...' } }).complete).toBe(false);
  });

  it('binds the minimum of an optional prompt once something is written in it', () => {
    const rest = { level: { levelId: 'level1', text: 'because' }, why: { text: 'one two three four five' } };
    expect(complete(asked, rest).complete).toBe(true);
    expect(complete(asked, { ...rest, more: { text: 'two words' } })).toMatchObject({
      complete: false,
      required: 4,
      answered: 3,
    });
  });

  it('does not take a level of another form for an answer', () => {
    expect(complete(form(criterion('a', [0, 1])), { a: { levelId: 'elsewhere' } }).complete).toBe(false);
  });
});

describe('completeness of each kind', () => {
  const cases: Array<[string, FormItem, Answers[string], string[]]> = [
    ['a range without a value', range('a', band(0, 4), band(5, 8)), {}, ['value']],
    ['a range with a value beyond its bands', range('a', band(0, 4)), { value: 9 }, ['value']],
    ['a range with a value', range('a', band(0, 4)), { value: 0 }, []],
    ['a checklist half looked at', checklist('a', [1, 1]), { checks: { a0: 'no' } }, ['checks']],
    ['a checklist of which one cannot tell', checklist('a', [1, 1]), { checks: { a0: 'no', a1: 'cannot-tell' } }, []],
    ['a checklist of nothing but no', checklist('a', [1, 1]), { checks: { a0: 'no', a1: 'no' } }, []],
    ['half a pair', pair('a'), { text: 'three words here' }, ['next']],
    ['a pair with a thin half', pair('a'), { text: 'three words here', next: 'more' }, ['next-words']],
    ['half of an optional pair', pair('a', false), { next: 'say more here' }, ['text']],
    ['an optional pair left out', pair('a', false), {}, []],
    ['a number that is not whole', number('a', 1, 5), { value: 2.5 }, ['value']],
    ['a number out of bounds', number('a', 1, 5), { value: 6 }, ['value']],
    ['a choice of an option that is gone', choice('a', 2), { choices: ['gone'] }, ['choice']],
    ['a choice of two', choice('a', 2), { choices: ['a0', 'a1'] }, []],
  ];
  it.each(cases)('%s', (_, item, answer, missing) => {
    const state = complete(form(item), { a: answer });
    expect(state.missing.map(({ what }) => what)).toEqual(missing);
    expect(state.complete).toBe(missing.length === 0);
  });

  it('counts the overall comment and the notes among the required things', () => {
    const given: ReviewForm = { ...EMPTY_FORM, overall: 'required', overallWords: 4, minimumNotes: 2 };
    expect(complete(given, {}, 0).missing).toEqual([
      { itemId: 'overall', what: 'text', have: 0, need: 4 },
      { itemId: '', what: 'notes', have: 0, need: 2 },
    ]);
    expect(complete(given, { overall: { text: 'too short' } }, 1)).toMatchObject({
      required: 2,
      answered: 0,
      begun: true,
    });
    expect(complete(given, { overall: { text: 'long enough by now' } }, 2).complete).toBe(true);
    expect(complete({ ...given, overall: 'optional', minimumNotes: 0 }, {}, 0)).toMatchObject({
      required: 0,
      begun: false,
    });
  });
});

describe('scores of all kinds', () => {
  // Worked by hand, as a teacher adds up a rubric (common practice): 3 of 4 for the claim, 6.5 of 8 within the upper
  // band, two of three things there at 2 points each: 3 + 6.5 + 4 = 13.5 of 18, which is 75 percent.
  const rubric = form(
    criterion('claim', [1, 2, 3, 4]),
    range('quality', band(0, 3), band(3.5, 6), band(6.5, 8)),
    checklist('there', [2, 2, 2]),
    prompt('why'),
    number('sources', 0, null),
  );
  const answers: Answers = {
    claim: { levelId: 'claim2' },
    quality: { value: 6.5 },
    there: { checks: { there0: 'yes', there1: 'no', there2: 'yes' } },
    sources: { value: 12 },
  };

  it('adds up, partial credit included', () => {
    const score = formScore(rubric, answers) as FormScore;
    expect(score).toEqual({ points: 13.5, ofAnswered: 18, of: 18, percent: 75 });
    expect(scoreWords(rubric, score)).toBe('13.5 of 18 points');
  });

  // By hand: weights 50, 30 and 20 of 100; 0.5 × 3/4 + 0.3 × 6.5/8 + 0.2 × 4/6 = 0.375 + 0.24375 + 0.13333…
  it('weighs each share of its own maximum, where the form goes by weights', () => {
    const [claim, quality, there] = rubric.items as [FormItem, FormItem, FormItem];
    const weighted: ReviewForm = {
      ...rubric,
      weighting: 'weights',
      items: [{ ...claim, weight: 50 }, { ...quality, weight: 30 }, { ...there, weight: 20 }, prompt('why')],
    };
    expect(weightSum(weighted)).toBe(100);
    const score = formScore(weighted, answers) as FormScore;
    expect(score.percent).toBeCloseTo(75.2083, 4);
    expect(scoreWords(weighted, score)).toBe('75 percent, by weight');
  });

  it('gives no points for a checklist that is half looked at, nor for a value beyond the bands', () => {
    expect(itemPoints(checklist('a', [1, 1]), { checks: { a0: 'yes' } })).toBeNull();
    expect(itemPoints(checklist('a', [1, 1]), { checks: { a0: 'yes', a1: 'cannot-tell' } })).toBe(1);
    expect(itemPoints(range('a', band(0, 4)), { value: 5 })).toBeNull();
  });

  it('finds the band of a value, the lower one in a gap', () => {
    const item = range('a', band(0, 3), band(4, 6));
    if (item.kind !== 'range') throw new Error('not a range');
    expect([0, 3, 3.5, 4, 6, 7].map((value) => bandOf(item, value)?.from ?? null)).toEqual([0, 0, 0, 4, 4, null]);
  });
});

describe('formScore', () => {
  it('adds the points of the chosen levels, out of the most there can be', () => {
    const given = form(criterion('a', [0, 3, 8]), criterion('b', [1, 6]), criterion('c', [null, null]), prompt('d'));
    expect(formMaximum(given)).toBe(14);
    expect(formScore(given, { a: { levelId: 'a1' } })).toMatchObject({ points: 3, ofAnswered: 8, of: 14 });
    expect(formScore(given, { a: { levelId: 'a2' }, b: { levelId: 'b0' }, c: { levelId: 'c1' } })).toMatchObject({
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
      percent: 100,
    });
  });

  it('gives no score, rather than 0, where nothing carries points', () => {
    expect(formMaximum(form(prompt('a')))).toBeNull();
    expect(formScore(form(criterion('a', [null, null])), {})).toBeNull();
  });
});

describe('numbers as answers', () => {
  const points = range('a', band(0, 10), band(10, 20)) as RangeItem;

  it('are any that steps lead to, and nothing between them or beyond the bounds', () => {
    fc.assert(
      fc.property(fc.constantFrom(1, 0.5, 0.1), fc.integer({ min: 0, max: 200 }), (step, count) => {
        const value = Number((count * step).toFixed(1));
        expect(valueFault({ ...points, step }, value)).toBe(value <= 20 ? null : 'too-large');
        expect(valueFault({ ...points, step }, value + step / 2)).not.toBeNull();
      }),
      { seed: 1962 },
    );
    expect([15.3, -0.5, 20.5].map((value) => valueFault(points, value))).toEqual([
      'between-steps',
      'too-small',
      'too-large',
    ]);
  });

  it('are reached by steps from the least, and the most is one in any case', () => {
    const odd = { ...range('a', band(0.3, 5)), step: 0.5 } as RangeItem;
    expect([0.3, 0.8, 1, 5].map((value) => valueFault(odd, value))).toEqual([null, null, 'between-steps', null]);
  });

  it('that answer nothing are neither done nor points', () => {
    for (const [item, value] of [
      [points, 15.3],
      [number('b', 1, 5), 2.5],
      [number('b', 1, 5), 6],
    ] as const) {
      const answers = { [item.id]: { value } };
      expect(completeness(form(item), answers, 0).complete).toBe(false);
      expect(itemPoints(item, answers[item.id])).toBeNull();
    }
  });
});
