import type { GradeRow, GradesView, GradingWorkView, QueueView } from '@salt-circle/contracts';
import { USUAL_GRADE_RULE, type Flag } from '@salt-circle/core';
import { asked, gradedOf, isOf, ordered, workWords } from './work.js';

const work = (state: GradingWorkView['state'], part: Partial<GradingWorkView> = {}): GradingWorkView => ({
  ...{ state, by: null, grader: null },
  ...part,
});
const row = (id: string, draft: GradingWorkView['state'], reviewing: GradingWorkView['state']): GradeRow =>
  ({ id, reviewIds: [`of ${id}`], work: { draft: work(draft), reviewing: work(reviewing) } }) as unknown as GradeRow;
const BOTH = ['draft', 'reviewing'] as const;

describe('what there is to grade', () => {
  it('is what the grade rests on, and both before anything is planned', () => {
    const of = (parts: GradesView['parts'], mark = 1) =>
      asked({ parts, rule: { ...USUAL_GRADE_RULE, quality: { ...USUAL_GRADE_RULE.quality, mark } } });
    expect(of([{ part: 'instructor-mark', weight: 1 }])).toEqual(['draft']);
    expect(of([{ part: 'review-quality', weight: 1 }])).toEqual(['reviewing']);
    expect(of([{ part: 'review-quality', weight: 1 }], 0)).toEqual(BOTH);
    expect(of([])).toEqual(BOTH);
  });

  it.each([
    ['done', 'done', 'graded'],
    ['done', 'none', 'graded'],
    ['done', 'open', 'half'],
    ['half', 'open', 'half'],
    ['open', 'open', 'open'],
    ['none', 'open', 'open'],
    ['none', 'none', 'nothing'],
  ] as const)('with a draft that is %s and reviewing that is %s: %s', (draft, reviewing, graded) => {
    expect(gradedOf(row('a', draft, reviewing), BOTH)).toBe(graded);
  });

  it('is somebody’s where it was given to them, of what is asked for', () => {
    const shared = { work: { draft: work('open', { grader: { id: 'ines', name: 'Ines' } }), reviewing: work('open') } };
    expect([isOf(shared, BOTH, 'ines'), isOf(shared, ['reviewing'], 'ines'), isOf(shared, BOTH, 'tom')]).toEqual([
      true,
      false,
      false,
    ]);
  });

  it('is said in words', () => {
    const grader = { id: 'tom', name: 'Tomasz Wilk' };
    expect([
      workWords(work('none')),
      workWords(work('open', { grader })),
      workWords(work('half', { by: 'Ines', grader })),
      workWords(work('done', { by: 'Ines', grader })),
    ]).toEqual(['nothing to grade', 'to grade, for Tomasz Wilk', 'begun by Ines, for Tomasz Wilk', 'graded by Ines']);
  });
});

describe('the order in which one goes along', () => {
  const ROWS = [row('a', 'done', 'done'), row('b', 'open', 'open'), row('c', 'done', 'open'), row('d', 'none', 'none')];
  const ids = (rows: readonly GradeRow[]) => rows.map(({ id }) => id).join('');
  const flag = (of: string, flags: Array<readonly [Flag, boolean]>) => ({
    ...{ reviewId: `of ${of}` },
    flags: flags.map(([one, dismissed]) => ({ flag: one, dismissed, key: one.code, other: null })),
  });
  const queue = {
    rows: [
      flag('a', [[{ code: 'few-words', words: 3, usual: 100 }, false]]),
      flag('c', [[{ code: 'harsh', exact: 'rubbish' }, false]]),
      // Somebody has said that it is none.
      flag('b', [[{ code: 'harsh', exact: 'rubbish' }, true]]),
    ],
  } as unknown as QueueView;

  it('is by name, by what is open, or by the worst flag that stands', () => {
    expect(ids(ordered(ROWS, 'name', BOTH, queue))).toBe('abcd');
    expect(ids(ordered(ROWS, 'open', BOTH, queue))).toBe('bcad');
    expect(ids(ordered(ROWS, 'flag', BOTH, queue))).toBe('cabd');
    expect(ids(ordered(ROWS, 'flag', BOTH, undefined))).toBe('abcd');
  });
});
