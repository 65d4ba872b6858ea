import fc from 'fast-check';
import { checkDates } from './checkDates.js';
import { DATE_ORDER, NO_DATES, resolveDates, type ExchangeDates } from './dates.js';
import { moveNow } from './moveNow.js';
import {
  isReleased,
  mayHandIn,
  nextChange,
  openingsAt,
  segments,
  stageAt,
  type Stage,
  type TimelineState,
} from './stage.js';
import type { PersonalDates } from './personalDates.js';

const at = (day: number) => Date.UTC(2026, 2, day);
const NO_OWN = { draftsDue: null, reviewsDue: null, repliesDue: null, revisionDue: null, excused: false };
/** What is due at midnight is due until the end of that minute. */
const end = (day: number) => at(day) + 60_000;
const DATES: ExchangeDates = {
  ...NO_DATES,
  draftsOpen: at(2),
  draftsDue: at(12),
  reviewsOpen: at(14),
  reviewsDue: at(20),
  release: at(26),
};

describe('stageAt', () => {
  // A stage begins exactly at its date.
  const cases: Array<[string, number, Stage]> = [
    ['before drafts open', at(2) - 1, 'planning'],
    ['when drafts open', at(2), 'drafting'],
    ['between due and reviews open', at(13), 'drafting'],
    ['when reviews open', at(14), 'reviewing'],
    ['in the minute in which reviews are due', end(20) - 1, 'reviewing'],
    ['after it', end(20), 'checking'],
    ['at release', at(26), 'closed'],
  ];
  it.each(cases)('%s', (_, now, stage) => {
    expect(stageAt({ dates: DATES, publishedAt: at(1) }, now)).toBe(stage);
  });

  it('is planning, whatever the dates, until published or while a needed date is missing', () => {
    expect(stageAt({ dates: DATES, publishedAt: null }, at(15))).toBe('planning');
    expect(stageAt({ dates: { ...DATES, draftsDue: null }, publishedAt: at(1) }, at(15))).toBe('planning');
  });

  it('never goes back as time goes on', () => {
    const order: Stage[] = ['planning', 'drafting', 'reviewing', 'checking', 'closed'];
    const state = { dates: DATES, publishedAt: at(1) };
    fc.assert(
      fc.property(fc.integer({ min: at(1), max: at(28) }), fc.nat(at(28) - at(1)), (now, later) => {
        expect(order.indexOf(stageAt(state, now + later))).toBeGreaterThanOrEqual(order.indexOf(stageAt(state, now)));
      }),
      { seed: 1962 },
    );
  });
});

describe('what the dates allow', () => {
  const state = { dates: DATES, publishedAt: at(1) };
  it('takes drafts until the end of the minute in which they are due, and releases at the instant', () => {
    expect([mayHandIn(state, at(2) - 1), mayHandIn(state, end(12) - 1), mayHandIn(state, end(12))]).toEqual([
      false,
      true,
      false,
    ]);
    expect([isReleased(state, at(26) - 1), isReleased(state, at(26))]).toEqual([false, true]);
  });

  it('ends at once what was closed at an instant that no clock shows', () => {
    const closed = { dates: moveNow(DATES, 'draftsDue', at(5)), publishedAt: at(1) };
    expect([mayHandIn(closed, at(5) - 2), mayHandIn(closed, at(5))]).toEqual([true, false]);
  });

  // Common practice: a blank opening of reviews means the due date of drafts.
  it('fills blanks: reviews open when drafts are due, release comes when reviews are due', () => {
    const blank = { ...DATES, reviewsOpen: null, release: null };
    expect(resolveDates(blank)).toMatchObject({ reviewsOpen: at(12), lateUntil: at(12), release: at(20) });
    expect(resolveDates({ ...blank, lateUntil: at(13), checkUntil: at(24) })).toMatchObject({
      reviewsOpen: at(13),
      release: at(24),
    });
    expect(stageAt({ dates: blank, publishedAt: at(1) }, end(12))).toBe('reviewing');
    expect(stageAt({ dates: blank, publishedAt: at(1) }, end(20))).toBe('closed');
    expect(segments(blank).map(({ key }) => key)).toEqual(['drafts', 'reviews', 'after']);
  });

  it('tells the next change, and none when all is over', () => {
    expect(nextChange(state, end(12))).toEqual({ date: 'reviewsOpen', at: at(14) });
    expect(nextChange(state, at(26))).toBeNull();
    expect(nextChange({ ...state, publishedAt: null }, at(3))).toBeNull();
  });
});

