import type { ExchangeView, StaffFigures, StudentMarks } from '@salt-circle/contracts';
import { rulerSegments } from './segments.js';

const iso = (day: number) => new Date(Date.UTC(2026, 2, day)).toISOString();
const at = (day: number) => Date.UTC(2026, 2, day);
const NONE = { lateUntil: null, checkUntil: null, repliesDue: null, revisionDue: null };
const DATES = {
  ...NONE,
  draftsOpen: iso(2),
  draftsDue: iso(12),
  reviewsOpen: iso(14),
  selfReviewDue: null,
  reviewsDue: iso(20),
  release: iso(26),
};
const FIGURES: StaffFigures = { students: 24, handedIn: 21, allocated: 42, asked: 42, begun: 30, submitted: 17 };
const MARKS: StudentMarks = {
  draft: 'handed-in',
  savedSinceHandIn: false,
  versions: 2,
  reviewsDone: 1,
  reviewsAllocated: 2,
  reviewsReceived: 2,
  revised: false,
  reflected: false,
};

function exchange(part: Partial<ExchangeView>): ExchangeView {
  return {
    id: 'x',
    title: 'Field report',
    published: true,
    stage: 'reviewing',
    dates: DATES,
    next: null,
    course: { id: 'c', title: 'Course', timeZone: 'UTC', role: 'instructor' },
    names: 'both-ways',
    reviewsPerStudent: 2,
    selfReview: 'off',
    mayRevise: false,
    mayReflect: false,
    reflection: false,
    revisionShown: false,
    othersReviews: false,
    deliverables: [],
    late: null,
    gradeParts: [],
    practice: null,
    feedbackHeld: false,
    handInIsLate: false,
    maySelfReview: false,
    mayReview: true,
    own: null,
    briefHtml: '',
    guideHtml: '',
    attachments: [],
    alias: null,
    mayHandIn: false,
    released: false,
    secondRound: false,
    gradeOpen: null,
    gradesRelease: null,
    feedbackOpen: part.released === true,
    figures: FIGURES,
    marks: null,
    ...part,
  };
}

/** "key: figure", with a mark where something is wrong. */
function read(view: ExchangeView, now: number): string[] {
  return rulerSegments(view, '/exchanges/x/reviews', now).map(
    ({ key, figure, alert }) => `${key}: ${figure}${alert === true ? ' !' : ''}`,
  );
}

