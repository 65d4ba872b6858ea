import type { Lateness, LateRule } from '@salt-circle/core';
import type { FieldProblem } from '../problems.js';
import type { IsoInstant, PersonLabel } from './person.js';

/** What is known of a file's content; what does not apply is absent. */
export interface FileFacts {
  readonly pages?: number;
  readonly words?: number;
  /** CSS pixels. */
  readonly width?: number;
  readonly height?: number;
  readonly seconds?: number;
}

/** How far the reading copy of a file is: what reviewers read, without metadata. */
export interface CopyView {
  readonly state: 'waiting' | 'ready' | 'failed';
  /** 0 to 1, while it is being made. */
  readonly progress: number;
  readonly problem: string | null;
}

/** How a part is shown. */
export type PartShow = 'html' | 'pdf' | 'picture' | 'video' | 'sound' | 'link';

/** One thing in a draft, for whoever may see it. */
export interface PartView {
  readonly id: string;
  readonly deliverableId: string;
  /** Of the deliverable. */
  readonly deliverable: string;
  readonly kind: 'text' | 'file' | 'link' | 'recording';
  readonly show: PartShow;
  /** As it came, for authors and staff; a neutral one for everybody else. */
  readonly name: string;
  /** Typed text, or the reading copy of a document; null while there is none. */
  readonly html: string | null;
  /** Of a link. */
  readonly url: string;
  readonly title: string;
  readonly about: string;
  readonly words: number;
  /** Bytes; null for what is no file, and for reviewers. */
  readonly size: number | null;
  /** SHA-256 of what was handed in; null for reviewers. */
  readonly digest: string | null;
  /** Null for what needs none. */
  readonly copy: CopyView | null;
  readonly facts: FileFacts;
  readonly captions: boolean;
  /** Whether what was handed in can be had as it came, with all it says of itself. */
  readonly original: boolean;
}

/** A version as it is read. */
export interface DraftReading {
  readonly draftId: string;
  readonly title: string;
  readonly context: string;
  readonly words: number;
  readonly version: number;
  readonly parts: readonly PartView[];
}

export interface DraftReadingView extends DraftReading {
  readonly author: PersonLabel;
  readonly handedInAt: IsoInstant;
  readonly late: LateView | null;
  /** All that were handed in, for the author and staff. */
  readonly versions: readonly VersionMeta[];
}

export interface LateView extends Lateness {
  readonly rule: LateRule | null;
}

export interface VersionMeta {
  readonly number: number;
  readonly title: string;
  readonly words: number;
  /** SHA-256 of all that was handed in, in hexadecimal. */
  readonly digest: string;
  readonly handedInAt: IsoInstant;
  /** By whom, where that can be somebody else. */
  readonly handedInBy: string | null;
  readonly late: LateView | null;
  /** For reviewing, or after feedback. */
  readonly purpose: 'draft' | 'revision';
  /** Of a revision: what changed, in words of its author. */
  readonly changes: string;
  readonly withdrawn: boolean;
  readonly parts: ReadonlyArray<{ readonly what: string; readonly digest: string }>;
}

export interface VersionView extends VersionMeta, Pick<DraftReading, 'context'> {
  readonly reading: DraftReading;
}

export interface TextView {
  readonly html: string;
  readonly revision: number;
  readonly savedAt: IsoInstant | null;
}

export interface MyDraftView {
  /** Null as long as nothing has been saved. */
  readonly id: string | null;
  readonly revision: number;
  readonly title: string;
  readonly context: string;
  readonly savedAt: IsoInstant | null;
  /** Typed texts by deliverable. */
  readonly texts: Readonly<Record<string, TextView>>;
  /** Files, links and recordings, in their order. */
  readonly parts: readonly PartView[];
  readonly versions: readonly VersionMeta[];
  /** Whether what is saved differs from the version that counts. */
  readonly changedSinceHandIn: boolean;
  /** For a hand-in as a group: its title, and the names of all members. */
  readonly group: { readonly title: string; readonly members: readonly string[] } | null;
}

/** A place that may tell reviewers who the author is. */
export interface NameFindView {
  /** Unique among the finds of one check. */
  readonly key: string;
  readonly where:
    'title' | 'context' | 'text' | 'footnote' | 'copy' | 'link' | 'behind' | 'captions' | 'file-name' | 'metadata';
  /** In words: "Report", "name of the file", "author in the document's properties". */
  readonly whereWords: string;
  readonly partId: string | null;
  readonly deliverableId: string | null;
  readonly before: string;
  readonly exact: string;
  readonly after: string;
  /** UTF-16 code units of the text that it stands in. */
  readonly start: number;
  readonly end: number;
  readonly what: 'name' | 'email' | 'campus-id';
  readonly certainty: 'sure' | 'perhaps';
  /** Whether one press can hide it; what cannot be hidden has to be changed in the file. */
  readonly hideable: boolean;
  /** Reviewers do not get to see it anyway: metadata and file names are left out for them. */
  readonly removed: boolean;
}

export interface HiddenPassage {
  readonly partId: string;
  readonly deliverable: string;
  /** UTF-16 code units of the document's text. */
  readonly start: number;
  readonly end: number;
  readonly words: string;
}

/** What handing in now would mean. */
export interface HandInCheck {
  /** Stands for all that is saved at this moment; handing in names it. */
  readonly fingerprint: string;
  /** As what it would count. */
  readonly purpose: 'draft' | 'revision';
  /** What keeps it from being handed in. */
  readonly problems: readonly FieldProblem[];
  /** What should be known before. */
  readonly remarks: readonly string[];
  readonly late: LateView | null;
  readonly finds: readonly NameFindView[];
  /** Passages of documents that reviewers do not get to see, and that can be shown again. */
  readonly hidden: readonly HiddenPassage[];
  /** As reviewers will see it. */
  readonly reading: DraftReading;
}

export interface SavedView {
  readonly revision: number;
  readonly savedAt: IsoInstant;
}

/** What a reminder would be sent to whom. */
export interface ReminderView {
  /** Who gets it. */
  readonly people: readonly string[];
  /** Who was chosen and gets none. */
  readonly leftOut: ReadonlyArray<{ readonly name: string; readonly why: 'excused' | 'done' | 'not-open' }>;
  /** Of those who get it, who has a due time of the own, and reads that one. */
  readonly ownTimes: readonly string[];
  /** As the first of them reads it. */
  readonly subject: string;
  readonly text: string;
}

/** A file that has been begun to be sent, and is in no draft yet. */
export interface OpenUploadView {
  readonly id: string;
  readonly exchangeId: string;
  readonly deliverableId: string;
  readonly name: string;
  /** Bytes, and how many of them have come. */
  readonly size: number;
  readonly received: number;
}