describe('a self-review with a due time of its own', () => {
  const early = { dates: { ...DATES, selfReviewDue: at(16) }, publishedAt: at(1) };
  const late = { dates: { ...DATES, selfReviewDue: at(23) }, publishedAt: at(1) };
  const may = (state: TimelineState, own: PersonalDates | null, now: number) => {
    const { review, selfReview, selfReviewOver } = openingsAt(state, own, now);
    return [review, selfReview, selfReviewOver];
  };
  const MORE: PersonalDates = {
    draftsDue: null,
    reviewsDue: at(22),
    repliesDue: null,
    revisionDue: null,
    excused: false,
  };

  it('can be submitted until then, before or after the others', () => {
    expect(may(early, null, end(16) - 1)).toEqual([true, true, false]);
    expect(may(early, null, end(16))).toEqual([true, false, true]);
    expect(may(late, null, end(20))).toEqual([false, true, false]);
    expect(may(late, null, end(23))).toEqual([false, false, true]);
    // Without one it is due with the others, and nothing is over before them.
    expect(may({ ...early, dates: DATES }, null, end(20))).toEqual([false, false, false]);
  });

  it('is never less than the time that somebody has for reviews', () => {
    expect(may(early, MORE, at(21))).toEqual([true, true, false]);
    expect(may(late, MORE, end(22))).toEqual([false, true, false]);
  });

  it('is among what comes next, and moves by itself', () => {
    expect(nextChange(early, at(15))).toEqual({ date: 'selfReviewDue', at: at(16) });
    expect(nextChange({ ...early, dates: DATES }, at(15))).toEqual({ date: 'reviewsDue', at: at(20) });
    expect(moveNow(late.dates, 'reviewsDue', at(18) + 1)).toMatchObject({ selfReviewDue: at(23) });
    expect(moveNow(late.dates, 'release', at(21))).toMatchObject({ selfReviewDue: at(21) });
  });

  it('is due between the opening of reviews and the release', () => {
    const clash = (day: number) =>
      checkDates({ ...DATES, selfReviewDue: at(day) }, true).map(({ path, facts }) => [path[0], facts['other']]);
    expect([clash(15), clash(26)]).toEqual([[], []]);
    expect(clash(14)).toEqual([['selfReviewDue', 'reviewsOpen']]);
    expect(clash(27)).toEqual([['release', 'selfReviewDue']]);
  });
});

describe('the optional stages', () => {
  const long = { ...DATES, lateUntil: at(13), checkUntil: at(25), repliesDue: at(30), revisionDue: at(31) };
  const state = { dates: long, publishedAt: at(1) };

  it('of replies and of revisions follow the release, each to the end of its last minute', () => {
    expect(checkDates({ ...long, revisionDue: at(29) }, true).map(({ path }) => path)).toEqual([['revisionDue']]);
    const stages = [at(26), at(30), end(30), at(31), end(31)].map((now) => stageAt(state, now));
    expect(stages).toEqual(['replying', 'replying', 'revising', 'revising', 'closed']);
    expect(nextChange(state, at(26))).toEqual({ date: 'repliesDue', at: at(30) });
    expect(segments(long).slice(-3)).toEqual([
      { key: 'replies', from: at(26), until: at(30) },
      { key: 'revision', from: at(30), until: at(31) },
      { key: 'after', from: at(31), until: null },
    ]);
  });

  it('of a revision alone begin with the release, and somebody’s own time for it is later', () => {
    const only = { dates: { ...long, repliesDue: null }, publishedAt: at(1) };
    expect(stageAt(only, at(26))).toBe('revising');
    const own = { ...NO_OWN, revisionDue: at(33) };
    const may = (now: number, times: PersonalDates | null) => openingsAt(only, times, now).revision;
    expect([may(end(31), null), may(end(31), own), may(end(33), own)]).toEqual([false, true, false]);
    expect(openingsAt(only, { ...own, excused: true }, at(27)).revision).toBe(false);
    expect(openingsAt(only, null, at(27)).replies).toBe(false);
  });

  it('takes late drafts until the end of the late window, and says that they are late', () => {
    const may = (now: number) => {
      const { handIn, late } = openingsAt(state, null, now);
      return [handIn, late];
    };
    expect([end(12) - 1, end(12), end(13) - 1, end(13)].map(may)).toEqual([
      [true, false],
      [true, true],
      [true, true],
      [false, false],
    ]);
  });

  const own: PersonalDates = {
    draftsDue: at(16),
    reviewsDue: null,
    repliesDue: null,
    revisionDue: null,
    excused: false,
  };
  it('give an extension its own end, without touching anybody else', () => {
    expect(openingsAt(state, own, at(15))).toMatchObject({ handIn: true, late: false, review: true });
    expect(openingsAt(state, own, end(16)).handIn).toBe(false);
    expect(openingsAt(state, { ...own, reviewsDue: at(24) }, at(22)).review).toBe(true);
    expect(openingsAt(state, { ...own, excused: true }, at(15))).toMatchObject({ handIn: false, review: false });
    expect(nextChange(state, at(15), own)).toEqual({ date: 'draftsDue', at: at(16) });
  });

  it('opens and closes now by moving dates, and what must come before with them', () => {
    const closed = moveNow(long, 'draftsDue', at(5));
    expect(closed).toMatchObject({ draftsDue: at(5) - 1, lateUntil: null, reviewsOpen: at(14) });
    const opened = moveNow(long, 'reviewsOpen', at(9));
    expect(opened).toMatchObject({ draftsDue: at(9), lateUntil: at(9), reviewsOpen: at(9) });
    expect(checkDates(opened, true)).toEqual([]);
    // Reviews can't be closed before they have opened: the outcome is refused with the two dates.
    expect(checkDates(moveNow(long, 'reviewsDue', at(5)), true).map(({ code }) => code)).toContain('date-order');
  });
});

