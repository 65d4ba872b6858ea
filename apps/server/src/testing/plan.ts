import type { PlanSettings } from '@salt-circle/contracts';
import { DATE_ORDER, EMPTY_FORM, NO_PRACTICE, USUAL_AFTER, type DateName, type FormItem } from '@salt-circle/core';

export const DAY = 24 * 3_600_000;
const day = (number: number) => Date.UTC(2026, 2, number);
/** Drafts 2 to 12 March, reviews 14 to 20 March, release 26 March. */
export const DATES = {
  ...(Object.fromEntries(DATE_ORDER.map((name) => [name, null])) as Record<DateName, string | null>),
  draftsOpen: new Date(day(2)).toISOString(),
  draftsDue: new Date(day(12)).toISOString(),
  reviewsOpen: new Date(day(14)).toISOString(),
  reviewsDue: new Date(day(20)).toISOString(),
  release: new Date(day(26)).toISOString(),
};
export const AT = {
  drafting: day(5),
  afterDue: day(13),
  reviewing: day(15),
  checking: day(22),
  closed: day(27),
} as const;

export const ITEMS: FormItem[] = [
  {
    kind: 'criterion',
    id: 'evidence',
    title: 'Evidence',
    guidance: '',
    required: true,
    weight: 1,
    comment: 'optional',
    levels: [
      { id: 'low', title: 'Claims only', description: '', points: 0 },
      { id: 'high', title: 'All backed', description: '', points: 4 },
    ],
  },
  { kind: 'prompt', id: 'first', title: 'What first?', guidance: '', required: true, weight: 1, minimumWords: 5 },
];

export const FORM = { ...EMPTY_FORM, overall: 'none' as const, items: ITEMS };

export const PLAN: PlanSettings = {
  title: 'Field report',
  briefHtml: '<p>Write a report.</p>',
  guideHtml: '',
  dates: DATES,
  late: null,
  deliverables: [
    { id: 'text', kind: 'text', title: 'Report', description: '', required: true, families: [], maxMegabytes: 50 },
  ],
  takesPart: { kind: 'everyone', sections: [], groupIds: [], studentIds: [] },
  handInAs: 'alone',
  whom: 'anyone',
  groupSetId: null,
  reviewsPerStudent: 1,
  selfReview: 'off',
  ownHandInFirst: true,
  names: 'both-ways',
  showNamesAtRelease: false,
  feedbackEach: false,
  reviewsFinal: false,
  practice: NO_PRACTICE,
  after: USUAL_AFTER,
  remindHours: null,
  gradeParts: [],
  shorthandId: null,
};
