import { resolveDates, NO_DATES, type ResolvedDates } from '../timeline/dates.js';
import { dueRun, nextRun, nightsWaited } from './schedule.js';
import { reviewerStrengths } from './strengthOf.js';
import { readAllocationRows } from './rows.js';

const at = (text: string) => Date.parse(text);
const TALLINN = 'Europe/Tallinn';
/** Clocks in Tallinn go from +02:00 to +03:00 on Sunday 29 March 2026 at 03:00 (IANA tz database). */
const dates = resolveDates({
  ...NO_DATES,
  draftsOpen: at('2026-03-25T08:00+02:00'),
  draftsDue: at('2026-04-02T23:59+03:00'),
  reviewsDue: at('2026-04-10T23:59+03:00'),
}) as ResolvedDates;

describe('planned runs', () => {
  it('are due once their time has come, unless they came before the schedule', () => {
    const schedule = { kind: 'at-due' } as const;
    const due = dates.draftsDue + 60_000;
    expect(dueRun(schedule, dates, TALLINN, 0, due - 1)).toBeNull();
    expect(dueRun(schedule, dates, TALLINN, 0, due)).toBe(due);
    expect(dueRun(schedule, dates, TALLINN, due, due + 1)).toBeNull();
    expect(nextRun(schedule, dates, TALLINN, due - 1)).toBe(dates.draftsDue);
    expect(nextRun(schedule, dates, TALLINN, due)).toBeNull();
    const set = { kind: 'at', at: due + 5 } as const;
    expect(dueRun(set, dates, TALLINN, 0, due + 4)).toBeNull();
    expect(dueRun(set, dates, TALLINN, 0, due + 500)).toBe(due + 5);
    for (const now of [0, due, due + 1e9]) expect(dueRun({ kind: 'command' }, dates, TALLINN, 0, now)).toBeNull();
  });

  it('at night come at four by the clock of the course, in summer and in winter, and missed ones come once', () => {
    const nightly = { kind: 'nightly' } as const;
    expect(nextRun(nightly, dates, TALLINN, 0)).toBe(at('2026-03-26T04:00+02:00'));
    expect(nextRun(nightly, dates, TALLINN, at('2026-03-28T12:00+02:00'))).toBe(at('2026-03-29T04:00+03:00'));
    // Down for three nights: the last of them is made up for.
    const up = at('2026-03-31T09:00+03:00');
    expect(dueRun(nightly, dates, TALLINN, at('2026-03-28T04:00+02:00'), up)).toBe(at('2026-03-31T04:00+03:00'));
    expect(dueRun(nightly, dates, TALLINN, at('2026-03-31T04:00+03:00'), up)).toBeNull();
    expect(dueRun(nightly, dates, TALLINN, 0, at('2026-03-25T09:00+02:00'))).toBeNull();
    // None once reviews are due.
    expect(nextRun(nightly, dates, TALLINN, at('2026-04-10T12:00+03:00'))).toBeNull();
    expect(dueRun(nightly, dates, TALLINN, 0, at('2026-05-01T12:00+03:00'))).toBe(at('2026-04-10T04:00+03:00'));
  });

  it('count the nights somebody has waited', () => {
    const round = at('2026-03-31T04:00+03:00');
    expect(nightsWaited(at('2026-03-30T22:00+03:00'), round, TALLINN)).toBe(0);
    expect(nightsWaited(at('2026-03-30T03:00+03:00'), round, TALLINN)).toBe(1);
    expect(nightsWaited(at('2026-03-28T22:00+02:00'), round, TALLINN)).toBe(2);
    expect(nightsWaited(round + 5, round, TALLINN)).toBe(0);
  });
});

describe('how strong reviewers have been', () => {
  it('is half what they submitted and half what they wrote, twice the median being the most', () => {
    const strengths = reviewerStrengths([
      { id: 'all', allocated: 4, submitted: 4, words: 800 },
      { id: 'some', allocated: 4, submitted: 2, words: 200 },
      { id: 'much', allocated: 2, submitted: 2, words: 2000 },
      { id: 'none', allocated: 3, submitted: 0, words: 0 },
      { id: 'new', allocated: 0, submitted: 0, words: 0 },
    ]);
    // Words for each submitted review: 200, 100 and 1000; the median is 200.
    expect(Object.fromEntries(strengths)).toEqual({ all: 0.75, some: 0.375, much: 1, none: 0 });
    expect(reviewerStrengths([]).size).toBe(0);
    expect(reviewerStrengths([{ id: 'a', allocated: 1, submitted: 1, words: 0 }]).get('a')).toBe(0.5);
  });
});

describe('an allocation as rows', () => {
  const people = [
    { id: 'p1', names: ['ann@example.org', 'C-1'] },
    { id: 'p2', names: ['ben@example.org'] },
  ];
  const drafts = [{ id: 'd1', names: ['ann@example.org', 'C-1'], authorIds: ['p1'] }];

  it('is read by address or campus id, in any case and order of columns', () => {
    const rows = [
      ['Fixed', 'Draft', 'Reviewer'],
      ['yes', 'c-1', 'BEN@example.org'],
      ['', '', ''],
    ];
    expect(readAllocationRows(rows, people, drafts)).toEqual({
      pairs: [{ reviewerId: 'p2', draftId: 'd1', fixed: true }],
      problems: [],
    });
  });

  it.each([
    [[], 'rows-empty', 0],
    [[['reviewer'], ['x']], 'column-missing', 1],
    [
      [
        ['reviewer', 'draft', 'author'],
        ['x', 'y', 'z'],
      ],
      'column-twice',
      1,
    ],
  ])('says that %j is no such file', (rows, code, row) => {
    expect(readAllocationRows(rows, people, drafts).problems[0]).toMatchObject({ code, row });
  });
});
