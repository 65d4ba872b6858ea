import { dayOf, exactly } from '@salt-circle/core';
import { inWords, relatively } from './words.js';

const NOW = Date.UTC(2026, 2, 10, 8, 42);
const at = (day: number, hour = 21, minute = 59) => Date.UTC(2026, 2, day, hour, minute);

describe('times in words', () => {
  it('give the exact time in the zone of the course, with the year when it is another one', () => {
    expect(exactly(at(12), 'Europe/Tallinn', NOW)).toBe('Thu 12 Mar, 23:59 EET');
    expect(exactly(at(12), 'UTC', NOW)).toBe('Thu 12 Mar, 21:59 UTC');
    expect(exactly(Date.UTC(2027, 0, 4, 7), 'Europe/Tallinn', NOW)).toBe('Mon 4 Jan 2027, 09:00 EET');
  });

  // In the European Union summer time begins on the last Sunday of March, 01:00 UTC (Directive 2000/84/EC).
  it('name the time that is in force on that day', () => {
    expect(exactly(Date.UTC(2026, 2, 29, 0, 59), 'Europe/Tallinn', NOW)).toBe('Sun 29 Mar, 02:59 EET');
    expect(exactly(Date.UTC(2026, 2, 29, 1, 0), 'Europe/Tallinn', NOW)).toBe('Sun 29 Mar, 04:00 EEST');
  });

  it('count days by the clock of the course', () => {
    // Past midnight in Tallinn, not yet in London.
    expect(dayOf(at(12, 22, 30), 'Europe/Tallinn')).toBe('Fri 13 Mar');
    expect(dayOf(at(12, 22, 30), 'Europe/London')).toBe('Thu 12 Mar');
  });

  it('never round a due time up', () => {
    expect(relatively(at(12), NOW)).toBe('in 2 days');
    expect(relatively(at(12, 8, 41), NOW)).toBe('in 1 day');
    expect(relatively(at(10, 9, 41), NOW)).toBe('in 59 minutes');
    expect(relatively(NOW + 20_000, NOW)).toBe('now');
    expect(relatively(at(9, 8, 42), NOW)).toBe('1 day ago');
  });

  it('stand together', () => {
    expect(inWords(at(12), 'Europe/Tallinn', NOW)).toBe('in 2 days (Thu 12 Mar, 23:59 EET)');
  });
});
