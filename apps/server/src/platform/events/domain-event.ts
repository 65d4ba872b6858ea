import type { DateName } from '@salt-circle/core';

/** Nothing but that it happened. */
type Plain = Readonly<Record<string, never>>;
interface OfReview {
  readonly review: string;
}
interface OfVersion {
  readonly draft: string;
  /** Number of the version. */
  readonly version: number;
}
interface HandedIn extends OfVersion {
  readonly words: number;
  readonly digest: string;
  /** Milliseconds. */
  readonly at: number;
}
interface OfPlatform {
  readonly platform: string | null;
}
interface PeopleChanged {
  readonly added: number;
  readonly updated: number;
  readonly dropped: number;
}
/** Whose dates: one of the two. Ids of an enrolment or a group. */
interface Whose {
  readonly student: string | null;
  readonly group: string | null;
}
/** A date that was moved; ISO 8601, null for one that is not set. */
export interface MovedDate {
  readonly date: DateName;
  readonly from: string | null;
  readonly to: string | null;
}

/**
 * What each event tells: ids, numbers, dates, and reasons that are given for the record. Never what somebody wrote in confidence. Events are
 * stored: a payload that changes gets a new version and an upcast in `past-events.ts`.
 */
export interface EventPayloads {
  'signed-in': Plain;
  'password-changed': Plain;
  'address-changed': Plain;
  'stepped-in': Plain;
  /** Milliseconds. */
  'clock-moved': { readonly offset: number };
  'course-created': Plain;
  'course-changed': Plain;
  'person-joined': Partial<OfPlatform>;
  'roster-applied': PeopleChanged;
  'person-added': { readonly role: string };
  'person-changed': { readonly enrolment: string };
  'person-dropped': { readonly enrolment: string };
  'person-taken-back': { readonly enrolment: string };
  invited: { readonly people: number };
  'password-link-sent': { readonly enrolment: string };
  'groups-changed': Plain;
  'library-changed': Plain;
  'exchange-created': Plain;
  'exchange-copied': { readonly from: string };
  'plan-changed': { readonly changed: readonly string[] };
  'dates-changed': { readonly moved: readonly MovedDate[]; readonly tell: boolean };
  'rules-changed': { readonly changed: readonly string[]; readonly tell: boolean };
  'own-times-set': Whose & { readonly excused: boolean; readonly reason?: string };
  'own-times-removed': Whose;
  'attachment-added': Plain;
  'attachment-removed': Plain;
  'form-changed': { readonly items: number };
  'exchange-published': Plain;
  'draft-handed-in': HandedIn;
  'draft-withdrawn': OfVersion;
  'draft-handed-in-for': HandedIn;
  'revision-handed-in': HandedIn;
  'revision-withdrawn': OfVersion;
  reminded: { readonly people: number };
  'allocation-applied': { readonly pairs: number; readonly seed: number; readonly mutualPairs: number };
  'allocation-repaired': { readonly pairs: number; readonly seed: number; readonly mutualPairs: number };
  'allocation-undone': { readonly act: string; readonly pairs: number };
  'allocation-by-hand': {
    readonly added: number;
    readonly removed: number;
    readonly keptApart: number;
    readonly allowed: number;
  };
  'allocation-imported': { readonly added: number; readonly removed: number };
  'allocation-planned': { readonly schedule: string };
  'allocation-run': { readonly outcome: string; readonly planned: string };
  'extra-reviewer-set': { readonly reviews: number };
  'grade-rule-set': Plain;
  /** Shares from 0 to 1; null for a grade that is not overridden. `from` is missing where it was not kept. */
  'grade-overridden': {
    readonly participant: string;
    /** A part of the grade, or `whole`. */
    readonly part: string;
    readonly from?: number | null;
    readonly to: number | null;
    readonly reason: string | null;
  };
  'token-made': { readonly scope: string; readonly days: number | null };
  'token-taken-back': Plain;
  'grading-shared': { readonly works: readonly string[]; readonly how: string; readonly graders: number };
  'marking-forms-set': { readonly each: boolean };
  'grades-released': { readonly how: string; readonly at: string | null; readonly people: number | null };
  'round-made': { readonly drafts: number };
  'archive-made': { readonly people: string; readonly drafts: boolean };
  'archive-read': { readonly people: string; readonly drafts: boolean };
  'review-by-staff': OfReview;
  'review-begun': OfReview;
  'review-submitted': OfReview;
  'review-reopened': OfReview & { readonly reason?: string };
  'notes-brought': OfReview & { readonly notes: number };
  'notes-refused': OfReview;
  'feedback-released': { readonly release: string };
  'practice-added': Plain;
  'practice-removed': Plain;
  withheld: OfReview & { readonly kind: string };
  'given-back': OfReview & { readonly kind: string };
  'release-changed': { readonly how: string; readonly people: number };
  'look-asked': OfReview;
  'look-answered': OfReview;
  replied: OfReview & { readonly as: string };
  'platform-added': OfPlatform;
  'platform-changed': OfPlatform & { readonly active: boolean };
  'platform-removed': OfPlatform;
  'platform-key-made': Plain;
  'platform-refused': OfPlatform & { readonly fault: string };
  'platform-failed': OfPlatform;
  'platform-arrived': OfPlatform;
  'platform-person-known': OfPlatform;
  'platform-linked': OfPlatform;
  'platform-unlinked': Plain;
  'platform-link-chosen': OfPlatform & { readonly column: boolean };
  'platform-people-taken': PeopleChanged;
  'platform-columns-set': { readonly columns: string; readonly removed: number };
  'platform-scores-sent': { readonly people: number };
  'platform-score-decided': { readonly how: string; readonly people: number };
}

export type EventAction = keyof EventPayloads;

interface EventBase<Action extends EventAction> {
  readonly action: Action;
  /** Null for the application itself. */
  readonly actorId: string | null;
  readonly courseId?: string | undefined;
  readonly exchangeId?: string | undefined;
}

/** One kind of event, with its own payload; none where there is nothing to tell. */
export type EventOf<Action extends EventAction> = EventBase<Action> &
  (EventPayloads[Action] extends Plain
    ? { readonly details?: undefined }
    : { readonly details: EventPayloads[Action] });

/** Something that happened and is worth knowing later. Handlers are listed in `handlers.ts`. */
export type DomainEvent = { [Action in EventAction]: EventOf<Action> }[EventAction];