describe('the ruler', () => {
  it('gives an instructor one figure per stage, and marks what is stuck', () => {
    expect(read(exchange({}), at(15))).toEqual([
      'plan: published',
      'drafts: 21 of 24 handed in !',
      'allocation: 42 placed',
      'reviews: 17 of 42 done',
      'check: release Thu 26 Mar',
      'grades: none planned',
      'after: feedback use',
    ]);
    expect(read(exchange({ figures: { ...FIGURES, allocated: 0 } }), at(15))[2]).toBe('allocation: not allocated !');
  });

  it('says when a stage opens that has not yet, and does not alarm before it is time', () => {
    expect(read(exchange({ mayReview: false, figures: { ...FIGURES, handedIn: 3, allocated: 0 } }), at(5))).toEqual([
      'plan: published',
      'drafts: 3 of 24 handed in',
      'allocation: not allocated',
      'reviews: open Sat 14 Mar',
      'check: release Thu 26 Mar',
      'grades: none planned',
      'after: feedback use',
    ]);
    expect(read(exchange({ released: true }), at(27)).at(-3)).toBe('check: feedback released');
  });

  it('shows an exchange without dates as steps of equal width', () => {
    const none = {
      ...NONE,
      draftsOpen: null,
      draftsDue: null,
      reviewsOpen: null,
      selfReviewDue: null,
      reviewsDue: null,
      release: null,
    };
    const view = exchange({ published: false, stage: 'planning', dates: none, figures: { ...FIGURES, allocated: 0 } });
    expect(read(view, at(5))).toEqual([
      'plan: not published',
      'drafts: no date yet',
      'allocation: not allocated',
      'reviews: no date yet',
      'check: no date yet',
      'grades: none planned',
      'after: feedback use',
    ]);
    expect(
      rulerSegments(view, '/exchanges/x/plan', at(5)).every(({ from, until }) => from === null && until === null),
    ).toBe(true);
  });

  it('draws stretches to scale, and a stretch of no length as a step', () => {
    const segments = rulerSegments(
      exchange({ dates: { ...DATES, reviewsOpen: null } }),
      '/exchanges/x/reviews',
      at(15),
    );
    expect(segments.map(({ key, from, until }) => [key, from, until])).toEqual([
      ['plan', null, null],
      ['drafts', at(2), at(12)],
      ['allocation', null, null],
      ['reviews', at(12), at(20)],
      ['check', at(20), at(26)],
      ['grades', null, null],
      ['after', null, null],
    ]);
    expect(segments.filter(({ active }) => active).map(({ key }) => key)).toEqual(['reviews']);
  });

  it('goes on after the release as far as that is planned', () => {
    const dates = { ...DATES, repliesDue: iso(28), revisionDue: iso(31) };
    expect(read(exchange({ dates }), at(27)).at(-1)).toBe('after: revision due Tue 31 Mar');
    expect(rulerSegments(exchange({ dates }), '/exchanges/x/after', at(27)).at(-1)).toMatchObject({
      ...{ from: at(26), until: at(31), active: true },
    });
    const student = (part: Partial<ExchangeView>, marks: Partial<StudentMarks> = {}) =>
      read(exchange({ dates, figures: null, marks: { ...MARKS, ...marks }, reflection: true, ...part }), at(27)).slice(
        3,
      );
    expect(student({ mayRevise: true, mayReflect: true, released: true, feedbackOpen: true })).toEqual([
      ...['revise: due Tue 31 Mar', 'reflection: not handed in'],
    ]);
    expect(student({ released: true, feedbackOpen: true })).toEqual([
      'revise: not handed in !',
      'reflection: not handed in !',
    ]);
    expect(student({ released: true, feedbackOpen: true }, { revised: true, reflected: true })).toEqual([
      ...['revise: handed in', 'reflection: handed in'],
    ]);
  });

  it('says how far grades are, and nothing of them to students where there are none', () => {
    const gradeParts = [{ part: 'handing-in' as const, weight: 1 }];
    const staff = (part: Partial<ExchangeView>) => read(exchange({ gradeParts, ...part }), at(27)).at(-2);
    expect([
      staff({}),
      staff({ gradesRelease: DATES.release }),
      staff({ gradesRelease: '2027-01-05T10:00:00Z' }),
    ]).toEqual(['grades: not released', 'grades: released', 'grades: release Tue 5 Jan']);
    const student = (gradeOpen: boolean | null) =>
      read(exchange({ figures: null, marks: MARKS, gradeOpen }), at(27)).at(-1);
    expect([student(null), student(false), student(true)]).toEqual([
      'feedback: comes Thu 26 Mar',
      'grade: not released',
      'grade: released',
    ]);
  });

  it('misses nobody’s draft where revisions are reviewed once more', () => {
    const [, drafts] = read(exchange({ secondRound: true }), at(15));
    expect(drafts).toMatch(/^drafts: \d+ revisions?$/);
    const student = (draft: StudentMarks['draft']) =>
      read(exchange({ secondRound: true, figures: null, marks: { ...MARKS, draft } }), at(15))[0];
    expect([student('handed-in'), student('none')]).toEqual(['draft: your revision', 'draft: no revision of yours']);
  });

  it('shows a student their own marks only', () => {
    const student = (part: Partial<StudentMarks>, released = false) =>
      exchange({ figures: null, marks: { ...MARKS, ...part }, released });
    expect(read(student({}), at(15))).toEqual([
      'draft: handed in, version 2',
      'review: 1 of 2 done',
      'feedback: comes Thu 26 Mar',
    ]);
    // Drafts are allocated night by night: reviewing goes on while drafts come in.
    expect(read({ ...student({}), mayReview: true }, at(5))[1]).toBe('review: 1 of 2 done');
    expect(read({ ...student({ draft: 'saved' }), mayReview: false }, at(5))).toEqual([
      'draft: not handed in !',
      'review: opens Sat 14 Mar',
      'feedback: comes Thu 26 Mar',
    ]);
    expect(read(student({ draft: 'none' }), at(1))[0]).toBe('draft: opens Mon 2 Mar');
    expect(read(student({ reviewsAllocated: 0 }), at(15))[1]).toBe('review: none allocated');
    expect(read(student({}, true), at(27))[2]).toBe('feedback: 2 received');
  });
});