describe('checkDates', () => {
  it('accepts dates in order, with optional ones blank', () => {
    expect(checkDates(DATES, true)).toEqual([]);
    expect(checkDates({ ...DATES, reviewsOpen: null, release: null }, true)).toEqual([]);
  });

  // Common practice: reviews fall due after drafts.
  it('names the two dates that clash, even across a blank one', () => {
    expect(checkDates({ ...DATES, reviewsOpen: null, reviewsDue: at(11) }, true)).toEqual([
      { code: 'date-order', path: ['reviewsDue'], facts: { other: 'draftsDue', at: at(11), otherAt: at(12) } },
      // `release` is still after reviewsDue, so there is one clash, not two.
    ]);
  });

  it('lets opening and release coincide with the date before, but not due dates', () => {
    expect(checkDates({ ...DATES, reviewsOpen: at(12), release: at(20) }, true)).toEqual([]);
    expect(checkDates({ ...DATES, draftsDue: at(2) }, true).map(({ path }) => path)).toEqual([['draftsDue']]);
  });

  it('asks for missing dates only when the plan should be complete', () => {
    expect(checkDates(NO_DATES, false)).toEqual([]);
    expect(checkDates(NO_DATES, true).map(({ path }) => path[0])).toEqual(['draftsOpen', 'draftsDue', 'reviewsDue']);
  });

  it('takes years outside the century, and no number, for slips', () => {
    for (const wrong of [Date.UTC(206, 2, 12), Date.UTC(20260, 2, 12), NaN]) {
      expect(checkDates({ ...DATES, draftsDue: wrong }, true).map(({ code }) => code)).toContain('date-unreal');
    }
  });

  it('finds a problem exactly when some pair is out of order', () => {
    const day = fc.integer({ min: 1, max: 28 }).map(at);
    const dates = fc.record(
      Object.fromEntries(DATE_ORDER.map((name) => [name, day])) as Record<(typeof DATE_ORDER)[number], typeof day>,
    );
    fc.assert(
      fc.property(dates, (some) => {
        const values = DATE_ORDER.filter((name) => name !== 'selfReviewDue').map((name) => some[name]);
        const selfFits = some.selfReviewDue > some.reviewsOpen && some.selfReviewDue <= some.release;
        const inOrder = values.every((value, index) => index === 0 || value >= (values[index - 1] as number));
        const strict = some.draftsDue > some.draftsOpen && some.reviewsDue > some.reviewsOpen;
        expect(checkDates(some, true).length === 0).toBe(inOrder && strict && selfFits);
      }),
      { seed: 1962 },
    );
  });
});
