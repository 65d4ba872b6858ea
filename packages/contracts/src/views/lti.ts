import type { ArrivalStep, ArrivalStop, GradePartName, Role } from '@salt-circle/core';
import type { IsoInstant } from './person.js';

/** A platform, for whoever sees to it. */
export interface PlatformRow {
  readonly id: string;
  readonly name: string;
  readonly issuer: string;
  readonly clientId: string;
  readonly authUrl: string;
  readonly tokenUrl: string;
  readonly keysUrl: string;
  readonly tokenAudience: string | null;
  readonly pages: readonly string[];
  readonly active: boolean;
  readonly makesCourses: boolean;
  readonly deployments: ReadonlyArray<{ readonly id: string; readonly allowed: boolean }>;
  readonly courses: number;
  readonly people: number;
  /** When somebody last came by it, and when it last answered. */
  readonly arrivedAt: IsoInstant | null;
  readonly answeredAt: IsoInstant | null;
  /** What went wrong last with what it was asked, and with whom it sent, in sentences, unless that went right since. */
  readonly faults: ReadonlyArray<{ readonly sentence: string; readonly at: IsoInstant | null }>;
}

export interface PlatformsView {
  readonly platforms: readonly PlatformRow[];
  /** What is entered at a platform, where that is done by hand. */
  readonly ours: {
    readonly loginUrl: string;
    readonly launchUrl: string;
    readonly keysUrl: string;
    readonly scopes: readonly string[];
  };
  readonly keys: ReadonlyArray<{
    readonly id: string;
    readonly createdAt: IsoInstant;
    /** `next`: shown, so that platforms know it. `signing`. `ending`: what it signed is still recognised. */
    readonly state: 'next' | 'signing' | 'ending';
    readonly until: IsoInstant | null;
  }>;
}

/** Somebody whom a platform has sent. */
export interface ArrivalView {
  readonly platform: string;
  readonly name: string | null;
  readonly course: string;
  readonly role: Role | null;
  readonly step: Exclude<ArrivalStep, 'take' | 'add'> | 'stop';
  /** Why it goes no further, and what can be done. */
  readonly stop: {
    readonly code: ArrivalStop | 'exchange-gone';
    readonly sentence: string;
    readonly whatToDo: string;
  } | null;
  /** For `prove`: the place that waits, enough of its address to know it by, and whether a password of an account can show it. */
  readonly prove: {
    readonly name: string;
    readonly hint: string;
    readonly taken: boolean;
    readonly byPassword: boolean;
  } | null;
  /** For `course`: courses of the person's own that can be linked, and whether one can be made. */
  readonly courses: ReadonlyArray<{ readonly id: string; readonly title: string }>;
  readonly mayMake: boolean;
  /** For `role`: what the course says. */
  readonly courseRole: Role | null;
  /** For `choose`. */
  readonly exchanges: ReadonlyArray<{ readonly id: string; readonly title: string }>;
  readonly acceptsColumn: boolean;
  /** For `go`, and after choosing: where to; within the application. */
  readonly go: string | null;
}

/** What a link sent by mail ties together. */
export interface LtiProofView {
  readonly platform: string;
  /** As the course or the account names the person. */
  readonly name: string;
}

/** How a course stands to a platform. */
export interface CoursePlatformView {
  /** Null: not linked. */
  readonly platform: {
    readonly name: string;
    /** As the platform calls the course. */
    readonly title: string;
    readonly nightly: 'off' | 'add';
    /** Whether it tells who is in the course, and takes grades. */
    readonly givesPeople: boolean;
    readonly takesGrades: boolean;
    readonly fetchedAt: IsoInstant | null;
    readonly missing: number;
    readonly fault: string | null;
  } | null;
}

/** `apart`: not one of the platform's people. `unreleased`: nothing to send yet. In the order in which they want to be looked at. */
export const LTI_SCORE_STATES = ['changed', 'refused', 'waiting', 'sent', 'unreleased', 'apart'] as const;
export type LtiScoreState = (typeof LTI_SCORE_STATES)[number];

/** One person in one column. */
export interface LtiScoreView {
  readonly participantId: string;
  readonly name: string;
  readonly part: GradePartName | '';
  readonly state: LtiScoreState;
  readonly kind: 'graded' | 'excused' | 'open';
  /** Percent. */
  readonly ours: number | null;
  readonly theirs: number | null;
  readonly at: IsoInstant | null;
  readonly nextTryAt: IsoInstant | null;
  readonly error: string | null;
}

/** What the gradebook of the platform is told of an exchange. */
export interface GradebookView {
  /** Null: the course is not linked, or the platform takes no grades. */
  readonly platform: string | null;
  readonly columns: 'off' | 'whole' | 'parts';
  /** Whether columns can be made there, or only the one that the platform has made for a link. */
  readonly canMake: boolean;
  readonly faults: readonly string[];
  /** Where there is a column for each part, and the parts have changed since: what the difference is. */
  readonly tidy: string | null;
  /** How many there are of each. */
  readonly counts: Readonly<Record<LtiScoreState, number>>;
  /** The first {@link LIMITS.scores}, what wants to be looked at before the rest. */
  readonly scores: readonly LtiScoreView[];
}
