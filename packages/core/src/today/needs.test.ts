import { resolveDates, NO_DATES, type ResolvedDates } from '../timeline/dates.js';
import { staffNeeds, studentNeeds, studentStatus, type StaffSituation, type StudentSituation } from './needs.js';

const day = (of: number) => Date.UTC(2026, 2, of);
const dates = resolveDates({
  ...NO_DATES,
  draftsOpen: day(2),
  draftsDue: day(12),
  lateUntil: day(14),
  reviewsOpen: day(15),
  reviewsDue: day(22),
  release: day(26),
}) as ResolvedDates;

const open = { id: 'a', self: false, submitted: false, changing: false };
const done = { id: 'b', self: false, submitted: true, changing: false };
const changing = { id: 'c', self: false, submitted: true, changing: true };

const DRAFTING: StudentSituation = {
  stage: 'drafting',
  dates,
  excused: false,
  mayHandIn: true,
  mayReview: false,
  maySelfReview: false,
  released: false,
  feedbackEach: false,
  toRevise: false,
  toReflect: false,
  handedIn: false,
  changedSinceHandIn: false,
  ownHandInFirst: true,
  practice: null,
  reviews: [],
  received: 0,
  feedbackRead: false,
};
const REVIEWING: StudentSituation = {
  ...DRAFTING,
  stage: 'reviewing',
  mayHandIn: false,
  mayReview: true,
  handedIn: true,
};
const CHECKING: StudentSituation = { ...REVIEWING, stage: 'checking', mayReview: false };
const CLOSED: StudentSituation = { ...CHECKING, stage: 'closed', released: true };

describe('what a student is to do', () => {
  const cases: Array<[what: string, at: StudentSituation, now: number, kinds: string[], standing: string]> = [
    ['drafts are open', DRAFTING, day(5), ['hand-in'], 'on-time'],
    ['handed in', { ...DRAFTING, handedIn: true }, day(5), [], 'on-time'],
    ['changed since', { ...DRAFTING, handedIn: true, changedSinceHandIn: true }, day(5), ['hand-in-again'], 'on-time'],
    ['late, while late ones are taken', DRAFTING, day(13), ['hand-in'], 'on-time'],
    ['missed the draft', { ...DRAFTING, mayHandIn: false }, day(14.5), ['draft-missed'], 'missed-draft'],
    [
      'missed it, and others are reviewing',
      { ...REVIEWING, handedIn: false },
      day(16),
      ['draft-missed'],
      'missed-draft',
    ],
    [
      'two reviews to write',
      { ...REVIEWING, reviews: [open, open] },
      day(16),
      ['write-review', 'write-review'],
      'missed-reviews',
    ],
    [
      'one submitted, one changed since',
      { ...REVIEWING, reviews: [done, changing] },
      day(16),
      ['submit-again'],
      'on-time',
    ],
    [
      'practice comes first, one of two is done',
      { ...DRAFTING, handedIn: true, practice: { done: 1, of: 2 } },
      day(5),
      ['practise'],
      'on-time',
    ],
    ['practice is done', { ...DRAFTING, handedIn: true, practice: { done: 2, of: 2 } }, day(5), [], 'on-time'],
    ['all submitted', { ...REVIEWING, reviews: [done, done] }, day(16), [], 'on-time'],
    ['nothing was allocated', REVIEWING, day(16), [], 'nothing-to-review'],
    [
      'reviews were due, one is missing',
      { ...CHECKING, reviews: [done, open] },
      day(23),
      ['reviews-missed'],
      'missed-reviews',
    ],
    ['reviews were due, none is missing', { ...CHECKING, reviews: [done, changing] }, day(23), [], 'on-time'],
    ['missed everything', { ...CHECKING, handedIn: false }, day(23), ['draft-missed'], 'missed-draft'],
    ['feedback is there', { ...CLOSED, received: 2 }, day(27), ['read-feedback'], 'on-time'],
    ['feedback was read', { ...CLOSED, received: 2, feedbackRead: true }, day(27), [], 'on-time'],
    ['feedback is no news any more', { ...CLOSED, received: 2 }, day(50), [], 'on-time'],
    ['nobody reviewed it', CLOSED, day(27), [], 'on-time'],
    ['excused', { ...DRAFTING, excused: true }, day(5), [], 'on-time'],
    [
      'night by night: both at once',
      { ...DRAFTING, handedIn: true, mayReview: true, reviews: [open] },
      day(5),
      ['write-review'],
      'on-time',
    ],
    [
      'reviews need no own draft',
      { ...REVIEWING, handedIn: false, ownHandInFirst: false, reviews: [open] },
      day(16),
      ['draft-missed', 'write-review'],
      'missed-draft',
    ],
  ];
  it.each(cases)('%s', (_, at, now, kinds, standing) => {
    expect([studentNeeds(at, now).map(({ kind }) => kind), studentStatus(at)]).toEqual([kinds, standing]);
  });

  it('names the due time that still counts, and the place of a review among all', () => {
    expect(studentNeeds(DRAFTING, day(5))).toEqual([{ kind: 'hand-in', due: day(12) }]);
    expect(studentNeeds(DRAFTING, day(13))).toEqual([{ kind: 'hand-in', due: day(14) }]);
    expect(studentNeeds({ ...REVIEWING, reviews: [done, open] }, day(16))).toEqual([
      { kind: 'write-review', due: day(22), reviewId: 'a', done: 2, of: 2 },
    ]);
  });
});

