import { USUAL_AFTER } from '../after/afterRule.js';
import { EMPTY_FORM } from '../form/form.js';
import { NO_PRACTICE } from '../practice/practice.js';
import { planSummary, type PlanSummaryContext as Around, type PlanSummarySettings as Settings } from './planSummary.js';

const iso = (day: number, hour = 12) => Date.UTC(2026, 2, day, hour);
const WORDS = new Intl.DateTimeFormat('en-GB', {
  ...{ timeZone: 'UTC', weekday: 'short', day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' },
});
const inWords = (at: number) => {
  const part = (type: string) => WORDS.formatToParts(at).find((one) => one.type === type)?.value;
  return `${part('weekday')} ${part('day')} ${part('month')}, ${part('hour')}:${part('minute')} UTC`;
};
const SETTINGS: Settings = {
  dates: {
    draftsOpen: iso(2),
    draftsDue: iso(12),
    lateUntil: null,
    reviewsOpen: iso(14),
    selfReviewDue: null,
    reviewsDue: iso(20),
    checkUntil: null,
    release: iso(26),
    repliesDue: null,
    revisionDue: null,
  },
  late: null,
  deliverables: [
    { id: 'a', kind: 'text', title: 'Report', description: '', required: true, families: [], maxMegabytes: 50 },
  ],
  takesPart: { kind: 'everyone' },
  handInAs: 'alone',
  whom: 'anyone',
  groupSetId: null,
  reviewsPerStudent: 2,
  selfReview: 'off',
  ownHandInFirst: true,
  names: 'both-ways',
  showNamesAtRelease: false,
  feedbackEach: false,
  reviewsFinal: false,
  after: { ...USUAL_AFTER, ratings: 'off' },
  practice: NO_PRACTICE,
  gradeParts: [],
};
const AROUND: Around = {
  students: 24,
  choices: {
    students: [{ id: 'e1', name: 'Ann Mensah' }],
    groupSets: [{ id: 'teams', title: 'Teams', groups: [{ id: 'g1', title: 'Herons' }] }],
  },
  form: null,
  allocation: { kind: 'command', at: null },
  inWords,
};
const account = (part: Partial<Settings>, around: Partial<Around> = {}) =>
  planSummary({ ...SETTINGS, ...part }, { ...AROUND, ...around }).join(' ');
const grouped = (part: Partial<Settings>) => account({ groupSetId: 'teams', ...part });

describe('the plan in plain words', () => {
  it('says who does what, until when', () => {
    expect(planSummary(SETTINGS, AROUND)).toEqual([
      '24 students hand in a typed draft by Thu 12 Mar, 12:00 UTC.',
      'Writing opens Mon 2 Mar, 12:00 UTC.',
      'Drafts are allocated when you start it; reviewers see nothing until then.',
      'From Sat 14 Mar, 12:00 UTC to Fri 20 Mar, 12:00 UTC, everyone who handed in reviews 2 drafts by classmates, and gets about as many reviews.',
      'Nobody sees a name but you and your assistants: authors and reviewers know each other by an alias that stays the same.',
      'Authors read their feedback on Thu 26 Mar, 12:00 UTC; until then you can look at the reviews.',
    ]);
  });

  it('uses the defaults of blank dates, and tells the optional stages', () => {
    const dates = { ...SETTINGS.dates, reviewsOpen: null, release: null };
    expect(account({ dates })).toContain('From Thu 12 Mar, 12:00 UTC to');
    expect(account({ dates })).toContain(
      'Authors read their feedback as soon as reviews are due, Fri 20 Mar, 12:00 UTC.',
    );
    const long = { ...dates, lateUntil: iso(13), repliesDue: iso(28), revisionDue: iso(30) };
    const late = { amount: 10, unit: 'percent', per: 'day', cap: 30, graceMinutes: 15 } as const;
    const words = account({ dates: long, late });
    expect(words).toContain(
      'Late work is accepted until Fri 13 Mar, 12:00 UTC. Late work loses 10 percentage points for each day or part of a day, at most 30 percentage points, after a 15-minute grace period.',
    );
    expect(words).toContain('From Fri 13 Mar, 12:00 UTC to');
    expect(words).toContain(
      'Authors and reviewers answer each other by Sat 28 Mar, 12:00 UTC; a revision is due by Mon 30 Mar, 12:00 UTC.',
    );
  });

  it('does not pretend to know a date that is missing', () => {
    expect(account({ dates: { ...SETTINGS.dates, draftsDue: null } })).toContain('when, is not settled yet');
  });

  it('counts one as one, and names who takes part', () => {
    expect(account({ reviewsPerStudent: 1 }, { students: 1 })).toMatch(
      /^One student hands in .* reviews 1 draft by a classmate/,
    );
    const rule = { sections: ['Tuesday'], groupIds: ['g1'], studentIds: ['e1'] };
    expect(account({ takesPart: { ...rule, kind: 'chosen' } })).toMatch(
      /^24 students of “Tuesday” and “Herons” hand in/,
    );
    expect(account({ takesPart: { ...rule, kind: 'except' } })).toMatch(
      /^24 students \(all but “Tuesday”, “Herons” and Ann Mensah\) hand in/,
    );
  });

  it('tells each way of who reviews whom', () => {
    expect(grouped({ whom: 'own-group' })).toContain(
      'everyone who handed in reviews 2 drafts from their own group in “Teams”.',
    );
    expect(grouped({ whom: 'other-groups' })).toContain('reviews 2 drafts from other groups of “Teams”.');
    expect(grouped({ whom: 'partners' })).toContain('reviews the drafts of all others in their own group of “Teams”.');
    expect(account({ whom: 'partners' })).toContain('a group set that is not chosen yet');
    expect(account({ ownHandInFirst: false })).toContain('everyone, handed in or not, reviews 2 drafts by classmates');
    expect(account({ selfReview: 'first' })).toContain('Everybody reviews their own draft first');
    const dates = { ...SETTINGS.dates, selfReviewDue: iso(23) };
    expect(account({ selfReview: 'after', dates })).toContain('That review is due Mon 23 Mar, 12:00 UTC.');
    expect(account({ dates })).not.toContain('That review is due');
    expect(account({ selfReview: 'after' })).toContain('once the reviews of the others are submitted');
    expect(grouped({ handInAs: 'group', whom: 'other-groups' })).toMatch(
      /^24 students hand in together, in their groups of “Teams”, one hand-in for each: a typed draft by .* each student alone reviews 2 drafts from other groups/,
    );
  });

  it('tells of practice as far as it is set', () => {
    expect(account({})).not.toContain('practice');
    const practice = { when: 'first', tries: 2, closeEnough: 0.75 } as const;
    expect(account({ practice })).toContain(
      'students review practice drafts and see your own review beside theirs, up to 2 times: until 75% of the items are close to your review, or until no attempt is left.',
    );
    expect(account({ practice: { ...practice, tries: null } })).toContain(
      'as often as they like: until 75% of the items are close to your review.',
    );
    expect(account({ practice: { ...practice, when: 'offered', tries: 1 } })).toContain(
      'Students can review practice drafts first, and see your own review beside theirs, once.',
    );
  });

  it('tells when drafts are allocated, and that night by night reviewing goes on beside drafting', () => {
    const by = (allocation: Around['allocation']) => account({}, { allocation });
    expect(by({ kind: 'nightly', at: null })).toContain(
      'Every night, whoever has handed in is given drafts to review.',
    );
    expect(by({ kind: 'nightly', at: null })).toContain(
      'Until Fri 20 Mar, 12:00 UTC, everyone who handed in reviews 2 drafts by classmates, as drafts come in.',
    );
    expect(by({ kind: 'at-due', at: null })).toContain('Drafts are allocated automatically at the draft due date.');
    expect(by({ kind: 'at', at: iso(13) })).toContain('Drafts are allocated automatically on Fri 13 Mar, 12:00 UTC.');
  });

  it('tells check and release apart where they are on different days', () => {
    const dates = { ...SETTINGS.dates, checkUntil: iso(24) };
    expect(account({ dates })).toContain(
      'You can check the reviews until Tue 24 Mar, 12:00 UTC; authors read their feedback on Thu 26 Mar, 12:00 UTC.',
    );
    expect(account({ dates, feedbackEach: true })).toContain('Authors read each review as soon as it is submitted.');
    expect(account({ dates: { ...dates, release: null } })).toContain(
      'You can check the reviews until Tue 24 Mar, 12:00 UTC; then authors read their feedback.',
    );
  });

  it('tells several deliverables, the form, names and the grade', () => {
    const [text] = SETTINGS.deliverables as [Settings['deliverables'][number]];
    const talk = { ...text, id: 'b', kind: 'recording', title: 'Talk', required: false } as const;
    const data = { ...text, id: 'c', kind: 'file', title: 'Data', families: ['pdf', 'document'] } as const;
    expect(account({ deliverables: [text, talk, data] })).toContain(
      'hand in Report (typed text), Talk (recording; optional) and Data (file: PDF or word processor document) by',
    );
    const form = { ...EMPTY_FORM, overall: 'required', minimumNotes: 3 } as const;
    expect(account({}, { form })).toContain(
      'The form: comments only, no points, an overall comment, at least 3 notes on the draft.',
    );
    expect(account({ names: 'reviewers-only', showNamesAtRelease: true })).toContain(
      'Authors do not learn who reviewed them; reviewers see whose draft they read. At release, names are shown.',
    );
    const gradeParts = [
      { part: 'peer-score', weight: 60 },
      { part: 'reviews-done', weight: 20 },
    ] as const;
    expect(account({ gradeParts })).toContain('The grade: score from peers 75% and reviews done 25%.');
  });
});
