import type { AuditRow } from '@salt-circle/contracts';
import { listed, wordsBy, type DateName } from '@salt-circle/core';
import { say } from '../../words/activity.js';

/** The sentence of each act, by what it is about. */
const ACTS = {
  kindPlan: {
    'exchange-created': 'exchangeCreated',
    'exchange-copied': 'exchangeCopied',
    'own-times-set': 'ownTimesSet',
    'own-times-removed': 'ownTimesRemoved',
    'plan-changed': 'planChanged',
    'dates-changed': 'datesChanged',
    'rules-changed': 'rulesChanged',
    'attachment-added': 'attachmentAdded',
    'attachment-removed': 'attachmentRemoved',
    'form-changed': 'formChanged',
    'exchange-published': 'exchangePublished',
    reminded: 'reminded',
    'practice-added': 'practiceAdded',
    'practice-removed': 'practiceRemoved',
    'round-made': 'roundMade',
  },
  kindDrafts: {
    'draft-handed-in': 'draftHandedIn',
    'draft-handed-in-for': 'draftHandedInFor',
    'draft-withdrawn': 'draftWithdrawn',
    'revision-handed-in': 'revisionHandedIn',
    'revision-withdrawn': 'revisionWithdrawn',
  },
  kindAllocation: {
    'allocation-applied': 'allocationApplied',
    'allocation-repaired': 'allocationRepaired',
    'allocation-undone': 'allocationUndone',
    'allocation-by-hand': 'allocationByHand',
    'allocation-imported': 'allocationImported',
    'allocation-planned': 'allocationPlanned',
    'allocation-run': 'allocationRun',
    'extra-reviewer-set': 'extraReviewerSet',
  },
  kindReviews: {
    replied: 'replied',
    'notes-brought': 'notesBrought',
    'notes-refused': 'notesRefused',
    withheld: 'withheld',
    'given-back': 'givenBack',
    'release-changed': 'releaseChanged',
    'look-asked': 'lookAsked',
    'look-answered': 'lookAnswered',
    'review-by-staff': 'reviewByStaff',
    'review-begun': 'reviewBegun',
    'review-submitted': 'reviewSubmitted',
    'review-reopened': 'reviewReopened',
    'feedback-released': 'feedbackReleased',
  },
  kindGrades: {
    'grade-rule-set': 'gradeRuleSet',
    'grading-shared': 'gradingShared',
    'platform-columns-set': 'platformColumnsSet',
    'platform-scores-sent': 'platformScoresSent',
    'platform-score-decided': 'platformScoreDecided',
    'marking-forms-set': 'markingFormsSet',
    'reviewing-form-set': 'reviewingFormSet',
    'grade-overridden': 'gradeOverridden',
    'grades-released': 'gradesReleased',
  },
  kindOther: {
    'archive-made': 'archiveMade',
    'archive-read': 'archiveRead',
    'platform-link-chosen': 'platformLinkChosen',
  },
} as const;

export type ActivityKind = keyof typeof ACTS;
export const ACTIVITY_KINDS = Object.keys(ACTS) as ActivityKind[];

export const KIND_WORDS: Readonly<Record<ActivityKind, string>> = wordsBy(say, {
  kindPlan: 'kindPlan',
  kindDrafts: 'kindDrafts',
  kindAllocation: 'kindAllocation',
  kindReviews: 'kindReviews',
  kindGrades: 'kindGrades',
  kindOther: 'kindOther',
});

/** Sections of the plan, by the settings in them. */
const SECTIONS = {
  sectionInstructions: ['title', 'briefHtml'],
  sectionSubmission: ['deliverables', 'handInAs', 'groupSetId'],
  sectionTakesPart: ['takesPart'],
  sectionReviewing: ['whom', 'reviewsPerStudent', 'selfReview', 'ownHandInFirst', 'feedbackEach', 'reviewsFinal'],
  sectionNames: ['names', 'showNamesAtRelease'],
  sectionGuide: ['guideHtml', 'shorthandId'],
  sectionPractice: ['practice'],
  sectionAfter: ['after'],
  sectionReminders: ['remindHours'],
  sectionLate: ['late'],
  sectionGrade: ['gradeParts'],
} as const;

const SECTION_WORDS: Readonly<Record<keyof typeof SECTIONS, string>> = wordsBy(say, {
  sectionInstructions: 'sectionInstructions',
  sectionSubmission: 'sectionSubmission',
  sectionTakesPart: 'sectionTakesPart',
  sectionReviewing: 'sectionReviewing',
  sectionNames: 'sectionNames',
  sectionGuide: 'sectionGuide',
  sectionPractice: 'sectionPractice',
  sectionAfter: 'sectionAfter',
  sectionReminders: 'sectionReminders',
  sectionLate: 'sectionLate',
  sectionGrade: 'sectionGrade',
});

/** What of the plan was changed, as its page calls it. @param changed names of settings */
export function sectionsOf(changed: readonly string[]): string[] {
  const sections = Object.keys(SECTIONS) as Array<keyof typeof SECTIONS>;
  return sections
    .filter((section) => (SECTIONS[section] as readonly string[]).some((name) => changed.includes(name)))
    .map((section) => SECTION_WORDS[section]);
}

export const DATE_WORDS: Readonly<Record<DateName, string>> = wordsBy(say, {
  draftsOpen: 'draftsOpen',
  draftsDue: 'draftsDue',
  lateUntil: 'lateUntil',
  reviewsOpen: 'reviewsOpen',
  selfReviewDue: 'selfReviewDue',
  reviewsDue: 'reviewsDue',
  checkUntil: 'checkUntil',
  release: 'release',
  repliesDue: 'repliesDue',
  revisionDue: 'revisionDue',
});

const KEYS = new Map<string, string>(Object.values(ACTS).flatMap((acts) => Object.entries(acts)));

export function kindOf(action: string): ActivityKind {
  return ACTIVITY_KINDS.find((kind) => action in ACTS[kind]) ?? 'kindOther';
}

/** What somebody did, in one sentence; an act without words of its own by its name. */
export function activityWords({ actor, action, about }: AuditRow): string {
  // All of them take the same slots, used or not.
  const key = KEYS.get(action) as 'withheld' | undefined;
  const [person = say('somebody'), ...authors] = about;
  return key === undefined
    ? say('otherAct', { actor, action })
    : say(key, { actor, person, author: authors.length === 0 ? say('somebody') : listed(authors) });
}