describe('a self-review with a due time of its own', () => {
  const own = { ...open, id: 'own', self: true };
  const needs = (part: Partial<StudentSituation>, selfReviewDue: number, now: number) =>
    studentNeeds({ ...REVIEWING, ...part, dates: { ...dates, selfReviewDue }, reviews: [own, open] }, now).map(
      ({ kind, due, done }) => [kind, due, done],
    );

  it('is asked for by its own time, missed after it, and the others are not missed with it', () => {
    expect(needs({ maySelfReview: true }, day(18), day(16))).toEqual([
      ['write-review', day(18), 1],
      ['write-review', day(22), 2],
    ]);
    expect(needs({}, day(18), day(19))).toEqual([
      ['write-review', day(22), 2],
      ['reviews-missed', day(18), 1],
    ]);
    expect(needs({ stage: 'checking', mayReview: false, maySelfReview: true }, day(25), day(23))).toEqual([
      ['write-review', day(25), 1],
      ['reviews-missed', day(22), 1],
    ]);
  });
});

describe('what is stuck for staff', () => {
  const base: StaffSituation = {
    stage: 'drafting',
    published: true,
    dates,
    mayHandIn: true,
    students: 24,
    handedIn: 20,
    allocated: 0,
    submitted: 0,
    rolling: false,
  };
  const reviewing = { ...base, stage: 'reviewing', mayHandIn: false, allocated: 40, submitted: 30 } as const;
  const cases: Array<[what: string, at: StaffSituation, now: number, kinds: string[]]> = [
    ['being planned', { ...base, published: false }, day(1), ['finish-plan']],
    ['dates are missing', { ...base, dates: null }, day(1), ['finish-plan']],
    ['long before drafts are due', base, day(5), []],
    ['two days before', base, day(10), ['remind-drafts']],
    ['everybody has handed in', { ...base, handedIn: 24 }, day(11), []],
    ['drafts were due, nothing is allocated', { ...base, mayHandIn: false }, day(13), ['allocate']],
    ['allocated night by night', { ...base, mayHandIn: false, rolling: true }, day(13), []],
    ['reviewing has begun', reviewing, day(16), []],
    ['two days before reviews are due', reviewing, day(20), ['watch-reviews']],
    ['reviews were due, some are missing', { ...reviewing, stage: 'checking' }, day(23), ['watch-reviews', 'release']],
    ['all are there', { ...reviewing, stage: 'checking', submitted: 40 }, day(23), ['release']],
    ['none is there', { ...reviewing, stage: 'checking', submitted: 0 }, day(23), ['watch-reviews']],
    ['released', { ...reviewing, stage: 'closed' }, day(27), []],
  ];
  it.each(cases)('%s', (_, at, now, kinds) => {
    expect(staffNeeds(at, now).map(({ kind }) => kind)).toEqual(kinds);
  });
});
