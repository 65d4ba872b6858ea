import type { Topic } from '@salt-circle/core';
import type { Change } from '../changes/changes.js';
import type { Happening } from './happening.js';

/** What changes with each thing that happens; nothing, where no page shows it. */
const TOPICS_OF: Readonly<Record<Happening['action'], readonly Topic[]>> = {
  'signed-in': [],
  'password-changed': [],
  'address-changed': [],
  'stepped-in': [],
  'clock-moved': [],
  'course-created': [],
  'practice-added': ['plan'],
  withheld: ['grades'],
  'given-back': ['grades'],
  'release-changed': ['reviews'],
  'look-asked': ['reviews'],
  'look-answered': ['reviews'],
  replied: ['reviews'],
  'revision-handed-in': ['drafts', 'mail'],
  'revision-withdrawn': ['drafts', 'mail'],
  'practice-removed': ['plan'],
  'course-changed': ['plan'],
  'person-joined': ['people'],
  'roster-applied': ['people', 'drafts', 'allocation'],
  'person-added': ['people', 'drafts', 'allocation'],
  'person-changed': ['people', 'drafts', 'allocation'],
  'person-dropped': ['people', 'drafts', 'allocation'],
  'person-taken-back': ['people', 'drafts', 'allocation'],
  invited: ['people', 'mail'],
  'password-link-sent': [],
  'groups-changed': ['people', 'allocation'],
  'library-changed': ['people'],
  'exchange-created': ['people'],
  'exchange-copied': ['people'],
  'plan-changed': ['plan'],
  'dates-changed': ['plan', 'mail'],
  'rules-changed': ['plan', 'mail'],
  // Somebody's own times are no news to the others.
  'own-times-set': ['drafts', 'allocation'],
  'own-times-removed': ['drafts', 'allocation'],
  'attachment-added': ['plan'],
  'attachment-removed': ['plan'],
  'form-changed': ['plan'],
  'exchange-published': ['plan', 'drafts', 'mail'],
  'draft-handed-in': ['drafts', 'allocation', 'mail'],
  'draft-withdrawn': ['drafts', 'allocation', 'mail'],
  'draft-handed-in-for': ['drafts', 'allocation', 'mail'],
  reminded: ['mail'],
  'allocation-applied': ['allocation', 'reviews', 'mail'],
  'allocation-repaired': ['allocation', 'reviews', 'mail'],
  'allocation-undone': ['allocation', 'reviews'],
  'allocation-by-hand': ['allocation', 'reviews', 'mail'],
  'allocation-imported': ['allocation', 'reviews', 'mail'],
  'allocation-planned': ['allocation'],
  'allocation-run': ['allocation', 'reviews', 'mail'],
  'extra-reviewer-set': ['allocation'],
  'grade-rule-set': ['plan', 'grades', 'mail'],
  'grade-overridden': ['grades'],
  'grades-released': ['plan', 'grades', 'mail'],
  'round-made': ['plan', 'drafts', 'allocation', 'reviews', 'mail'],
  'review-by-staff': ['reviews'],
  'review-begun': ['reviews', 'allocation'],
  'review-submitted': ['reviews', 'allocation'],
  'review-reopened': ['reviews', 'allocation'],
  'feedback-released': ['plan'],
};

/** What changed with what happened. */
export function changesOf({ action, courseId, exchangeId }: Happening): Change[] {
  if (courseId === undefined) return [];
  return TOPICS_OF[action].map((topic) => ({ topic, courseId, exchangeId: exchangeId ?? null }));
}
