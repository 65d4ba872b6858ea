import type { PlaceSource, Role } from '@salt-circle/core';
import type { IsoInstant } from './person.js';

export interface PersonRow {
  /** Of the enrolment. */
  readonly id: string;
  readonly name: string;
  /** Blank for none: a platform need not pass addresses on. */
  readonly email: string;
  readonly role: Role;
  readonly campusId: string | null;
  readonly section: string | null;
  readonly trait: string | null;
  readonly active: boolean;
  /** By whom the place was last written. */
  readonly source: PlaceSource;
  /** `taken`: by somebody's account. `invited`: a link to take it is open. */
  readonly place: 'taken' | 'invited' | 'open';
  readonly you: boolean;
  /** Whose partner the person is in running exchanges, in sentences: pointed out before dropping. */
  readonly partnerOf: readonly string[];
}

export interface PeopleView {
  readonly people: readonly PersonRow[];
  readonly sections: readonly string[];
}

export interface RosterProblemView {
  /** Line of the file; 0 for the file as a whole. */
  readonly row: number;
  readonly sentence: string;
  readonly warning: boolean;
}

export interface RosterPreview {
  readonly fingerprint: string;
  /** What the file was understood to be, in a sentence. */
  readonly read: string;
  readonly add: ReadonlyArray<{
    readonly row: number;
    readonly name: string;
    readonly email: string;
    readonly role: Role;
    readonly campusId: string | null;
    readonly section: string | null;
  }>;
  readonly update: ReadonlyArray<{ readonly row: number; readonly name: string; readonly changes: readonly string[] }>;
  readonly missing: ReadonlyArray<{ readonly id: string; readonly name: string; readonly email: string }>;
  readonly unchanged: number;
  readonly problems: readonly RosterProblemView[];
  /** Columns that mean nothing here; one of them can be the one to mix groups by. */
  readonly unknownColumns: readonly string[];
  readonly classes: ReadonlyArray<{
    readonly id: string;
    readonly title: string;
    readonly about: string;
    readonly students: number;
  }>;
  /** The text of the file, so that it can be mended on the spot; null for a bundle. */
  readonly text: string | null;
}

export interface RosterApplied {
  readonly added: number;
  readonly updated: number;
  readonly dropped: number;
  readonly invited: number;
}

export interface GroupMember {
  /** Of the enrolment. */
  readonly id: string;
  readonly name: string;
  readonly section: string | null;
  readonly trait: string | null;
}

export interface GroupView {
  readonly id: string;
  readonly title: string;
  readonly members: readonly GroupMember[];
}

export interface GroupSetView {
  readonly id: string;
  readonly title: string;
  readonly groups: readonly GroupView[];
  readonly ungrouped: readonly GroupMember[];
  /** Titles of exchanges that use it and are published. */
  readonly usedBy: readonly string[];
}

export interface GroupsView {
  readonly sets: readonly GroupSetView[];
  readonly students: number;
  readonly hasSections: boolean;
  readonly hasTraits: boolean;
}

export interface GroupImportPreview {
  readonly groups: ReadonlyArray<{ readonly title: string; readonly members: readonly string[] }>;
  readonly without: readonly string[];
  readonly problems: readonly RosterProblemView[];
  readonly text: string;
  readonly applied: boolean;
}

export interface MailRow {
  readonly id: string;
  readonly at: IsoInstant;
  readonly to: string;
  readonly subject: string;
  /** `kept`: no mail server is set, so it stays here. `ended`: never sent, because what it was about is over. */
  readonly state: 'kept' | 'waiting' | 'sent' | 'failed' | 'ended';
  readonly error: string | null;
}

export interface MailView extends MailRow {
  readonly text: string;
}

/** Somebody who is invited and has not joined, with the link where staff may pass it on. */
export interface InvitationLinkRow {
  readonly name: string;
  readonly email: string;
  /** Null where a mail server sends it, or where it is for the addressee alone. */
  readonly link: string | null;
}

export interface OutboxView {
  readonly mails: readonly MailRow[];
  readonly total: number;
  /** Given up, of all of the course. */
  readonly failed: number;
  /** Nothing is sent: this installation was restored or moved, and whoever runs it has not said what becomes of the mail. */
  readonly held: boolean;
  /** Where mail goes: into this outbox only, or to a mail server as well. */
  readonly sends: boolean;
}

/** A place in a course that waits to be taken. */
export interface OpenPlace {
  /** Of the enrolment. */
  readonly id: string;
  readonly course: string;
  /** As the course lists the person. */
  readonly name: string;
  readonly role: Role;
  readonly by: string;
}

export interface InvitationView {
  readonly places: readonly OpenPlace[];
  /** Where the link went. */
  readonly email: string;
  /** Whether there is an account with this address. Not told by a link that staff can read. */
  readonly hasAccount: boolean;
}

export interface CalendarLinkView {
  /** When the present link was made, or null without one. */
  readonly madeAt: IsoInstant | null;
}
