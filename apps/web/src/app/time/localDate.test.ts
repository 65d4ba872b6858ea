import { readLocal, toLocal } from './localDate.js';

const once = (iso: string) => ({ kind: 'once', iso });

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
    expect(readLocal(local, zone)).toEqual(once(iso));
    expect(toLocal(iso, zone)).toBe(local);
  });

  it('say when clocks never show them, or show them twice', () => {
    expect(readLocal('2026-03-29T02:30', 'Europe/Berlin')).toEqual({ kind: 'never', next: '2026-03-29T03:30' });
    expect(readLocal('2026-10-25T02:30', 'Europe/Berlin')).toEqual({
      kind: 'twice',
      isos: ['2026-10-25T00:30:00.000Z', '2026-10-25T01:30:00.000Z'],
    });
  });

  it('are empty while they are not whole', () => {
    expect([readLocal('', 'UTC'), readLocal('2026-03-12', 'UTC'), toLocal(null, 'UTC')]).toEqual([
      { kind: 'empty' },
      { kind: 'empty' },
      '',
    ]);
  });
});
