import { readFileSync } from 'node:fs';
import { Ajv2020 } from 'ajv/dist/2020.js';
import { EMPTY_FORM, type FormItem, type ReviewForm } from '../form/form.js';
import { readCaseRubric, writeCaseRubric } from './caseRubric.js';
import { readFormRows, writeFormRows } from './formCsv.js';
import { readFormFile, writeFormFile } from './formFile.js';
import { formLosses } from './losses.js';

let count = 0;
const makeId = () => `00000000-0000-4000-8000-${String((count += 1)).padStart(12, '0')}`;
const base = { guidance: 'Look closely.', required: true, weight: 2 };
const ITEMS: FormItem[] = [
  {
    ...base,
    kind: 'criterion',
    id: 'a',
    title: 'Evidence',
    comment: 'required',
    levels: [
      { id: 'a1', title: 'Claims only', description: '', points: 0 },
      { id: 'a2', title: 'All backed', description: 'Limits “stated”, too', points: 4.5 },
    ],
  },
  {
    ...base,
    kind: 'range',
    id: 'b',
    title: 'Whole',
    comment: 'none',
    step: 0.5,
    bands: [
      { id: 'b1', title: 'Weak', description: '', from: 0, to: 4 },
      { id: 'b2', title: 'Strong', description: '', from: 4.5, to: 10 },
    ],
  },
  {
    ...base,
    kind: 'checklist',
    id: 'c',
    title: 'There',
    comment: 'none',
    entries: [{ id: 'c1', text: 'A map', points: null }],
  },
  { ...base, kind: 'prompt', id: 'd', title: 'First?', minimumWords: 5 },
  { ...base, kind: 'pair', id: 'e', title: 'Argument', worksLabel: '', nextLabel: '', minimumWords: 0 },
  { ...base, kind: 'number', id: 'f', title: 'Sources', minimum: 0, maximum: null, whole: true, unit: 'sources' },
  {
    ...base,
    kind: 'choice',
    id: 'g',
    title: 'Fit',
    multiple: false,
    comment: 'optional',
    options: [
      { id: 'g1', title: 'Yes' },
      { id: 'g2', title: 'No' },
    ],
  },
];
const FORM: ReviewForm = {
  ...EMPTY_FORM,
  items: ITEMS,
  weighting: 'weights',
  overall: 'required',
  overallWords: 20,
  minimumNotes: 2,
  targetNotes: 4,
};
/** A form without its ids, to be compared. */
const bare = (form: ReviewForm | undefined) => writeFormFile({ title: '', form: form as ReviewForm })['form'];

describe('the form file', () => {
  it('gives back what was written, but for ids, which are new', () => {
    const text = JSON.stringify(writeFormFile({ title: 'All seven', form: FORM }));
    expect(text).not.toContain('"id"');
    const { found, problems, ignored } = readFormFile(JSON.parse(text), makeId);
    expect([problems, ignored, found?.title]).toEqual([[], [], 'All seven']);
    expect(bare(found?.form)).toEqual(bare(FORM));
    const ids = found?.form.items.map(({ id }) => id) ?? [];
    expect(new Set(ids).size).toBe(ITEMS.length);
  });

  it('is what the published JSON Schema says, and wrong files are not', () => {
    const schema = JSON.parse(
      readFileSync(`${__dirname}/../../../../docs/schemas/review-form.schema.json`, 'utf8'),
    ) as object;
    const fits = new Ajv2020({ strict: true, allErrors: true }).compile(schema);
    const file = writeFormFile({ title: 'All seven', form: FORM });
    expect([fits(file), fits.errors]).toEqual([true, null]);
    for (const wrong of [
      { ...file, version: 2 },
      { ...file, form: { items: [{ kind: 'essay', title: 'x' }] } },
      { ...file, title: 1 },
    ]) {
      expect(fits(wrong)).toBe(false);
      expect(readFormFile(wrong, makeId).problems.length).toBeGreaterThan(0);
    }
  });

  const wrong: Array<[string, unknown, Array<[string, string]>]> = [
    ['no file of ours', { hello: 1 }, [['wrong-format', 'format']]],
    ['a list', [], [['not-an-object', '']]],
    ['another version', { format: 'salt-circle/review-form', version: 7 }, [['wrong-version', 'version']]],
    [
      'several faults, all named',
      {
        format: 'salt-circle/review-form',
        version: 1,
        title: 'T',
        form: { items: [{ kind: 'criterion', title: 4, levels: [{ title: 'x', points: 'two' }] }, { kind: 'essay' }] },
      },
      [
        ['field-type', 'form.items.0.title'],
        ['field-type', 'form.items.0.levels.0.points'],
        ['kind-unknown', 'form.items.1.kind'],
      ],
    ],
  ];
  it.each(wrong)('refuses %s', (_, value, expected) => {
    expect(readFormFile(value, makeId).problems.map(({ code, path }) => [code, path.join('.')])).toEqual(expected);
  });

  it('says which fields it did not understand', () => {
    const file = { ...writeFormFile({ title: 'T', form: FORM }), colour: 'blue' };
    expect(readFormFile(file, makeId).ignored).toEqual(['colour']);
  });
});

