import { tz } from '@date-fns/tz';
import { addDays } from 'date-fns';
import fc from 'fast-check';
import { NO_DATES } from './dates.js';
import { lateness, checkLateRule, type LateRule } from './late.js';
import { daysToFirst, holidayClashes, shiftDates } from './shift.js';
import { dayNumber, instantOf, instantsOf, localTime, plusDays, zoneName } from './zone.js';

const HOUR = 3_600_000;
const read = (text: string) => {
  const [year, month, day, hour, minute] = text.split(/\D/).map(Number) as [number, number, number, number, number];
  return { year, month, day, hour, minute };
};
const iso = (at: number) => new Date(at).toISOString().slice(0, 16);

describe('readings of the clock', () => {
  // Published transitions: Directive 2000/84/EC (Estonia, last Sundays of March and October at 01:00 UTC); US Energy
  // Policy Act of 2005, sec. 110 (second Sunday of March, first of November, 02:00 local); New South Wales Standard
  // Time Act 1987 for Lord Howe Island (half an hour, first Sundays of April and October).
  const transitions: Array<[zone: string, skipped: string, doubled: string, both: [string, string]]> = [
    ['Europe/Tallinn', '2026-03-29T03:30', '2026-10-25T03:30', ['2026-10-25T00:30', '2026-10-25T01:30']],
    ['America/New_York', '2026-03-08T02:30', '2026-11-01T01:30', ['2026-11-01T05:30', '2026-11-01T06:30']],
    ['Australia/Lord_Howe', '2026-10-04T02:15', '2026-04-05T01:45', ['2026-04-04T14:45', '2026-04-04T15:15']],
  ];
  it.each(transitions)('%s has no %s, and %s twice', (zone, skipped, doubled, both) => {
    expect(instantsOf(read(skipped), zone)).toEqual([]);
    expect(instantsOf(read(doubled), zone).map(iso)).toEqual(both);
  });

  it('puts a skipped reading as much later as clocks were put forward', () => {
    expect(localTime(instantOf(read('2026-03-29T03:30'), 'Europe/Tallinn'), 'Europe/Tallinn')).toMatchObject({
      hour: 4,
      minute: 30,
    });
  });

  // The reference: what the machine itself writes by the IANA data, on zones with whole, half and quarter hours.
  it('agrees with what the machine shows at any time of 2000 to 2040', () => {
    const zones = [
      'Europe/Tallinn',
      'America/New_York',
      'Asia/Kathmandu',
      'Australia/Lord_Howe',
      'Pacific/Apia',
      'UTC',
    ];
    fc.assert(
      fc.property(
        fc.constantFrom(...zones),
        fc.integer({ min: Date.UTC(2000, 0), max: Date.UTC(2040, 0) }),
        (zone, at) => {
          const ours = localTime(at, zone);
          const two = (number: number) => String(number).padStart(2, '0');
          const shown = `${ours.year}-${two(ours.month)}-${two(ours.day)} ${two(ours.hour)}:${two(ours.minute)}`;
          expect(shown).toBe(new Date(at).toLocaleString('sv-SE', { timeZone: zone }).slice(0, 16));
          expect(instantsOf(ours, zone)).toContain(Math.floor(at / 60_000) * 60_000);
        },
      ),
      { seed: 1962, numRuns: 500 },
    );
  });

  it('moves by calendar days as the reference does, the time of day kept', () => {
    const zones = ['Europe/Tallinn', 'America/New_York', 'Asia/Kathmandu'];
    fc.assert(
      fc.property(
        fc.constantFrom(...zones),
        fc.integer({ min: Date.UTC(2025, 0), max: Date.UTC(2028, 0) }),
        fc.integer({ min: -400, max: 400 }),
        (zone, at, days) => {
          const local = localTime(at, zone);
          const moved = plusDays(at, days, zone);
          expect(dayNumber(moved, zone)).toBe(dayNumber(at, zone) + days);
          // Where the reading exists once, there is only one right answer.
          const reading = localTime(moved, zone);
          if (reading.hour === local.hour && instantsOf(reading, zone).length === 1) {
            expect(moved).toBe(addDays(at, days, { in: tz(zone) }).getTime());
          }
        },
      ),
      { seed: 1962, numRuns: 500 },
    );
  });
});

