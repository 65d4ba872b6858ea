import { checkDates, checkForm, completeness, EMPTY_FORM, NO_DATES, REFUSALS, type FormItem } from '@salt-circle/core';
import { dateInWords, dateProblem, formProblem, invalid, missingProblem, refusal } from './sentences.js';

const at = (day: number, hour = 12) => Date.UTC(2026, 2, day, hour);

describe('sentences', () => {
  it('exist for every refusal, say what is the case and what to do, and end properly', () => {
    const said = new Set<string>();
    for (const code of REFUSALS) {
      const { problem, status } = refusal(code);
      expect(problem.sentence).toMatch(/^[A-Z].*[.]$/);
      expect(problem.whatToDo).toMatch(/^[A-Z].*[.]$/);
      expect(status).toBeGreaterThanOrEqual(400);
      expect(status).toBeLessThan(500);
      said.add(problem.sentence);
    }
    // Each for a reason of its own: two that say the same would leave somebody without the right way on.
    expect(said.size).toBe(REFUSALS.length);
  });

  it('name both dates of a clash, and two ways out', () => {
    const dates = {
      ...NO_DATES,
      draftsOpen: at(2),
      draftsDue: at(12),
      reviewsOpen: null,
      reviewsDue: at(20),
      release: at(15),
    };
    const [problem] = checkDates(dates, true).map((one) => dateProblem(one, 'Europe/Tallinn'));
    expect(problem).toEqual({
      path: 'dates.release',
      code: 'date-order',
      sentence:
        '“Release” (Sun 15 Mar 2026, 14:00 EET) must not be before “Reviews due” (Fri 20 Mar 2026, 14:00 EET). Move “Release” later, or “Reviews due” earlier.',
    });
  });

  it('name the date that is missing, or is not of this world', () => {
    const dates = {
      ...NO_DATES,
      draftsOpen: null,
      draftsDue: Date.UTC(206, 1, 1),
      reviewsOpen: null,
      reviewsDue: at(20),
      release: null,
    };
    expect(checkDates(dates, true).map((one) => dateProblem(one, 'UTC').sentence)).toEqual([
      '“Drafts open” has no date. Choose one.',
      '“Drafts due” is not in this century. Check the year.',
    ]);
  });

  it('give dates in the time of the course, summer time included', () => {
    expect(dateInWords(at(12, 22), 'Europe/Tallinn')).toBe('Fri 13 Mar 2026, 00:00 EET');
    expect(dateInWords(Date.UTC(2026, 6, 1), 'Europe/Tallinn')).toBe('Wed 1 Jul 2026, 03:00 EEST');
    expect(dateInWords(at(12, 22), 'America/New_York')).toContain('Thu 12 Mar 2026, 18:00');
  });

  it('name the item and the level of a form that cannot be used', () => {
    const level = (id: string, points: number | null, title = id) => ({ id, title, description: '', points });
    const items: FormItem[] = [
      {
        kind: 'criterion',
        id: 'a',
        title: 'Evidence',
        guidance: '',
        required: true,
        weight: 1,
        comment: 'none',
        levels: [level('1', 1), level('2', null, '')],
      },
      {
        kind: 'criterion',
        id: 'b',
        title: '',
        guidance: '',
        required: true,
        weight: 1,
        comment: 'none',
        levels: [level('1', -1)],
      },
      { kind: 'prompt', id: 'b', title: 'Why', guidance: '', required: true, weight: 1, minimumWords: 1.5 },
    ];
    expect(checkForm({ ...EMPTY_FORM, items }).map((one) => formProblem(one))).toEqual([
      { path: 'items.0.levels.1', code: 'level-untitled', sentence: 'Item 1 “Evidence”: level 2 has no name.' },
      {
        path: 'items.0.levels',
        code: 'mixed-points',
        sentence: 'Item 1 “Evidence” has parts with points and parts without. Give points to all of them, or to none.',
      },
      {
        path: 'items.1.title',
        code: 'item-untitled',
        sentence: 'Item 2 has no title. Reviewers need to know what it asks.',
      },
      {
        path: 'items.1.levels',
        code: 'levels-too-few',
        sentence: 'Item 2 needs at least two levels, or there is nothing to choose.',
      },
      {
        path: 'items.1.levels.0.points',
        code: 'points-invalid',
        sentence: 'Item 2: the points of part 1 must be from 0 to 1000, in steps of a tenth.',
      },
      {
        path: 'items.2.id',
        code: 'item-duplicate',
        sentence: 'Two parts of the form have the same id. Remove one of them and add it again.',
      },
      {
        path: 'items.2.minimumWords',
        code: 'words-invalid',
        sentence: 'Item 3: the least number of words must be a whole number from 0 to 2000.',
      },
    ]);
    expect(checkForm({ ...EMPTY_FORM, items: [] }).map((one) => formProblem(one).sentence)).toEqual([
      'The form asks for nothing. Add an item, require an overall comment, or ask for notes.',
    ]);
  });

  it('say what a review lacks, item by item', () => {
    const items: FormItem[] = [
      {
        kind: 'criterion',
        id: 'a',
        title: 'Evidence',
        guidance: '',
        required: true,
        weight: 1,
        comment: 'required',
        levels: [],
      },
      { kind: 'prompt', id: 'b', title: 'Why', guidance: '', required: true, weight: 1, minimumWords: 0 },
      { kind: 'prompt', id: 'c', title: 'How', guidance: '', required: true, weight: 1, minimumWords: 5 },
    ];
    const form = { ...EMPTY_FORM, items };
    const { missing } = completeness(form, { c: { text: 'two words' } }, 0);
    expect(missing.map((one) => missingProblem(one, form).sentence)).toEqual([
      '“Evidence”: choose a level.',
      '“Evidence”: say in a few words why.',
      '“Why” has no answer.',
      '“How” has 2 of at least 5 words.',
    ]);
  });

  it('give one problem in its own words, and several by their number', () => {
    const field = (sentence: string) => ({ path: 'x', code: 'y', sentence });
    expect(invalid([field('The title is empty.')]).problem.sentence).toBe('The title is empty.');
    expect(invalid([field('A.'), field('B.')]).problem.sentence).toBe('2 things need mending before this can be kept.');
  });
});