describe('a CASE rubric', () => {
  const around = { makeId, changedAt: '2026-03-01T08:00:00Z', baseUri: 'https://salt-circle.example.org/case' };

  // Field names of 1EdTech CASE 1.1 (information model, CFRubric and its parts), from memory.
  it('has the standard’s fields, and names what has no place in it', () => {
    const { document, leftOut } = writeCaseRubric({ title: 'Proposal', form: FORM }, around);
    expect(leftOut.map(({ title }) => title)).toEqual(['There', 'First?', 'Argument', 'Sources', 'Fit']);
    const criteria = document['CFRubricCriteria'] as Array<Record<string, unknown>>;
    expect(Object.keys(document).sort()).toEqual([
      'CFRubricCriteria',
      'identifier',
      'lastChangeDateTime',
      'title',
      'uri',
    ]);
    expect(criteria[0]).toMatchObject({
      category: 'Evidence',
      description: 'Look closely.',
      weight: 2,
      position: 1,
      rubricId: document['identifier'],
    });
    const levels = criteria[0]?.['CFRubricCriterionLevels'] as Array<Record<string, unknown>>;
    expect(levels[1]).toMatchObject({
      quality: 'All backed',
      score: 4.5,
      position: 2,
      rubricCriterionId: criteria[0]?.['identifier'],
    });
    expect(levels[1]?.['uri']).toBe(`${around.baseUri}/CFRubricCriterionLevels/${String(levels[1]?.['identifier'])}`);
  });

  it('is read back as criteria, alone or in a package, by position', () => {
    const { document } = writeCaseRubric({ title: 'Proposal', form: { ...FORM, items: ITEMS.slice(0, 1) } }, around);
    const criteria = document['CFRubricCriteria'] as unknown[];
    const shuffled = { CFRubrics: [{ ...document, CFRubricCriteria: [...criteria].reverse() }] };
    const { found, problems } = readCaseRubric(JSON.parse(JSON.stringify(shuffled)), makeId);
    expect(problems).toEqual([]);
    expect(found).toMatchObject({
      title: 'Proposal',
      form: {
        items: [
          {
            kind: 'criterion',
            title: 'Evidence',
            guidance: 'Look closely.',
            weight: 2,
            levels: [{ points: 0 }, { points: 4.5 }],
          },
        ],
      },
    });
    expect(readCaseRubric({ CFItems: [] }, makeId).problems.map(({ code }) => code)).toEqual(['rubric-missing']);
    const broken = {
      CFRubricCriteria: [{ category: 'A', CFRubricCriterionLevels: [{ quality: 'x', score: 'many' }] }],
    };
    expect(readCaseRubric(broken, makeId).problems).toMatchObject([
      { code: 'field-type', path: ['CFRubricCriteria', 0, 'CFRubricCriterionLevels', 0, 'score'] },
    ]);
  });
});

describe('what a file leaves out of a form', () => {
  it('is told by item and by setting', () => {
    expect(formLosses(FORM, 'csv')).toEqual({
      items: ['Whole', 'There', 'Argument', 'Sources', 'Fit'],
      settings: ['guidance', 'comment', 'weight', 'minimum-words', 'overall', 'notes', 'score-by-weights'],
    });
    const { items, settings } = formLosses(FORM, 'case');
    expect(items).toEqual(['There', 'First?', 'Argument', 'Sources', 'Fit']);
    expect(settings).toEqual(expect.arrayContaining(['kind', 'overall', 'notes', 'score-by-weights']));
  });

  it('is nothing for a form that the file can hold, also where two items are called the same', () => {
    const [criterion] = ITEMS;
    const plain = { ...criterion, guidance: '', comment: 'optional' } as FormItem;
    const same = { ...EMPTY_FORM, items: [plain, { ...ITEMS[2], title: plain.title } as FormItem] };
    expect(formLosses({ ...EMPTY_FORM, items: [plain] }, 'csv')).toEqual({ items: [], settings: [] });
    expect(formLosses(same, 'csv')).toEqual({ items: [plain.title], settings: [] });
  });
});

describe('a form in a spreadsheet', () => {
  it('is written and read back, criteria and prompts', () => {
    const { rows, leftOut } = writeFormRows({ title: 'T', form: FORM });
    expect(leftOut.map(({ title }) => title)).toEqual(['Whole', 'There', 'Argument', 'Sources', 'Fit']);
    const { found, problems } = readFormRows(rows, 'T', makeId);
    expect(problems).toEqual([]);
    expect(found?.form.items).toMatchObject([
      {
        kind: 'criterion',
        title: 'Evidence',
        levels: [
          { title: 'Claims only', points: 0 },
          { title: 'All backed', points: 4.5 },
        ],
      },
      { kind: 'prompt', title: 'First?', guidance: 'Look closely.' },
    ]);
  });

  it('takes columns in any order, points as people type them, and a name in the first row only', () => {
    const { found } = readFormRows(
      [
        ['Score', 'Criteria', 'Rating'],
        ['1,5 points', 'Order', 'Lost'],
        ['4 pts', '', 'Clear'],
      ],
      'T',
      makeId,
    );
    expect(found?.form.items).toMatchObject([{ title: 'Order', levels: [{ points: 1.5 }, { points: 4 }] }]);
  });

  it('names the row of what makes no sense', () => {
    const { problems } = readFormRows(
      [
        ['criterion', 'level', 'points'],
        ['', 'Lost', '1'],
        ['Order', 'Clear', 'four'],
        ['', '', ''],
      ],
      'T',
      makeId,
    );
    expect(problems.map(({ code, facts }) => [code, facts['row']])).toEqual([
      ['row-without-criterion', 2],
      ['points-not-a-number', 3],
    ]);
    expect(
      readFormRows(
        [
          ['criterion', 'points'],
          ['a', '1'],
        ],
        'T',
        makeId,
      ).problems,
    ).toMatchObject([{ facts: { column: 'level' } }]);
  });
});