describe('shifting an exchange', () => {
  const zone = 'Europe/Tallinn';
  const due = (text: string) => instantOf(read(text), zone);
  const dates = { ...NO_DATES, draftsOpen: due('2026-03-02T08:00'), draftsDue: due('2026-03-12T23:59') };

  it('keeps the time of day over a change of clocks, and blanks blank', () => {
    const later = shiftDates(dates, 30, zone);
    expect(later.draftsDue).toBe(due('2026-04-11T23:59'));
    expect((later.draftsDue as number) - dates.draftsDue).toBe(30 * 24 * HOUR - HOUR);
    expect(later.release).toBeNull();
  });

  it('finds the days to a new first date, and keeps weekdays if asked to', () => {
    expect(daysToFirst(dates, due('2026-09-03T12:00'), zone, false)).toBe(185);
    // 2 March 2026 was a Monday, 3 September is a Thursday; the Monday nearest to it is 31 August.
    const days = daysToFirst(dates, due('2026-09-03T12:00'), zone, true);
    expect(localTime(shiftDates(dates, days, zone).draftsOpen as number, zone)).toMatchObject({ month: 8, day: 31 });
    expect(daysToFirst(NO_DATES, due('2026-09-03T12:00'), zone, true)).toBe(0);
  });

  it('points out what falls on a holiday, by the calendar of the course', () => {
    const holidays = [{ title: 'Spring break', from: '2026-03-12', to: '2026-03-15' }];
    expect(holidayClashes(dates, holidays, zone).map(({ date }) => date)).toEqual(['draftsDue']);
    // Ten minutes past midnight in Tallinn is still the day before in UTC.
    const early = { ...NO_DATES, draftsDue: due('2026-03-16T00:10') };
    expect(holidayClashes(early, holidays, zone)).toEqual([]);
    expect(holidayClashes(early, holidays, 'UTC')).toHaveLength(1);
  });
});

describe('late hand-ins', () => {
  const rule: LateRule = { amount: 10, unit: 'percent', per: 'day', cap: 25, graceMinutes: 30 };
  // Common practice: ten percent a started day after half an hour of grace, 25 percent at most.
  const cases: Array<[string, number, number, number]> = [
    ['in time', -1, 0, 0],
    ['in the last minute of grace', 30 * 60_000 + 59_999, 0, 0],
    ['just after it', 31 * 60_000, 1, 10],
    ['in the minute in which a day is over', 24 * HOUR + 59_999, 1, 10],
    ['after that', 24 * HOUR + 60_000, 2, 20],
    ['more than a week', 7 * 24 * HOUR + 60_000, 8, 25],
  ];
  it.each(cases)('%s', (_, by, startedDays, loses) => {
    expect(lateness(rule, 0, by)).toEqual({ by: Math.max(by, 0), startedDays, loses });
  });

  it('lose once, or nothing without a rule', () => {
    expect(lateness({ ...rule, per: 'once' }, 0, 7 * 24 * HOUR).loses).toBe(10);
    expect(lateness(null, 0, 7 * 24 * HOUR)).toMatchObject({ startedDays: 7, loses: 0 });
  });

  it('need amounts that make sense, and a time in which to be late', () => {
    const codes = (part: Partial<LateRule>, window = true) =>
      checkLateRule({ ...rule, ...part }, window).map(({ code }) => code);
    expect(codes({})).toEqual([]);
    expect([codes({ amount: 0 }), codes({ amount: NaN }), codes({ amount: 101, cap: null })].flat()).toEqual([
      'late-amount',
      'late-amount',
      'late-amount',
    ]);
    expect(codes({ cap: 5 })).toEqual(['late-cap']);
    expect(codes({ graceMinutes: 1.5 })).toEqual(['late-grace']);
    expect(codes({}, false)).toEqual(['late-without-window']);
  });
});

describe('the name of a zone', () => {
  // From the links of the IANA time zone database (file "backward").
  it('is one for all its aliases, and none for what is no zone', () => {
    const pairs = [
      ['Asia/Calcutta', 'Asia/Kolkata'],
      ['Europe/Kiev', 'Europe/Kyiv'],
      ['Asia/Saigon', 'Asia/Ho_Chi_Minh'],
      ['UTC', 'Etc/UTC'],
      ['europe/tallinn', 'Europe/Tallinn'],
    ] as const;
    for (const [old, now] of pairs) {
      expect(zoneName(old)).not.toBeNull();
      expect(zoneName(old)).toBe(zoneName(now));
    }
    expect(['Mars/Olympus', '+02:00', '', 'UTC; DROP'].map(zoneName)).toEqual([null, null, null, null]);
  });
});
