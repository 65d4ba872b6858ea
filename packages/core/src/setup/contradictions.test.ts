import { EMPTY_FORM, type ReviewForm } from '../form/form.js';
import type { LateRule } from '../timeline/late.js';
import { contradictions, type Planned } from './contradictions.js';

const late: LateRule = { amount: 2, unit: 'points', per: 'day', cap: null, graceMinutes: 0 };
const criterion = (...points: Array<number | null>): ReviewForm['items'][number] => ({
  id: 'c',
  kind: 'criterion',
  title: 'Evidence',
  guidance: '',
  weight: 1,
  levels: points.map((one, index) => ({ id: `l${index}`, title: `Level ${index}`, description: '', points: one })),
  comment: 'none',
  required: true,
});
const range = (...bands: Array<readonly [number, number]>): ReviewForm['items'][number] => ({
  id: 'r',
  kind: 'range',
  title: 'Method',
  guidance: '',
  weight: 1,
  step: 1,
  bands: bands.map(([from, to], index) => ({ id: `b${index}`, title: `Band ${index}`, description: '', from, to })),
  comment: 'none',
  required: true,
});
const form = (...items: ReviewForm['items']): ReviewForm => ({ ...EMPTY_FORM, items });
const grade = [{ part: 'peer-score', weight: 1 }] as const;
const SOUND: Planned = {
  late: null,
  gradeParts: grade,
  form: form(criterion(0, 2)),
  hasReplies: false,
  hasRevision: false,
};

describe('settings that do not go together', () => {
  const cases: Array<[what: string, part: Partial<Planned>, codes: string[]]> = [
    ['nothing', {}, []],
    ['a loss in points, with points', { late }, []],
    ['a loss in points, without points', { late, form: form(criterion(null, null)) }, ['late-points-without-points']],
    [
      'a loss in percent, without points',
      { late: { ...late, unit: 'percent' }, form: form(criterion(null, null)) },
      [],
    ],
    ['a loss without a grade', { late, gradeParts: [] }, ['late-without-grade']],
    ['notes made, none asked for', { gradeParts: [{ part: 'notes-made', weight: 1 }] }, ['part-needs-notes']],
    [
      'notes made, some suggested',
      { gradeParts: [{ part: 'notes-made', weight: 1 }], form: { ...form(criterion(0, 2)), targetNotes: 3 } },
      [],
    ],
    ['reflection without a stage for it', { gradeParts: [{ part: 'reflection', weight: 1 }] }, ['part-needs-stage']],
    ['reflection while revising', { gradeParts: [{ part: 'reflection', weight: 1 }], hasRevision: true }, []],
    ['levels that are all 0', { form: form(criterion(0, 0)) }, ['criterion-gives-nothing']],
    ['bands side by side', { form: form(range([0, 3], [4, 6])) }, []],
    ['a gap between bands', { form: form(range([0, 3], [6, 8])) }, ['bands-apart']],
  ];
  it.each(cases)('%s', (_, part, codes) => {
    expect(contradictions({ ...SOUND, ...part }).map(({ code }) => code)).toEqual(codes);
  });
});
