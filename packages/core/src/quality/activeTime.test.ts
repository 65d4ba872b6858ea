import fc from 'fast-check';
import { ActiveTime, AT_WORK } from './activeTime.js';

const S = 1_000;

describe('time at work', () => {
  it('runs from the first thing done, and for a minute after the last', () => {
    const time = new ActiveTime(0, true);
    expect(time.take(600 * S)).toBe(0);
    time.done(600 * S);
    time.done(630 * S);
    expect(time.take(3_600 * S)).toBe(90);
    expect(time.take(7_200 * S)).toBe(0);
  });

  it('stands still while the page is out of sight, whatever is done', () => {
    const time = new ActiveTime(0, true);
    time.done(0);
    time.seen(false, 10 * S);
    time.done(20 * S);
    time.seen(true, 30 * S);
    expect(time.take(40 * S)).toBe(10);
    time.done(40 * S);
    expect(time.take(45 * S)).toBe(5);
  });

  it('loses nothing by being taken often', () => {
    const time = new ActiveTime(0, true);
    let taken = 0;
    for (let at = 0; at <= 120_000; at += 700) {
      time.done(at);
      taken += time.take(at);
    }
    expect(taken + time.take(120_000)).toBe(120);
  });

  it('is never longer than what has passed, nor than a minute for each thing done', () => {
    const step = fc.record({ after: fc.nat(200_000), what: fc.constantFrom('done', 'hidden', 'shown') });
    fc.assert(
      fc.property(fc.array(step, { maxLength: 30 }), (steps) => {
        const time = new ActiveTime(0, true);
        let now = 0;
        let acts = 0;
        for (const { after, what } of steps) {
          now += after;
          if (what === 'done') {
            acts += 1;
            time.done(now);
          } else time.seen(what === 'shown', now);
        }
        const seconds = time.take(now + 10 * AT_WORK);
        expect(seconds * S).toBeLessThanOrEqual(Math.min(now + AT_WORK, acts * AT_WORK));
      }),
    );
  });
});
