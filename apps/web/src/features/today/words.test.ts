import type { TodayItem, TodayKind, WaitingItem } from '@salt-circle/contracts';
import { needWords, waitWords } from './words.js';

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

describe('what needs somebody, in words', () => {
  const cases: Array<[TodayItem, string, string, string]> = [
    [item('hand-in'), 'Your draft is not handed in', 'Hand in', '/exchanges/x/draft'],
    [
      item('hand-in-again'),
      'You changed your draft after handing in; the earlier version counts',
      'Look at it',
      '/exchanges/x/draft',
    ],
    [item('write-review', { reviewId: 'r', done: 2, of: 3 }), 'Review 2 of 3', 'Review', '/reviews/r'],
    [item('read-feedback', { done: 1 }), 'Feedback from 1 reviewer is here', 'Read', '/exchanges/x/feedback'],
    [item('read-feedback', { done: 3 }), 'Feedback from 3 reviewers is here', 'Read', '/exchanges/x/feedback'],
    [item('finish-plan'), 'This exchange is still being planned', 'Plan', '/exchanges/x/plan'],
    [item('allocate', { done: 1, of: 24 }), '1 draft waits to be allocated', 'Allocate', '/exchanges/x/allocation'],
    [
      item('remind-drafts', { done: 20, of: 24 }),
      '4 of 24 students have not handed in',
      'See who',
      '/exchanges/x/drafts',
    ],
    [
      item('watch-reviews', { done: 40, of: 48 }),
      '8 of 48 reviews are not submitted',
      'See which',
      '/exchanges/x/reviews',
    ],
    [
      item('mend-allocation', { done: 2 }),
      'Something has happened since drafts were allocated (2 cases)',
      'See the repair',
      '/exchanges/x/allocation',
    ],
    [
      item('look-at-allocation'),
      'The planned allocation was not applied: not everybody could be placed',
      'Look at it',
      '/exchanges/x/allocation',
    ],
    [item('release', { done: 46, of: 48 }), '46 reviews wait for your check', 'Check', '/exchanges/x/check'],
  ];
  it.each(cases)('%j', (given, what, verb, to) => {
    expect(needWords(given)).toMatchObject({ what, verb, to });
  });

  it('has words for every date that somebody can wait for, in either role', () => {
    const dates = ['draftsOpen', 'draftsDue', 'reviewsOpen', 'reviewsDue', 'release'] as const;
    const words = (role: WaitingItem['role']) =>
      dates.map((date) => waitWords({ ...item('hand-in'), role, next: { date, at: '' } }));
    expect(words('student')).toEqual([
      'drafts open',
      'handed in; you can replace your draft until',
      'reviewing opens',
      'all you were asked is done; reviews are due',
      'feedback is released',
    ]);
    expect(words('instructor')[1]).toBe('drafts are due');
  });
});
