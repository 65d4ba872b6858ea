import { renderToStaticMarkup } from 'react-dom/server';
import type { TodayItem, TodayKind, WaitingItem } from '@salt-circle/contracts';
import { DATE_ORDER } from '@salt-circle/core';
import { matchRoutes } from 'react-router';
import { isUntil, needWords, waitWords } from './words.js';

const item = (kind: TodayKind, part: Partial<TodayItem> = {}): TodayItem => ({
  kind,
  exchangeId: 'x',
  exchangeTitle: 'Field report',
  courseTitle: 'Course',
  timeZone: 'UTC',
  due: null,
  reviewId: null,
  done: 0,
  of: 0,
  ...part,
});

/** The compiler asks for each kind. */
const KINDS: Readonly<Record<TodayKind, true>> = {
  'hand-in': true,
  'hand-in-again': true,
  'submit-again': true,
  'draft-missed': true,
  'reviews-missed': true,
  practise: true,
  'write-review': true,
  'read-feedback': true,
  revise: true,
  reflect: true,
  'finish-plan': true,
  allocate: true,
  'remind-drafts': true,
  'watch-reviews': true,
  'mend-allocation': true,
  'look-at-allocation': true,
  release: true,
};
const kinds = Object.keys(KINDS) as TodayKind[];

describe('what needs somebody, in words', () => {
  it.each(kinds)('%s leads to a page that there is, and says what is to be done there', async (kind) => {
    const { router } = await import('../../routes.js');
    const { to, what, verb } = needWords(item(kind, { reviewId: 'r', done: 3, of: 5 }));
    const [last] = matchRoutes(router.routes, to)?.slice(-1) ?? [];
    expect(last?.route.path).not.toBe('*');
    expect(last?.pathnameBase).toBe(to);
    expect(`${verb} ${what}`).not.toMatch(/undefined|NaN|null/);
  });

  it.each(kinds)('%s counts one thing as one', (kind) => {
    const one = needWords(item(kind, { reviewId: 'r', done: 1, of: 2 })).what;
    expect(one).not.toMatch(/\b1 (drafts|reviews|reviewers|cases)\b(?! of)/);
  });

  it('of so many says how many are still missing', () => {
    expect(needWords(item('remind-drafts', { done: 20, of: 24 })).what).toMatch(/^4 of 24 /);
    expect(needWords(item('watch-reviews', { done: 40, of: 48 })).what).toMatch(/^8 of 48 /);
  });

  it('has words of its own for every date that somebody can wait for, in either role', () => {
    const dates = DATE_ORDER;
    for (const role of ['student', 'instructor'] as const satisfies Array<WaitingItem['role']>) {
      const waiting = dates.map((date) => ({
        ...item('hand-in'),
        role,
        standing: 'on-time' as const,
        next: { date, at: '' },
      }));
      const words = waiting.map((one) => renderToStaticMarkup(waitWords(one, 'Thursday')));
      expect(waiting.map(isUntil)).toEqual(words.map((one) => one.endsWith('until Thursday')));
      expect(new Set(words.filter((one) => one !== '')).size).toBe(dates.length);
    }
  });
});
