import { fromLocal, toLocal } from './localDate.js';

describe('dates as they are typed', () => {
  // Central European time changed at 01:00 UTC on 29 March and on 25 October 2026 (last Sundays, Directive 2000/84/EC);
  // eastern time in the United States on 8 March and 1 November 2026 (Energy Policy Act of 2005, section 110).
  const cases: Array<[string, string, string]> = [
    ['2026-03-28T12:00', 'Europe/Berlin', '2026-03-28T11:00:00.000Z'],
    ['2026-03-29T12:00', 'Europe/Berlin', '2026-03-29T10:00:00.000Z'],
    ['2026-10-25T12:00', 'Europe/Berlin', '2026-10-25T11:00:00.000Z'],
    ['2026-03-08T12:00', 'America/New_York', '2026-03-08T16:00:00.000Z'],
    ['2026-11-01T12:00', 'America/New_York', '2026-11-01T17:00:00.000Z'],
    ['2026-03-12T23:59', 'Europe/Tallinn', '2026-03-12T21:59:00.000Z'],
  ];
  it.each(cases)('%s in %s is %s, and back', (local, zone, iso) => {
    expect(fromLocal(local, zone)).toBe(iso);
    expect(toLocal(iso, zone)).toBe(local);
  });

  it('are null while they are not whole', () => {
    expect([fromLocal('', 'UTC'), fromLocal('2026-03-12', 'UTC'), toLocal(null, 'UTC')]).toEqual([null, null, '']);
  });
});
